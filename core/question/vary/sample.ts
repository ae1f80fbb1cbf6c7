import { decimalText, Fraction, exact } from '../../kit/exact'
import type { Random } from '../../kit/random'
import { compute, holds } from './expression'
import type { Values, Variable, Vary } from './schema'

/** How many values a variable may take by itself. */
export function sizeOf(variable: Variable): number {
  const { over } = variable
  if (over.by === 'computed') return 1
  if (over.by === 'list') return over.values.length
  const step = exact(over.step)
  if (step.compare(0) <= 0) return 0
  return Math.max(0, Number(exact(over.to).sub(exact(over.from)).div(step).floor().valueOf()) + 1)
}

/** The value at a place of a variable's range or list, exactly. */
function valueAt(variable: Variable, place: number): string {
  const { over } = variable
  if (over.by === 'list') return over.values[place]!
  if (over.by === 'range') return inDecimals(exact(over.from).add(exact(over.step).mul(place)))
  return ''
}

/** Steps in decimals stay decimals; a Fraction writes them out without an exponent. */
function inDecimals(value: Fraction): string {
  const text = value.toString(15)
  return text.includes('(') ? decimalText(value, 12).replace(/0+$/, '') : text
}

function valuesAt(vary: Vary, places: readonly number[]): Values {
  const values: Record<string, string> = {}
  vary.variables.forEach((variable, i) => {
    values[variable.name] =
      variable.over.by === 'computed' ? compute(variable.over.as, values) : valueAt(variable, places[i]!)
  })
  return values
}

const meets = (vary: Vary, values: Values) => vary.conditions.every((condition) => holds(condition, values))

/** No values meet the conditions. Questions in which that can happen are found before they are kept. */
export class NoValues extends Error {
  override name = 'NoValues'
}

const tries = 400
const mostEnumerated = 20_000

/**
 * Draws values that meet the conditions, each combination that does equally likely: by drawing again until one does,
 * and, where that is rare, by listing all of them.
 * @returns null when no combination meets the conditions (or none was found among too many to list)
 * @throws ExpressionError when something cannot be computed
 */
export function drawValues(vary: Vary, random: Random): Values | null {
  const sizes = vary.variables.map(sizeOf)
  if (sizes.some((size) => size === 0)) return null
  for (let i = 0; i < tries; i++) {
    const values = valuesAt(
      vary,
      sizes.map((size) => random.below(size)),
    )
    if (meets(vary, values)) return values
  }
  const all = sizes.reduce((product, size) => product * size, 1)
  if (all > mostEnumerated) return null
  const good = Array.from({ length: all }, (_, i) => i).filter((i) => meets(vary, valuesAt(vary, places(sizes, i))))
  return good.length ? valuesAt(vary, places(sizes, good[random.below(good.length)]!)) : null
}

/** The i-th combination, counted as digits are. */
function places(sizes: readonly number[], i: number): number[] {
  let rest = i
  return sizes.map((size) => {
    const place = rest % size
    rest = Math.floor(rest / size)
    return place
  })
}
