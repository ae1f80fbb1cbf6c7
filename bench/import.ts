/** Items a second that go into the bank from a QTI package of 5,000, read to visible, and the memory that takes. */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { iso } from '../core/kit/time'
import { kindNames } from '../core/question'
import { seedDemo } from '../demo/seed'
import { writePackage } from '../formats/qti/package-write'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { stageFile } from '../server/domain/imports/stage'
import { beginTaking } from '../server/domain/imports/take'
import { findPerson } from '../server/people/people'
import { sampleQuestion } from '../tests/fixtures/core'

const total = 5000
const path = process.argv[2]
if (path) {
  // In a process of its own, so that the memory of writing is not counted with that of reading.
  const kinds = kindNames.filter((kind) => kind !== 'spot')
  writeFileSync(
    path,
    writePackage(
      Array.from({ length: total }, (_, i) => ({
        id: `bench-${i}`,
        folder: ['Bench', `Part ${i % 20}`],
        objectives: ['1.1'],
        question: sampleQuestion(kinds[i % kinds.length]!, {
          stem: `<p>Question ${i} about the tide at station ${i % 97}, with words of its own</p>`,
        }),
      })),
      { media: new Map() },
      '2.2',
    ),
  )
  process.exit(0)
}
const folder = mkdtempSync(join(tmpdir(), 'thistle-import-'))
execFileSync(process.execPath, ['--import', 'tsx', import.meta.filename, join(folder, 'bench.zip')])
const file = readFileSync(join(folder, 'bench.zip'))
rmSync(folder, { recursive: true })
const db = openDatabase(process.env.THISTLE_DATABASE_URL!, 12, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const maren = (await findPerson(db, 'p-maren'))!

let most = 0
const watch = setInterval(() => {
  most = Math.max(most, process.memoryUsage().rss)
}, 50)
const began = performance.now()
const batch = await stageFile(db, maren, file, 'bench.zip', iso(Date.now()))
const read = performance.now()
await (
  await beginTaking(
    db,
    maren,
    batch.id,
    batch.items.map((_, i) => i),
    () => iso(Date.now()),
  )
).done
const ended = performance.now()
clearInterval(watch)
const broken = batch.items.filter((item) => item.problem)
if (broken.length) throw new Error(`${broken.length} items could not be read: ${broken[0]!.problem}`)
await db.close()
console.log(
  JSON.stringify({
    'bank.import.rate': { value: Math.round(total / ((ended - began) / 1000)), unit: 'items/s' },
    'bank.import.read': { value: Math.round(total / ((read - began) / 1000)), unit: 'items/s' },
    'bank.import.memory': { value: Math.round(most / 1024 / 1024), unit: 'MB' },
  }),
)
process.exit(0)
