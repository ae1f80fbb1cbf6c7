import iconv from 'iconv-lite'

/**
 * Text of a file, in whatever encoding it came: by its byte order mark, else UTF-8, else Windows-1252, which is what
 * spreadsheets write where UTF-8 is not asked for (WHATWG Encoding names both). Nothing becomes a replacement mark.
 */
export function decodeText(bytes: Uint8Array): string {
  return marked(bytes) ?? utf8(bytes) ?? iconv.decode(bytes, 'windows-1252')
}

/** By its byte order mark (Unicode 23.8). */
function marked(bytes: Uint8Array): string | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return iconv.decode(bytes, 'utf-16le')
  return bytes[0] === 0xfe && bytes[1] === 0xff ? iconv.decode(bytes, 'utf-16be') : null
}

function utf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return null
  }
}

/** Text of XML, in the encoding that it declares (XML 1.0, appendix F): by its mark, its declaration, or UTF-8. */
export function decodeXml(bytes: Uint8Array): string {
  const found = marked(bytes)
  if (found !== null) return found
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 400))
  const declared = /^\s*(?:ï»¿)?<\?xml[^>]*?encoding\s*=\s*["']([\w.:-]+)["']/.exec(head)?.[1]
  if (declared && !/^utf-?8$/i.test(declared) && iconv.encodingExists(declared)) return iconv.decode(bytes, declared)
  return decodeText(bytes)
}

/** Bytes of a text in UTF-8, whatever it came in; without a byte order mark. */
export function inUtf8(bytes: Uint8Array): Uint8Array {
  const wide = marked(bytes)
  if (wide !== null) return new TextEncoder().encode(wide)
  return bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? bytes.subarray(3) : bytes
}
