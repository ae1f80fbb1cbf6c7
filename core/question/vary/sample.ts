import { exact } from '../../kit/exact'
import { nearestNumberText } from '../../kit/number-text'
import { seededRandom, type Random } from '../../kit/random'
import { compute, ExpressionError, holds } from './expression'
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
  if (over.by === 'range') return nearestNumberText(exact(over.from).add(exact(over.step).mul(place)))
  return ''
}

function valuesAt(vary: Vary, places: readonly number[]): Values {
  const values: Record<string, string> = {}
  vary.variables.forEach((variable, i) => {
    values[variable.name] =
      variable.over.by === 'computed' ? compute(variable.over.as, values) : valueAt(variable, places[i]!)
  })
  return values
}

type Accepts = (values: Values) => boolean

/** The values at some places, if they can be computed, meet the conditions, and are accepted. */
function goodAt(vary: Vary, places: readonly number[], accepts: Accepts): Values | null {
  try {
    const values = valuesAt(vary, places)
    return vary.conditions.every((condition) => holds(condition, values)) && accepts(values) ? values : null
  } catch (error) {
    if (error instanceof ExpressionError) return null
    throw error
  }
}

/** No values meet the conditions. Questions in which that can happen are found before they are kept. */
export class NoValues extends Error {
  override name = 'NoValues'
}

const tries = 400
const mostEnumerated = 20_000
/** A generator that every paper shares, for what chance alone does not find. */
const common = '5ea'.padEnd(64, '0')

/**
 * Draws values that meet the conditions, each combination that does equally likely: by drawing again until one does,
 * and, where that is rare, by listing all of them. Where they are too many to list, what an author's look has found is
 * found for every student: then all get the same.
 * @param accepts what else they have to allow: that a question can be made of them
 * @returns null when no combination does (or none was found among too many to list)
 */
export function drawValues(vary: Vary, random: Random, accepts: Accepts = () => true): Values | null {
  const sizes = vary.variables.map(sizeOf)
  if (sizes.some((size) => size === 0)) return null
  const all = sizes.reduce((product, size) => product * size, 1)
  const found = byChance(vary, sizes, random, tries, accepts)
  if (found) return found
  if (all > mostEnumerated) return byChance(vary, sizes, seededRandom(common, ['rare']), mostEnumerated, accepts)
  const good = Array.from({ length: all }, (_, i) => i).filter((i) => goodAt(vary, places(sizes, i), accepts))
  return good.length ? valuesAt(vary, places(sizes, good[random.below(good.length)]!)) : null
}

function byChance(vary: Vary, sizes: readonly number[], random: Random, most: number, accepts: Accepts): Values | null {
  for (let i = 0; i < most; i++) {
    const values = goodAt(
      vary,
      sizes.map((size) => random.below(size)),
      accepts,
    )
    if (values) return values
  }
  return null
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
