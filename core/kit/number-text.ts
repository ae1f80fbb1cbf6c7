import { Fraction, roundToFigures } from './exact'

/**
 * How a question writes an exact number: "3.9", "-12", or with a power of ten where that is shorter, "6.02e23".
 * At most 15 digits before the point and 15 behind it; powers from −300 to 300.
 */
const form = /^-?\d{1,15}(?:\.\d{1,15})?(?:[eE][+-]?\d{1,3})?$/
export const mostPower = 300

/** Advice for a field that does not hold a number. */
export const numberAdvice = 'Write a number, such as 3.9 or 6.02e23.'

/** Whether a text is a number as a question writes one. */
export function isNumberText(text: string): boolean {
  if (!form.test(text)) return false
  const power = /[eE](.*)$/.exec(text)?.[1]
  return power === undefined || Math.abs(Number(power)) <= mostPower
}

/** How many decimal places a number has; null for a number without a finite decimal (1/3). */
function placesOf({ d }: Fraction): number | null {
  let [rest, twos, fives] = [d, 0, 0]
  for (; rest % 2n === 0n; rest /= 2n) twos++
  for (; rest % 5n === 0n; rest /= 5n) fives++
  return rest === 1n ? Math.max(twos, fives) : null
}

/** 10 to a whole power, exactly. */
const tenTo = (power: number): Fraction => new Fraction(10).pow(power)!

/** The digits of a decimal without trailing zeros, and the power of ten of the last digit. */
function digitsOf(value: Fraction, places: number): { digits: string; power: number } {
  const whole = value.abs().mul(tenTo(places)).n.toString()
  const digits = whole.replace(/0+$/, '')
  return digits ? { digits, power: whole.length - digits.length - places } : { digits: '0', power: 0 }
}

/**
 * An exact number as a question writes it.
 * @param value any exact number
 * @returns null for a number without a finite decimal, with more than 16 digits, or beyond the powers allowed
 */
export function numberText(value: Fraction): string | null {
  const places = placesOf(value)
  if (places === null) return null
  const { digits, power } = digitsOf(value, places)
  const sign = value.compare(0) < 0 ? '-' : ''
  const wholeDigits = Math.max(1, digits.length + power)
  const text =
    wholeDigits <= 15 && -power <= 15
      ? plainText(digits, power)
      : `${digits[0]}${digits.length > 1 ? `.${digits.slice(1)}` : ''}e${power + digits.length - 1}`
  return isNumberText(text) ? sign + text : null
}

function plainText(digits: string, power: number): string {
  if (power >= 0) return digits + '0'.repeat(power)
  const padded = digits.padStart(1 - power, '0')
  return `${padded.slice(0, power)}.${padded.slice(power)}`
}

/**
 * The nearest number that a question can write: 15 or 16 significant digits.
 * @param value any exact number
 * @param towardsNought rounds towards 0
 * @returns 0 for a value too close to 0, and 9e300 for one too large
 */
export function nearestNumberText(value: Fraction, towardsNought = false): string {
  const whole = numberText(value)
  if (whole !== null) return whole
  const size = value.abs()
  // Counting digits of numerator and denominator gives the size to within a factor of ten.
  const power = String(size.n).length - String(size.d).length - 15
  const scaled = size.div(tenTo(power))
  const rounded = (towardsNought ? scaled.floor() : scaled.add(new Fraction(1, 2)).floor()).mul(tenTo(power))
  const written = numberText(rounded) ?? (power > 0 ? `9e${mostPower}` : '0')
  return value.compare(0) < 0 && written !== '0' ? `-${written}` : written
}

/**
 * Reads a number as files and programs write it ("+5", ".5", "6.02E23", xs:double without INF and NaN).
 * @param text at most 400 characters
 * @returns the number as a question writes it; null for any other text, and for a number that a question cannot hold exactly
 */
export function numberTextOf(text: string): string | null {
  const found = /^([+-]?)(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d{1,4}))?$/.exec(text.trim())
  if (!found || text.length > 400) return null
  const [, sign, whole = '', part = '', power = '0'] = found
  if (whole + part === '' || Math.abs(Number(power)) > 700) return null
  const value = new Fraction(BigInt(whole + part)).mul(tenTo(Number(power) - part.length))
  return numberText(sign === '-' ? value.neg() : value)
}

const raised = '⁰¹²³⁴⁵⁶⁷⁸⁹'

/** A number as people read it: "6.02 × 10²³" for "6.02e23", with the question's own decimal mark. */
export function numberForPeople(text: string, comma = false): string {
  if (!isNumberText(text)) return text
  const [digits, power] = text.toLowerCase().split('e') as [string, string?]
  const marked = (comma ? digits.replace('.', ',') : digits).replace('-', '−')
  if (power === undefined) return marked
  const sign = Number(power) < 0 ? '⁻' : ''
  return `${marked} × 10${sign}${[...String(Math.abs(Number(power)))].map((digit) => raised[Number(digit)]).join('')}`
}

/** A value for people to read, to 12 significant digits. */
export const valueForPeople = (value: Fraction): string => numberForPeople(nearestNumberText(roundToFigures(value, 12)))
