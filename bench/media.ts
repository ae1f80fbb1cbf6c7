/** Memory that 60 MB of media take beyond rest, on their way out and in: the more of the two, for a package and for JSON. */
import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { digestOf } from '../formats/bundle'
import { readThistle, writeThistle } from '../formats/json/thistle'
import { readPackage } from '../formats/qti/package/read'
import { writePackage } from '../formats/qti/package/write'
import { sampleQuestion } from '../tests/fixtures/core'

const mega = 1024 * 1024
const writers = {
  zip: (media: Map<string, Uint8Array>, outgoing: Parameters<typeof writePackage>[0]) =>
    writePackage(outgoing, { media }, '2.2'),
  json: (media: Map<string, Uint8Array>, outgoing: Parameters<typeof writePackage>[0]) => writeThistle(outgoing, media),
}
type Kind = keyof typeof writers
const [way, kind, path] = process.argv.slice(2) as ['out' | 'in', Kind, string]

function out(as: Kind): Uint8Array {
  // Fifteen pictures of 4 MB, as large as they may be.
  const pictures = Array.from({ length: 15 }, () => {
    const bytes = new Uint8Array(randomBytes(4 * mega))
    bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
    return bytes
  })
  const media = new Map(pictures.map((bytes) => [digestOf(bytes), bytes]))
  const outgoing = [...media.keys()].map((digest, i) => ({
    id: `m${i}`,
    folder: [],
    objectives: [],
    question: sampleQuestion('choice', { stem: `<p>What is it? <img src="/api/media/${digest}" alt="x"></p>` }),
  }))
  return writers[as](media, outgoing)
}

if (way) {
  const file = way === 'in' ? new Uint8Array(readFileSync(path)) : null
  const rest = process.memoryUsage().rss - (file?.length ?? 0)
  if (file) {
    const { items, media } = kind === 'zip' ? readPackage(file) : readThistle(file)
    if (items.length !== 15 || media.size !== 15) throw new Error('Not all of it came in.')
  } else writeFileSync(path, out(kind))
  console.log(Math.round((process.resourceUsage().maxRSS * 1024 - rest) / mega))
  process.exit(0)
}
const folder = mkdtempSync(join(tmpdir(), 'thistle-media-'))
const measured = (['zip', 'json'] as const).flatMap((each) =>
  (['out', 'in'] as const).map((direction) => {
    const taken = Number(
      execFileSync(process.execPath, ['--import', 'tsx', import.meta.filename, direction, each, join(folder, each)], {
        encoding: 'utf8',
      }).trim(),
    )
    console.error(each, direction, taken, 'MB')
    return taken
  }),
)
rmSync(folder, { recursive: true })
console.log(JSON.stringify({ 'files.media.memory': { value: Math.max(...measured), unit: 'MB' } }))
