/** Letters and digits that nobody takes for another, read out or on a wall. */
const letters = 'BCDFGHKLMPRTVWX'
const digits = '2346789'
/** So many of them: 15^5 · 7^3 are 260 million codes. */
const shape = [letters, letters, letters, letters, letters, digits, digits, digits]

/**
 * A code for a class. The letters hold no vowels, so that no words come out.
 * @param bytes at least 8 of them, at random; each is reduced, which prefers some signs by less than a tenth
 */
export function joinCode(bytes: Uint8Array): string {
  if (bytes.length < shape.length) throw new RangeError('A code needs 8 bytes.')
  return shape.map((signs, i) => signs[bytes[i]! % signs.length]!).join('')
}

/** "KLMPR 347": as it is shown. */
export const shownCode = (code: string): string => `${code.slice(0, 5)} ${code.slice(5)}`

/** A code as somebody typed it, with whatever case, spaces and signs; null where it cannot be one. */
export function typedCode(text: string): string | null {
  const code = text.toUpperCase().replace(/[^A-Z0-9]/g, '')
  return code.length === shape.length && shape.every((signs, i) => signs.includes(code[i]!)) ? code : null
}
