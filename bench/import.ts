/**
 * Items a second that go into the bank from a QTI package of 5,000 of somebody else's, read and proven to visible, and the memory
 * that takes.
 */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { iso } from '../core/kit/time'
import { kindNames } from '../core/question'
import { seedDemo } from '../demo/seed'
import { writePackage } from '../formats/qti/package/write'
import { document, readXml, type XmlElement } from '../formats/xml'
import { unzip, zip } from '../formats/zip'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { stageFile } from '../server/domain/imports/stage'
import { beginTaking } from '../server/domain/imports/take'
import { findPerson } from '../server/people/people'
import { sampleQuestion } from '../tests/fixtures/core'

const total = 5000
const [path, name, count] = process.argv.slice(2)
if (path) {
  // In a process of its own, so that the memory of writing is not counted with that of reading.
  const kinds = kindNames.filter((kind) => kind !== 'spot')
  const written = unzip(
    writePackage(
      Array.from({ length: Number(count) }, (_, i) => ({
        id: `${name}-${i}`,
        folder: ['Bench', `Part ${i % 20}`],
        objectives: ['1.1'],
        question: sampleQuestion(kinds[i % kinds.length]!, {
          stem: `<p>Question ${i} of ${name} about the tide at station ${i % 97}, with words of its own</p>`,
        }),
      })),
      { media: new Map() },
      '2.2',
    ),
  )
  // Without what Thistle says of its own questions: then each is read by its key, and proven.
  const manifest = readXml(new TextDecoder().decode(written.get('imsmanifest.xml')))
  const bare = (node: XmlElement): XmlElement => ({
    ...node,
    children: node.children.flatMap((child): (XmlElement | string)[] =>
      typeof child === 'string' ? [child] : child.name === 'settings' ? [] : [bare(child)],
    ),
  })
  writeFileSync(
    path,
    zip(new Map([...written, ['imsmanifest.xml', new TextEncoder().encode(document(bare(manifest)))]])),
  )
  process.exit(0)
}
const folder = mkdtempSync(join(tmpdir(), 'thistle-import-'))
function packageOf(called: string, items: number): Buffer {
  const file = join(folder, `${called}.zip`)
  execFileSync(process.execPath, ['--import', 'tsx', import.meta.filename, file, called, String(items)])
  return readFileSync(file)
}
const [early, file] = [packageOf('early', 1000), packageOf('bench', total)]
rmSync(folder, { recursive: true })
const db = openDatabase(process.env.THISTLE_DATABASE_URL!, 12, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const maren = (await findPerson(db, 'p-maren'))!
/** Takes all of a batch. */
const take = async ({ id, items }: Awaited<ReturnType<typeof stageFile>>) =>
  (
    await beginTaking(
      db,
      maren,
      id,
      items.map((_, i) => i),
      () => iso(Date.now()),
    )
  ).done

// A server that runs has imported before: its modules are read, and its code is compiled.
await take(await stageFile(db, maren, early, 'early.zip', iso(Date.now())))

let most = 0
const watch = setInterval(() => {
  most = Math.max(most, process.memoryUsage().rss)
}, 50)
const began = performance.now()
const batch = await stageFile(db, maren, file, 'bench.zip', iso(Date.now()))
const read = performance.now()
await take(batch)
const ended = performance.now()
clearInterval(watch)
const unproven = batch.items.filter((item) => item.proof && item.proof.state !== 'proven' && item.kind !== 'ordering')
if (unproven.length) throw new Error(`${unproven.length} items were not proven: ${unproven[0]!.title}`)
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
