/** Windows-1252 from 0x80 to 0x9F (WHATWG Encoding, index windows-1252): Node 20 decodes these as ISO 8859-1. */
const narrow = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ'

/**
 * Text of a file, in whatever encoding it came: by its byte order mark, else UTF-8, else Windows-1252, which is what
 * spreadsheets write where UTF-8 is not asked for (WHATWG Encoding names both). Nothing becomes a replacement mark.
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes)
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return Array.from(bytes, (byte) =>
      byte >= 0x80 && byte < 0xa0 ? narrow[byte - 0x80] : String.fromCharCode(byte),
    ).join('')
  }
}
