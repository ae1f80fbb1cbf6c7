import { UnreadableFile, type Bundle } from './bundle'
import { csv } from './csv'
import type { Arrived, Beside, Format, OutgoingQuestion } from './format'
import { thistle } from './json'
import { markdown } from './markdown'
import { qti } from './qti'
import { decodeText } from './text'

export {
  UnreadableFile,
  mediaAddress,
  type Bundle,
  type BundleItem,
  type PortableRow,
  type PortableTest,
} from './bundle'
export type { Beside, Format, OutgoingQuestion } from './format'

/** Every format of files of questions, in the order in which people are offered them. */
export const formats: readonly Format[] = [...qti, thistle, csv, markdown]

const arrived = (bytes: Uint8Array, name: string): Arrived => ({
  bytes,
  text: decodeText(bytes)
    .replace(/^\uFEFF/, '')
    .trimStart(),
  name: name.toLowerCase(),
})

/**
 * Reads a file of questions; what it is shows in what it holds, and in its name only where text could be either.
 * @throws UnreadableFile
 */
export function readFile(bytes: Uint8Array, name: string): Bundle {
  const file = arrived(bytes, name)
  const sure = (how: 'surely' | 'perhaps') => formats.find((format) => format.read && format.recognise?.(file) === how)
  const format = sure('surely') ?? sure('perhaps')
  if (!format)
    throw new UnreadableFile(
      `This is none of the formats that can be read: ${readable()
        .map(({ label }) => label)
        .join(', ')}.`,
    )
  return format.read!(file)
}

/** Formats that can be read. */
export const readable = (): readonly Format[] => formats.filter((format) => format.read)

/** Formats that can be written; for a quiz, those in which a test can be. */
export const writable = (what: 'questions' | 'quiz' = 'questions'): readonly Format[] =>
  formats.filter(({ write }) => write && (what === 'questions' || write.holdsTest))

/** Questions as a file of a format. @param name of the format, one of `writable` */
export function writeFile(
  name: string,
  questions: readonly OutgoingQuestion[],
  beside: () => Promise<Beside>,
): Promise<{ bytes: Uint8Array; type: string; ending: string }> | null {
  const format = formats.find((each) => each.name === name)
  const write = format?.write
  if (!format || !write) return null
  const nothing: Beside = { media: new Map(), stimuli: new Map() }
  return (write.alone ? Promise.resolve(nothing) : beside()).then((found) => ({
    bytes: write.bytes(questions, found),
    type: write.type,
    ending: format.endings[0]!,
  }))
}
