/** The longest that a health request waits while texts that take long to read are looked at; milliseconds. */
import { iso } from '../core/kit/time'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { sampleQuestion } from '../tests/fixtures/core'
import { Caller, startServer } from '../tests/support/server'
import { longestWait } from '../tests/support/waits'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 2, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const server = await startServer(url)
const maren = await new Caller(server.address).as('p-maren')
const look = (text: string) => maren.call('POST', '/api/imports/look', { text })
/** Emphasis that never ends, in as long questions as there may be. */
const endless = `${'**a_'.repeat(4900)}\n\n---\n\n`.repeat(20)
const matrix = `\\begin{matrix}${'a&amp;'.repeat(900)}\\end{matrix}`
const json = JSON.stringify({
  format: 'thistle-questions',
  version: 1,
  questions: Array.from({ length: 600_000 }, () => ({ id: 'x', deep: [[[{}]]] })),
})

const hostile: (() => Promise<unknown>)[] = [
  () => look(endless),
  () => look(Array.from({ length: 30_000 }, (_, i) => `[a${i}]: x`).join('\n')),
  () => look('Which one?\n\n- [x] this\n- [ ] that\n\n---\n\n'.repeat(3000)),
  () =>
    maren.call('POST', '/api/questions/preview', {
      question: {
        ...sampleQuestion('choice'),
        stem: `<p><span data-type="inline-math" data-latex="${matrix}"></span></p>`,
      },
    }),
  () => maren.call('POST', '/api/imports?name=large.json', json),
]

await look('Which?\n\n- [x] this\n- [ ] that')
let longest = 0
for (const send of hostile) {
  const wait = await longestWait(server.address, send())
  console.error(Math.round(wait), 'ms')
  longest = Math.max(longest, wait)
}
await server.stop()
await db.close()
console.log(JSON.stringify({ 'longest.wait': { value: Math.round(longest), unit: 'ms' } }))
process.exit(0)
