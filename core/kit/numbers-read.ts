import { Fraction } from './exact'

/** How a question writes decimals: 3.75 or 3,75. */
export type NumberStyle = 'point' | 'comma'

export type ReadNumber = { ok: true; value: Fraction; rest: string } | { ok: false; reason: string }

/** The part of "5.35 × 10¹¹", or "5.35 x 10^11", that stands behind the digits: for a pattern. Groups: the power as typed, and raised. */
export const timesTenPattern = String.raw`\s*[×xX*·⋅]\s*10(?:\^\(?([+-]?\d{1,3})\)?|([⁺⁻]?[⁰¹²³⁴-⁹]{1,3}))`
const timesTen = new RegExp(`(?<=[\\d.,])${timesTenPattern}`)
const plainOf: Record<string, string> = {
  '⁺': '+',
  '⁻': '-',
  ...Object.fromEntries([...'⁰¹²³⁴⁵⁶⁷⁸⁹'].map((sign, i) => [sign, String(i)])),
}

const spaces = /[\s\u00A0\u2009\u202F\u2007]/g

/**
 * Reads a number as a person types it, in the question's declared style (semantics §2). Thin and other spaces
 * between digits are allowed, and U+2212 is a minus. What could be read in two ways is refused with a
 * sentence, never guessed.
 * @returns the exact value and what follows it (a unit, perhaps), trimmed
 */
export function readNumber(text: string, style: NumberStyle): ReadNumber {
  const tidy = text
    .trim()
    .replace(/[−–]/g, '-')
    .replace(/(?<=\d)[\s\u00A0\u2009\u202F\u2007](?=\d)/g, '')
    .replace(
      timesTen,
      (_whole, typed: string | undefined, raised = '') =>
        `e${typed ?? [...(raised as string)].map((sign) => plainOf[sign]).join('')}`,
    )
  const found = /^([+-]?)(\d[\d.,]*|[.,]\d+)(?:[eE]([+-]?\d{1,3}))?/.exec(tidy)
  if (!found) return { ok: false, reason: 'Write a number in digits.' }
  const [whole, sign, digits, exponent] = found as unknown as [string, string, string, string | undefined]
  const read = readDigits(digits, style)
  if (!read.ok) return read
  const size = new Fraction(read.plain).mul(new Fraction(10).pow(Number(exponent ?? 0))!)
  return {
    ok: true,
    value: sign === '-' ? size.neg() : size,
    rest: tidy.slice(whole.length).replace(spaces, ' ').trim(),
  }
}

function readDigits(digits: string, style: NumberStyle): { ok: true; plain: string } | { ok: false; reason: string } {
  const mark = style === 'point' ? '.' : ','
  const other = style === 'point' ? ',' : '.'
  const marks = digits.split(mark).length - 1
  const others = digits.split(other).length - 1
  const word = style === 'point' ? 'a point' : 'a comma'
  if (marks > 1) return { ok: false, reason: `There is more than one decimal mark in “${digits}”.` }
  if (others === 0) return { ok: true, plain: tidyPlain(digits.replace(mark, '.')) }
  // "3,75" can only be a decimal; "1,000" may be a thousand or one.
  if (others === 1 && marks === 0 && !/^[^.,]{1,3}[.,]\d{3}$/.test(digits)) {
    return { ok: true, plain: tidyPlain(digits.replace(other, '.')) }
  }
  const grouped = new RegExp(`^\\d{1,3}(\\${other}\\d{3})+\\${mark}\\d*$`)
  if (marks === 1 && grouped.test(digits))
    return { ok: true, plain: tidyPlain(digits.replaceAll(other, '').replace(mark, '.')) }
  return {
    ok: false,
    reason: `“${digits}” can be read in two ways. Leave out the mark for thousands and write decimals with ${word}.`,
  }
}

function tidyPlain(plain: string): string {
  const padded = plain.startsWith('.') ? '0' + plain : plain
  return padded.endsWith('.') ? padded + '0' : padded
}
