import { Fraction } from '../../../core/kit/exact'
import { NotProven } from './not-proven'

/**
 * Values as response processing computes with them (1EdTech QTI 2.1 §5 and 3.0 §5: base types, cardinalities, NULL). Numbers
 * are exact rationals, pairs are "a b" (of an undirected one the smaller name first), points two numbers.
 */
export type Simple = string | boolean | Fraction | Point
export type Point = readonly [x: Fraction, y: Fraction]
export type BaseType = 'identifier' | 'boolean' | 'integer' | 'float' | 'string' | 'point' | 'pair' | 'directedPair'
export interface Container {
  cardinality: 'single' | 'multiple' | 'ordered'
  type: BaseType
  of: readonly Simple[]
}
/** NULL is null: an empty container and an empty string are the same as NULL (QTI 2.1 §5.1). */
export type Value = Container | null

const baseTypes: ReadonlySet<string> = new Set<BaseType>([
  'identifier',
  'boolean',
  'integer',
  'float',
  'string',
  'point',
  'pair',
  'directedPair',
])

/** @throws NotProven for a type that answers here do not have (file, uri, duration …) */
export function baseTypeOf(written: string | undefined): BaseType {
  if (written !== undefined && baseTypes.has(written)) return written as BaseType
  throw new NotProven(`It computes with values of the type “${written ?? 'none'}”.`)
}

/** Far more than any score needs, and little enough to be computed with at once. */
const mostDigits = 400
const tooLarge = 10n ** BigInt(mostDigits)
const mostValues = 1000

/** A number that is not too long to be computed with further. @throws NotProven */
export function handy(value: Fraction): Fraction {
  if (value.n < tooLarge && value.d < tooLarge) return value
  throw new NotProven('It computes with numbers that are too long.')
}

const known = new Map<string, Fraction>()

/** A number as XML writes it (xs:double without INF and NaN). The same few numbers come again and again. @throws NotProven */
export function numberOf(text: string): Fraction {
  let found = known.get(text)
  if (!found) {
    found = parsed(text)
    if (known.size > 4000) known.clear()
    known.set(text, found)
  }
  return found
}

function parsed(text: string): Fraction {
  const tidy = text.trim()
  if (tidy.length > mostDigits || !/^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d{1,3})?$/.test(tidy))
    throw new NotProven(`“${tidy.slice(0, 40)}” stands where a number has to be.`)
  const [digits, exponent = '0'] = tidy.replace(/^\+/, '').toLowerCase().split('e') as [string, string?]
  const whole = digits.replace(/\.$/, '').replace(/^(-?)\./, '$10.')
  const power = new Fraction(10).pow(Number(exponent))!
  return handy(new Fraction(whole).mul(power))
}

/** One value from how it is written. @throws NotProven */
export function simpleOf(text: string, type: BaseType): Simple {
  const parts = text.trim().split(/\s+/)
  switch (type) {
    case 'integer':
    case 'float':
      return numberOf(text)
    case 'boolean':
      return text.trim() === 'true' || text.trim() === '1'
    case 'point':
      if (parts.length !== 2) throw new NotProven(`“${text.slice(0, 40)}” is not a point.`)
      return [numberOf(parts[0]!), numberOf(parts[1]!)]
    case 'pair':
      return [...parts].sort().join(' ')
    case 'directedPair':
      return parts.join(' ')
    case 'identifier':
      return text.trim()
    case 'string':
      // Blanks at the ends are how a file is laid out; answers have none.
      return text.trim()
  }
}

/** Values as a container; none is NULL. @throws NotProven for more than answers can hold */
export function container(cardinality: Container['cardinality'], type: BaseType, of: readonly Simple[]): Value {
  if (of.length > mostValues) throw new NotProven('It computes with too many values at once.')
  const held = type === 'string' ? of.filter((each) => each !== '') : of
  return held.length ? { cardinality, type, of: held } : null
}

export const single = (type: BaseType, value: Simple): Value => container('single', type, [value])
export const truth = (value: boolean): Value => ({ cardinality: 'single', type: 'boolean', of: [value] })
/** A number as a value. @throws NotProven for one that is too long */
export const amount = (value: Fraction | number): Value => ({
  cardinality: 'single',
  type: 'float',
  of: [handy(typeof value === 'number' ? parsed(String(value)) : value)],
})

/** What a function of real numbers gives; NULL where it gives none (QTI: division by zero, logarithm of what is below 0). */
export const real = (value: number): Value => (Number.isFinite(value) ? amount(value) : null)

export const isNumber = (value: Simple): value is Fraction => value instanceof Fraction
const isPoint = (value: Simple): value is Point => Array.isArray(value)

/** Whether two values of one type are the same; numbers by their size, whatever their type. */
export function same(a: Simple, b: Simple): boolean {
  if (isNumber(a) && isNumber(b)) return a.equals(b)
  if (isPoint(a) && isPoint(b)) return a[0].equals(b[0]) && a[1].equals(b[1])
  return a === b
}

/** The one number of a value. @throws NotProven for something else */
export function asNumber(value: Container): Fraction {
  const [first] = value.of
  if (value.of.length === 1 && first !== undefined && isNumber(first)) return first
  throw new NotProven('It computes with something that is not one number.')
}

/** The one truth of a value. @throws NotProven for something else */
export function asTruth(value: Container): boolean {
  const [first] = value.of
  if (value.of.length === 1 && typeof first === 'boolean') return first
  throw new NotProven('It decides by something that is neither true nor false.')
}

/** The one text of a value. @throws NotProven for something else */
export function asText(value: Container): string {
  const [first] = value.of
  if (value.of.length === 1 && typeof first === 'string') return first
  throw new NotProven('It compares something that is not one text.')
}
