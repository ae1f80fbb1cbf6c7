import { archiveKind, isZip } from './archive'
import type { Arrived } from './format'

const begins = (bytes: Uint8Array, ...start: number[]) => start.every((byte, i) => bytes[i] === byte)

/** A file that is known and cannot be read: what it is, and what to do; null for one that may be read. */
export function knownOtherwise({ bytes, head }: Arrived): string | null {
  if (!bytes.length) return 'This file is empty.'
  if (archiveKind(bytes) === 'locked')
    return 'This archive is locked with a password. Unlock it, or write it again without one, and bring that.'
  if (begins(bytes, 0xd0, 0xcf, 0x11, 0xe0))
    return 'This is a spreadsheet or document of an older kind, or one that is locked with a password. Save it without a password as .xlsx, .ods or .docx and bring that.'
  if (begins(bytes, 0x25, 0x50, 0x44, 0x46))
    return 'This is a PDF: what is a question in it, and what its key, cannot be told. Bring the document that it was made from (.docx), or copy its text into “Write in plain text”.'
  if (head.startsWith('{\\rtf'))
    return 'This is rich text (RTF). Open it in a word processor, save it as .docx and bring that.'
  if (begins(bytes, 0x1f, 0x8b) || begins(bytes, 0x37, 0x7a, 0xbc, 0xaf) || begins(bytes, 0x52, 0x61, 0x72, 0x21))
    return 'This is an archive of another kind than zip. Unpack it, and bring what is in it, or pack that as a zip.'
  if (begins(bytes, 0x89, 0x50, 0x4e, 0x47) || begins(bytes, 0xff, 0xd8, 0xff) || begins(bytes, 0x47, 0x49, 0x46))
    return 'This is a picture. A picture comes in with the question that shows it: write the question, and put the picture into it.'
  if (/^<!doctype html|^<html[\s>]/i.test(head))
    return 'This is a web page. Copy what is asked in it into “Write in plain text”.'
  return !isZip(bytes) && bytes.subarray(0, 4096).includes(0) && !head.startsWith('<') && !isWide(bytes)
    ? 'This is no text, and none of the formats that can be read here.'
    : null
}

/** Text in UTF-16 is half noughts. */
const isWide = (bytes: Uint8Array) => begins(bytes, 0xff, 0xfe) || begins(bytes, 0xfe, 0xff)
