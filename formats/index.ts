import { UnreadableFile, type Bundle } from './bundle'
import { readCsv } from './csv/questions'
import { readThistle } from './json/thistle'
import { readMarkdown } from './markdown/read'
import { readPackage } from './qti/package-read'
import { decodeText } from './text'

export {
  UnreadableFile,
  mediaAddress,
  type Bundle,
  type BundleItem,
  type PortableRow,
  type PortableTest,
} from './bundle'

/** Reads a file of questions; what it is shows in its first bytes, and in its name only where text could be either. @throws UnreadableFile */
export function readFile(bytes: Uint8Array, name: string): Bundle {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return readPackage(bytes)
  const text = decodeText(bytes)
  const start = text.replace(/^\uFEFF/, '').trimStart()
  if (start.startsWith('<')) return readPackage(bytes)
  if (start.startsWith('{')) return readThistle(text)
  if (text.includes('\u0000')) throw new UnreadableFile('This is neither a QTI package, CSV, JSON nor Markdown.')
  return /\.(md|markdown|txt)$/i.test(name) ||
    !/^[^\n]*\bkind\b[^\n]*\bquestion\b|^[^\n]*\bquestion\b[^\n]*\bkind\b/i.test(start)
    ? readMarkdown(text)
    : readCsv(text)
}
