/** Compressed kilobytes of JavaScript that the sitting page loads, opened afresh as a student's link would. */
import { iso } from '../core/kit/time'
import { findPerson } from '../server/people/people'
import { openDatabase } from '../server/database/database'
import { startSitting } from '../server/domain/sittings/start'
import { closeBrowser, visitor } from '../tests/support/browser'
import { startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 2)
const server = await startServer(url)
const { attempt } = await startSitting(
  db,
  (await findPerson(db, 'p-silas-penn'))!,
  'quiz-buoys',
  { device: 'bench' },
  iso(Date.now()),
)
const { context, page } = await visitor(server.address, 'Silas Penn')
await page.close()
const fresh = await context.newPage()
const sizes = new Map<string, number>()
const devtools = await context.newCDPSession(fresh)
await devtools.send('Network.enable')
await devtools.send('Network.setCacheDisabled', { cacheDisabled: true })
const types = new Map<string, string>()
devtools.on('Network.responseReceived', ({ requestId, response, type }) => {
  if (type === 'Script' || /javascript/.test(response.mimeType)) types.set(requestId, response.url)
})
devtools.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
  if (types.has(requestId)) sizes.set(types.get(requestId)!, encodedDataLength)
})
await fresh.goto(`/sit/${attempt}`)
await fresh.locator('article').first().waitFor()
await fresh.waitForLoadState('networkidle')
const total = [...sizes.values()].reduce((sum, bytes) => sum + bytes, 0)
await closeBrowser()
await server.stop()
await db.close()
console.log(JSON.stringify({ 'sitting.javascript': { value: Number((total / 1024).toFixed(1)), unit: 'kB' } }))
process.exit(0)
