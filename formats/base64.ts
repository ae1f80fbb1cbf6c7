/** Bytes at once whose base64 needs no filling. */
const chunk = 3 * 8192
const encoder = new TextEncoder()

/** How many letters so many bytes are. */
export const base64Length = (bytes: number): number => 4 * Math.ceil(bytes / 3)

/** Writes base64 into bytes, piece by piece: media are never held as one text. @returns behind its end */
export function putBase64(bytes: Uint8Array, into: Uint8Array, at: number): number {
  let end = at
  for (let from = 0; from < bytes.length; from += chunk) {
    const piece = btoa(String.fromCharCode(...bytes.subarray(from, from + chunk)))
    end += encoder.encodeInto(piece, into.subarray(end)).written
  }
  return end
}

/** Bytes of base64 (RFC 4648 §4), which may be broken into lines; null for what is none. */
export function bytesOfBase64(text: string): Uint8Array | null {
  const letters = /\s/.test(text) ? text.replace(/\s/g, '') : text
  const end = letters.indexOf('=')
  const filling = end < 0 ? 0 : letters.length - end
  // A pattern over the whole would remember a step for every letter of it.
  if (letters.length % 4 || filling > 2 || /[^A-Za-z0-9+/=]/.test(letters)) return null
  if (filling === 2 && letters.at(-1) !== '=') return null
  const bytes = Buffer.alloc((letters.length / 4) * 3 - filling)
  bytes.write(letters, 'base64')
  return new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.byteLength)
}
