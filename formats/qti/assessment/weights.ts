import { decimalText, exact } from '../../../core/kit/exact'
import { childOf, childrenOf, type XmlElement } from '../../xml'
import type { Reading } from './reading'

/** The sum of its items' scores, if its outcomes are no more than that, each times its weight. */
function plainSum(processing: XmlElement): XmlElement | null {
  const [only, ...more] = childrenOf(processing)
  const [sum] = only?.name === 'setOutcomeValue' ? childrenOf(only) : []
  const [of, ...others] = sum?.name === 'sum' ? childrenOf(sum) : []
  return !more.length && !others.length && of?.name === 'testVariables' ? of : null
}

/** By which weights the items of a test count: whichever there is where nothing names one. What of its outcomes has no like here is told. */
export function weightsOf(test: XmlElement, notes: Set<string>): Reading['counts'] {
  const processing = childOf(test, 'outcomeProcessing')
  if (!processing) return () => true
  const sum = plainSum(processing)
  const {
    variableIdentifier = 'SCORE',
    weightIdentifier,
    includeCategory,
    excludeCategory,
    sectionIdentifier,
  } = sum?.attributes ?? {}
  if (!sum || variableIdentifier !== 'SCORE') {
    notes.add('Its own processing of outcomes is left out: points add up.')
    return () => true
  }
  if (includeCategory || excludeCategory || sectionIdentifier)
    notes.add('Only some of its items count in the file; here all of them do. Give the others no points.')
  return (weight) => weightIdentifier !== undefined && weight === weightIdentifier
}

/** What a weight says, times what the item is worth by itself; null is what the item is worth. */
export function pointsOf(ref: XmlElement, place: string, { refs, counts, notes }: Reading): number | null {
  const weight = childrenOf(ref, 'weight').find(({ attributes }) => counts(attributes.identifier))
  const value = Number(weight?.attributes.value)
  if (!weight) return null
  if (!Number.isFinite(value) || value < 0) {
    notes.add(
      `A weight of “${(weight.attributes.value ?? '').slice(0, 40)}” has no like here: the item counts what it is worth by itself.`,
    )
    return null
  }
  const own = refs.points(place)
  if (own === null) return null
  const points = Math.min(1000, Math.round(value * own * 100) / 100)
  if (Math.abs(points - value * own) > 1e-3)
    notes.add(
      `A question that is worth ${decimalText(exact(value * own), 4)} points in the file is worth ${points} here.`,
    )
  return points
}
