import { unzipSync, zipSync } from 'fflate'
import { UnreadableFile } from './bundle'

const mostFiles = 20_000
const mostBytes = 200 * 1024 * 1024
const mostRatio = 200

/**
 * The files of an archive. Paths that climb out, too many files, and files that would grow beyond bounds are refused
 * before anything is unpacked; what lies about its size cannot outgrow what it claimed.
 * @throws UnreadableFile with a sentence
 */
export function unzip(bytes: Uint8Array): Map<string, Uint8Array> {
  let files = 0
  let total = 0
  try {
    const found = unzipSync(bytes, {
      filter: ({ name, size, originalSize }) => {
        if (name.split(/[\\/]/).includes('..') || /^([a-z]:|[\\/])/i.test(name))
          throw new UnreadableFile(`The archive holds a path that climbs out of it: ${name.slice(0, 80)}`)
        if (++files > mostFiles) throw new UnreadableFile('The archive holds more than 20,000 files.')
        total += originalSize
        if (total > mostBytes || (originalSize > 1024 * 1024 && originalSize > size * mostRatio))
          throw new UnreadableFile('The archive would grow beyond all measure when it is unpacked.')
        return !name.endsWith('/')
      },
    })
    return new Map(Object.entries(found))
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    throw new UnreadableFile('This is not a zip archive that can be read.')
  }
}

/** Files as an archive that is not packed, for a package that unpacks by itself and trusts what an archive claims. */
export const stored = (files: ReadonlyMap<string, Uint8Array>): Uint8Array =>
  zipSync(Object.fromEntries(files), { level: 0 })

export const zip = (files: ReadonlyMap<string, Uint8Array>): Uint8Array =>
  zipSync(
    // Media are compressed already: they are put in as they are.
    Object.fromEntries(
      [...files].map(([name, bytes]) => [name, [bytes, { level: /\.(xml|json)$/.test(name) ? 6 : 0 }]]),
    ),
  )
