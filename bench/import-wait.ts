/**
 * The longest that another request waits while files are looked at: a package of 5,000 items with the proof, 10,000 rows of CSV,
 * 500,000 letters of Markdown; milliseconds.
 */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { iso } from '../core/kit/time'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { Caller, startServer } from '../tests/support/server'
import { longestWait } from '../tests/support/waits'

const folder = mkdtempSync(join(tmpdir(), 'thistle-import-'))
execFileSync(process.execPath, ['--import', 'tsx', join(import.meta.dirname, 'import.ts'), join(folder, 'bench.zip')])
const packed = readFileSync(join(folder, 'bench.zip'))
rmSync(folder, { recursive: true })
const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 2, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const server = await startServer(url)
const maren = await new Caller(server.address).as('p-maren')
const rows = Array.from({ length: 10_000 }, (_, i) => `choice,Which is ${i}?,a,ebb,flood`).join('\n')
const question = 'Which of these falls?\n\n- [x] ebb\n- [ ] flood\n\n---\n\n'
const markdown = question.repeat(Math.floor(499_000 / question.length))

const files: Record<string, () => Promise<unknown>> = {
  package: () => maren.call('POST', '/api/imports?name=large.zip', packed),
  csv: () => maren.call('POST', '/api/imports?name=large.csv', `kind,question,right,option_a,option_b\n${rows}`),
  markdown: () => maren.call('POST', '/api/imports/look', { text: markdown }),
}
await maren.call('POST', '/api/imports/look', { text: question })
let longest = 0
for (const [name, send] of Object.entries(files)) {
  const wait = await longestWait(server.address, send())
  console.error(name, Math.round(wait), 'ms')
  longest = Math.max(longest, wait)
}
await server.stop()
await db.close()
console.log(JSON.stringify({ 'import.wait': { value: Math.round(longest), unit: 'ms' } }))
process.exit(0)
