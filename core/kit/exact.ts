import Fraction from 'fraction.js'

/** An exact rational as text, "n/d" or "n" (semantics §1): what is stored and sent. */
export type Exact = string

export { Fraction }

/** Reads an exact number from "n/d", a decimal text ("3.9", "6.02e23") or a number typed in decimals (0.1 is one tenth). */
export function exact(value: Exact | number | Fraction): Fraction {
  if (value instanceof Fraction) return value
  let found = known.get(value)
  if (!found) {
    found = read(String(value))
    if (known.size >= mostKnown) known.clear()
    known.set(value, found)
  }
  return found
}

/** The same few credits and points are read again and again; a Fraction never changes. */
const known = new Map<Exact | number, Fraction>()
const mostKnown = 5000

/** "6.02e23" is 6.02 times a power of ten, exactly. */
function read(text: string): Fraction {
  const [digits, power] = text.split(/e/i) as [string, string?]
  return power === undefined ? new Fraction(digits) : new Fraction(digits).mul(new Fraction(10).pow(Number(power))!)
}

export function exactText(value: Fraction): Exact {
  return value.toFraction()
}

export function sum(values: Iterable<Fraction>): Fraction {
  let total = new Fraction(0)
  for (const value of values) total = total.add(value)
  return total
}

export function atLeast(floor: number, value: Fraction): Fraction {
  return value.compare(floor) < 0 ? new Fraction(floor) : value
}

export function clamp(low: Fraction, value: Fraction, high: Fraction): Fraction {
  if (value.compare(low) < 0) return low
  return value.compare(high) > 0 ? high : value
}

/** Rounded half away from zero (semantics §1), as an exact number. @param decimals 0 or more */
export function roundHalfAway(value: Fraction, decimals: number): Fraction {
  const scale = new Fraction(10).pow(decimals)!
  const scaled = value.abs().mul(scale).add(new Fraction(1, 2)).floor()
  const rounded = scaled.div(scale)
  return value.compare(0) < 0 ? rounded.neg() : rounded
}

/** Rounded to n significant figures, half away from zero. @param figures 1 or more */
export function roundToFigures(value: Fraction, figures: number): Fraction {
  if (value.equals(0)) return value
  let magnitude = 0
  let size = value.abs()
  while (size.compare(10) >= 0) {
    size = size.div(10)
    magnitude++
  }
  while (size.compare(1) < 0) {
    size = size.mul(10)
    magnitude--
  }
  const unit = new Fraction(10).pow(magnitude - figures + 1)!
  return roundHalfAway(value.div(unit), 0).mul(unit)
}

/** Fixed decimals as machines read them: "-7.50". */
export function decimalText(value: Fraction, decimals: number): string {
  return fixed(value, decimals).replace('−', '-')
}

/** Fixed decimals for people: "7.50". */
export function fixed(value: Fraction, decimals: number): string {
  const rounded = roundHalfAway(value, decimals)
  const digits = rounded
    .abs()
    .mul(new Fraction(10).pow(decimals)!)
    .round()
    .toString()
    .padStart(decimals + 1, '0')
  const whole = digits.slice(0, digits.length - decimals)
  const sign = rounded.compare(0) < 0 ? '−' : ''
  return sign + whole + (decimals ? '.' + digits.slice(-decimals) : '')
}

/** As few decimals as are true, at most two: "2", "0.5", "1.33". For points on a page. */
export function pointsText(value: Exact | number | Fraction): string {
  const [whole, part = ''] = fixed(exact(value), 2).split('.')
  const trimmed = part.replace(/0+$/, '')
  return trimmed ? `${whole}.${trimmed}` : whole!
}
