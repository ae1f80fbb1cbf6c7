import { UnreadableFile, type Bundle } from './bundle'
import { csv } from './csv'
import { documents } from './document'
import type { Arrived, Beside, Format, OutgoingQuestion } from './format'
import { thistle } from './json'
import { knownOtherwise } from './known'
import { markdown } from './markdown'
import { qti } from './qti'
import { sheets } from './sheet'
import { decodeText } from './text'
import { titleOf, type Unseen } from './unseen'

export {
  UnreadableFile,
  mediaAddress,
  textRow,
  type Bundle,
  type BundleItem,
  type PortableRow,
  type PortableTest,
  type Proof,
} from './bundle'
export type { Unseen } from './unseen'
export type { Beside, Format, OutgoingQuestion } from './format'

/** Every format of files of questions, in the order in which people are offered them. */
export const formats: readonly Format[] = [...qti, thistle, ...sheets, csv, markdown, documents]

const textOf = (bytes: Uint8Array): string =>
  decodeText(bytes)
    .replace(/^\uFEFF/, '')
    .trimStart()

function arrived(bytes: Uint8Array, name: string): Arrived {
  let text: string | undefined
  // An odd byte at the end of a piece is no reason to take it for another encoding.
  const head = textOf(bytes.subarray(0, bytes.length > 8192 ? lastWhole(bytes) : bytes.length))
  return {
    bytes,
    head,
    name: name.toLowerCase(),
    get text() {
      return (text ??= textOf(bytes))
    },
  }
}

/** So many of the first 8,192 bytes that no sign of UTF-8 is cut in two. */
function lastWhole(bytes: Uint8Array): number {
  let end = 8192
  while (end > 8180 && (bytes[end]! & 0xc0) === 0x80) end--
  return end
}

/**
 * Reads a file of questions; what it is shows in what it holds, and in its name only where text could be either.
 * @throws UnreadableFile
 */
export async function readFile(bytes: Uint8Array, name: string): Promise<Bundle> {
  const file = arrived(bytes, name)
  const otherwise = knownOtherwise(file)
  if (otherwise !== null) throw new UnreadableFile(otherwise)
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

/** What readers of a format will not see, question by question; only those of which there is something. @param name of the format, one of `writable` */
export function unseenBy(name: string, questions: readonly OutgoingQuestion[]): Unseen[] {
  const write = formats.find((each) => each.name === name)?.write
  return questions
    .map(({ id, question }) => ({ id, title: titleOf(question), what: write?.unseen(question) ?? [] }))
    .filter(({ what }) => what.length)
}

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
