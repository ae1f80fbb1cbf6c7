import { RE2JS } from 're2js'
import type { Fraction } from '../../../../core/kit/exact'
import type { XmlElement } from '../../../xml'
import { NotProven } from '../not-proven'
import { asNumber, asText, numberOf, same, truth, type Container, type Value } from '../values'
import { roundedTo } from './arithmetic'
import { isTrue, type Operators } from './operator'

const both =
  (decide: (a: Container, b: Container, node: XmlElement) => boolean) =>
  (node: XmlElement, [a = null, b = null]: readonly Value[]): Value =>
    a === null || b === null ? null : truth(decide(a, b, node))
const bySize = (decide: (order: number) => boolean) => both((a, b) => decide(asNumber(a).compare(asNumber(b))))

/** The same values: in the same order where the order counts, else as many of each (QTI 2.1 §15.3 match). */
function matches(a: Container, b: Container): boolean {
  if (a.of.length !== b.of.length) return false
  if (a.cardinality !== 'multiple' && b.cardinality !== 'multiple') return a.of.every((each, i) => same(each, b.of[i]!))
  const rest = [...b.of]
  return a.of.every((each) => {
    const at = rest.findIndex((other) => same(each, other))
    if (at >= 0) rest.splice(at, 1)
    return at >= 0
  })
}

/** x, the first of two, says the range in which the second has to lie (QTI 2.1 §15.3 equal). */
function isEqual(x: Fraction, y: Fraction, node: XmlElement): boolean {
  const { toleranceMode: mode = 'exact', tolerance = '' } = node.attributes
  if (mode === 'exact') return x.equals(y)
  if (mode !== 'absolute' && mode !== 'relative') throw new NotProven(`It compares by “${mode}”.`)
  const [below, above = below] = tolerance.trim().split(/\s+/).map(numberOf) as [Fraction, Fraction?]
  const [low, high] =
    mode === 'absolute' ? [x.sub(below), x.add(above)] : [x.sub(x.mul(below).div(100)), x.add(x.mul(above).div(100))]
  const [least, most] = [y.compare(low), y.compare(high)]
  return (
    (isTrue(node.attributes.includeLowerBound, true) ? least >= 0 : least > 0) &&
    (isTrue(node.attributes.includeUpperBound, true) ? most <= 0 : most < 0)
  )
}

const patterns = new Map<string, RE2JS>()
/** A pattern of XML Schema, over the whole text. Matched in linear time; what RE2 does not know is not proven. */
function pattern(source: string): RE2JS {
  const known = patterns.get(source)
  if (known) return known
  if (patterns.size > 500) patterns.clear()
  try {
    const made = RE2JS.compile(source, RE2JS.DOTALL)
    patterns.set(source, made)
    return made
  } catch {
    throw new NotProven(`Its pattern “${source.slice(0, 40)}” is none that is known here.`)
  }
}

function compareTexts(a: Container, b: Container, node: XmlElement): boolean {
  const fold = (text: string) => (isTrue(node.attributes.caseSensitive, true) ? text : text.toLowerCase())
  const [first, second] = [fold(asText(a)), fold(asText(b))]
  return isTrue(node.attributes.substring) ? first.includes(second) : first === second
}

/** Comparisons (QTI 2.1 §15.3 match … gte); NULL beside anything is NULL. */
export const comparison: Operators = {
  match: both(matches),
  equal: both((a, b, node) => isEqual(asNumber(a), asNumber(b), node)),
  equalRounded: both((a, b, node) => {
    const round = (value: Container) =>
      roundedTo(asNumber(value), node.attributes.roundingMode, node.attributes.figures)
    return round(a).equals(round(b))
  }),
  stringMatch: both(compareTexts),
  patternMatch: (node, [value = null]) =>
    value === null ? null : truth(pattern(node.attributes.pattern ?? '').matches(asText(value))),
  lt: bySize((order) => order < 0),
  lte: bySize((order) => order <= 0),
  gt: bySize((order) => order > 0),
  gte: bySize((order) => order >= 0),
}
