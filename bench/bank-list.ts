/** The longest frame while the list of a bank of 100,000 is scrolled through some thousand questions; the bank is that of bank.ts. */
import { closeBrowser, visitor } from '../tests/support/browser'
import { startServer } from '../tests/support/server'

const server = await startServer(process.env.THISTLE_DATABASE_URL!)
const { page } = await visitor(server.address, 'Maren Holt')
await page.goto('/bank')
await page
  .getByRole('listitem')
  .filter({ has: page.getByRole('checkbox') })
  .nth(5)
  .waitFor()
// As text: what tsx makes of a function names helpers that the page does not have.
const frames = await page.evaluate<{ longest: number; median: number; rows: number }>(`new Promise((done) => {
  const times = []
  let last = performance.now()
  const until = last + 6000
  requestAnimationFrame(function step(now) {
    times.push(now - last)
    last = now
    window.scrollBy(0, 140)
    if (now < until) { requestAnimationFrame(step); return }
    const longest = Math.max(...times.slice(5))
    done({ longest, median: times.sort((a, b) => a - b)[Math.floor(times.length / 2)], rows: document.querySelectorAll('main li[data-index]').length })
  })
})`)
await closeBrowser()
await server.stop()
console.log(
  JSON.stringify({
    'bank.list.frame': { value: Math.round(frames.longest), unit: 'ms' },
    'bank.list.frame.median': { value: Math.round(frames.median), unit: 'ms' },
    'bank.list.rows': { value: frames.rows, unit: 'rows in the page' },
  }),
)
process.exit(0)
