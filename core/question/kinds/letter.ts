/** A, B, … Z, AA: what people call an option. */
export function letter(index: number): string {
  return index < 26 ? String.fromCharCode(65 + index) : letter(Math.floor(index / 26) - 1) + letter(index % 26)
}
