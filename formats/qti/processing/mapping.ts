import { Fraction } from '../../../core/kit/exact'
import type { Mapping, Variable } from './declarations'
import { NotProven } from './not-proven'
import { isInside } from './operators/areas'
import { amount, same, type Point, type Simple, type Value } from './values'

function bounded(total: Fraction, { lower, upper }: Mapping['bounds']): Fraction {
  if (lower && total.compare(lower) < 0) return lower
  return upper && total.compare(upper) > 0 ? upper : total
}

const meets = ({ key, caseMatters }: Mapping['entries'][number], value: Simple) =>
  same(key, value) ||
  (!caseMatters && typeof key === 'string' && typeof value === 'string' && key.toLowerCase() === value.toLowerCase())

const different = (values: readonly Simple[]) =>
  values.filter((value, i) => values.findIndex((other) => same(other, value)) === i)

/**
 * What a response is worth by its mapping (QTI 2.1 §15.1 mapResponse): each value counts once, what is not named counts the
 * usual value, the sum lies within the bounds. NULL of a single response is not named either; an empty container sums to 0.
 * @throws NotProven without a mapping
 */
export function mapped({ identifier, cardinality, mapping }: Variable, value: Value): Value {
  if (!mapping) throw new NotProven(`The response “${identifier}” is mapped, but has no mapping.`)
  const { entries, bounds } = mapping
  if (value === null) return amount(bounded(cardinality === 'single' ? bounds.usual : new Fraction(0), bounds))
  const worth = (one: Simple) => entries.find((entry) => meets(entry, one))?.value ?? bounds.usual
  return amount(
    bounded(
      different(value.of).reduce<Fraction>((sum, one) => sum.add(worth(one)), new Fraction(0)),
      bounds,
    ),
  )
}

/**
 * What points are worth by areas (QTI 2.1 §15.1 mapResponsePoint): each point goes to the first area that holds it, each area
 * counts once, a point in none counts the usual value. @throws NotProven without areas
 */
export function mappedPoints({ identifier, cardinality, areas }: Variable, value: Value): Value {
  if (!areas) throw new NotProven(`The response “${identifier}” is mapped by areas, but has none.`)
  const { entries, bounds } = areas
  if (value === null) return amount(bounded(cardinality === 'single' ? bounds.usual : new Fraction(0), bounds))
  const held = (value.of as readonly Point[]).map((at) => entries.findIndex(({ area }) => isInside(at, area)))
  const found = [...new Set(held.filter((at) => at >= 0))].map((at) => entries[at]!.value)
  const missed = held.filter((at) => at < 0).map(() => bounds.usual)
  return amount(
    bounded(
      [...found, ...missed].reduce((sum, each) => sum.add(each), new Fraction(0)),
      bounds,
    ),
  )
}
