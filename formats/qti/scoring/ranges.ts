import { Fraction, exact } from '../../../core/kit/exact'
import { isNumberText, nearestNumberText, numberTextOf } from '../../../core/kit/number-text'
import type { Nearness } from '../../../core/question/kinds/number'
import { childrenOf, textOf, type XmlElement } from '../../xml'
import type { Declaration } from '../kinds/reading'
import { NotRead } from './chosen'

/** Numbers that a condition accepts: about a key, or between two bounds. */
export interface Accepted {
  /** A plain decimal, or a computation of a question that varies. */
  value: string
  near: Nearness
}
interface Range {
  low: Fraction | null
  high: Fraction | null
  open: Extract<Nearness, { by: 'between' }>['open']
}

const computed = /^\{=[^{}]{1,210}\}$/

/** A number as a question holds it. @throws NotRead */
export function decimalOf(text: string): string {
  const tidy = text.trim()
  if (computed.test(tidy) || (isNumberText(tidy) && !/e/i.test(tidy))) return tidy
  const written = numberTextOf(tidy)
  if (written !== null) return written
  throw new NotRead(
    /^[+-]?[\d.]+(?:e[+-]?\d+)?$/i.test(tidy)
      ? `“${text.slice(0, 30)}” has more digits, or a higher power of ten, than numbers here.`
      : `“${text.slice(0, 30)}” is not a number.`,
  )
}

const isOwn = (node: XmlElement, { identifier }: Declaration) =>
  node.name === 'variable' && node.attributes.identifier === identifier

/** The literal, or the declared key, that stands in a comparison. */
function literal(node: XmlElement, response: Declaration): string {
  if (node.name === 'baseValue') return decimalOf(textOf(node))
  if (node.name === 'correct' && node.attributes.identifier === response.identifier && response.correct.length === 1)
    return decimalOf(response.correct[0]!)
  if (node.name === 'integerToFloat') return literal(childrenOf(node)[0]!, response)
  throw new NotRead('A number is compared with something that is no number.')
}

/** The two sides of a comparison: the key, and whether it stands first. */
function sides(node: XmlElement, response: Declaration): { key: string; first: boolean } {
  const [a, b] = childrenOf(node).map((each) => (each.name === 'integerToFloat' ? childrenOf(each)[0]! : each))
  if (!a || !b) throw new NotRead('A comparison lacks a side.')
  if (isOwn(a, response)) return { key: literal(b, response), first: false }
  if (isOwn(b, response)) return { key: literal(a, response), first: true }
  throw new NotRead('A comparison does not look at the answer itself.')
}

const openAt = (low: boolean, high: boolean): Range['open'] =>
  low ? (high ? 'both' : 'below') : high ? 'above' : 'none'

/**
 * Tolerances of “equal”: its first expression says the range in which the second has to lie (QTI 2.1 §15.3). Where the answer
 * stands first, the range about it that holds the key is the same as another range about the key.
 */
function equalTo(node: XmlElement, response: Declaration): Accepted {
  const { key, first } = sides(node, response)
  const { toleranceMode: mode = 'exact', tolerance = '0' } = node.attributes
  if (mode === 'exact') return { value: key, near: { by: 'absolute', tolerance: '0' } }
  const [t0, t1 = t0] = tolerance.trim().split(/\s+/).map(decimalOf) as [string, string?]
  const [openLow, openHigh] = [
    node.attributes.includeLowerBound === 'false',
    node.attributes.includeUpperBound === 'false',
  ]
  if (mode === 'absolute') {
    if (t0 === t1 && !openLow && !openHigh) return { value: key, near: { by: 'absolute', tolerance: t0 } }
    const [below, above, open] = first ? [t0, t1!, openAt(openLow, openHigh)] : [t1!, t0, openAt(openHigh, openLow)]
    return { value: key, near: { by: 'between', below, above, open } }
  }
  if (mode !== 'relative') throw new NotRead(`It compares by “${mode}”.`)
  const shares = [exact(t0).div(100), exact(t1!).div(100)] as const
  if (first && t0 === t1 && !openLow && !openHigh) {
    const share = nearestNumberText(shares[0])
    if (exact(share).equals(shares[0])) return { value: key, near: { by: 'relative', tolerance: share } }
  }
  if (computed.test(key)) throw new NotRead('A computed key has tolerances that are not said of it here.')
  const at = exact(key)
  // About the key itself, or about an answer x with x − x·t0 ≤ key ≤ x + x·t1.
  const [low, high] = first
    ? [at.sub(at.abs().mul(shares[0])), at.add(at.abs().mul(shares[1]))]
    : [at.div(shares[1].add(1)), shares[0].compare(1) < 0 ? at.div(new Fraction(1).sub(shares[0])) : null]
  const ordered = high !== null && low.compare(high) > 0 ? { low: high, high: low } : { low, high }
  return within({ ...ordered, open: first ? openAt(openLow, openHigh) : openAt(openHigh, openLow) }, key, response)
}

/** A width without end is cut off, so that its bound lies within the file's own. */
const inward = (width: Fraction) => nearestNumberText(width, true)

/** Whether a number lies in a range, its bounds among it only where they are closed. */
function holds({ low, high, open }: Range, value: Fraction): boolean {
  const [under, over] = [low ? value.compare(low) : 1, high ? value.compare(high) : -1]
  return (
    (under > 0 || (under === 0 && open !== 'below' && open !== 'both')) &&
    (over < 0 || (over === 0 && open !== 'above' && open !== 'both'))
  )
}

/** A number that a range holds, to be shown as right: the middle; beyond a single bound one more or less. @param whole for answers that are whole */
function shownFor(range: Range, whole: boolean): Fraction {
  const { low, high } = range
  const middle = low && high ? low.add(high).div(2) : low ? low.add(1) : high ? high.sub(1) : new Fraction(0)
  const closed = [low, high].filter((each) => each !== null && (!low || !high) && holds(range, each))
  return (
    [...closed, ...(whole ? [middle.floor(), middle.ceil()] : []), middle].find((each) => holds(range, each!)) ?? middle
  )
}

/** A range as one about a key that lies in it. @throws NotRead for a range that holds nothing */
function within(range: Range, wanted: string | undefined, { baseType }: Declaration): Accepted {
  const { low, high, open } = range
  const inside = wanted !== undefined && isNumberText(wanted) && holds(range, exact(wanted))
  const value = inside ? wanted : nearestNumberText(shownFor(range, baseType === 'integer'))
  if (!holds(range, exact(value))) throw new NotRead('A range of it holds no number.')
  return {
    value,
    near: {
      by: 'between',
      below: low && inward(exact(value).sub(low)),
      above: high && inward(high.sub(exact(value))),
      open,
    },
  }
}

const flipped: Record<string, string> = { lt: 'gt', lte: 'gte', gt: 'lt', gte: 'lte' }

function halfLine(node: XmlElement, response: Declaration): Range {
  const { key, first } = sides(node, response)
  if (computed.test(key)) throw new NotRead('A computed bound is not said here.')
  const order = first ? flipped[node.name]! : node.name
  const isLow = order.startsWith('g')
  const open = order.endsWith('e') ? 'none' : isLow ? 'below' : 'above'
  return { low: isLow ? exact(key) : null, high: isLow ? null : exact(key), open }
}

/** What both ranges hold. @throws NotRead for nothing */
function both(a: Range, b: Range): Range {
  const lows = [a, b].filter(({ low }) => low).sort((x, y) => y.low!.compare(x.low!))
  const highs = [a, b].filter(({ high }) => high).sort((x, y) => x.high!.compare(y.high!))
  const isOpen = (range: Range | undefined, end: 'below' | 'above') => range?.open === end || range?.open === 'both'
  return {
    low: lows[0]?.low ?? null,
    high: highs[0]?.high ?? null,
    open: openAt(isOpen(lows[0], 'below'), isOpen(highs[0], 'above')),
  }
}

function rangeOf(node: XmlElement, response: Declaration): Range {
  if (Object.hasOwn(flipped, node.name)) return halfLine(node, response)
  if (node.name === 'and')
    return childrenOf(node)
      .map((each) => rangeOf(each, response))
      .reduce(both)
  throw new NotRead(`“${node.name}” is no range of numbers.`)
}

/** Numbers that a condition accepts, one after another. @throws NotRead */
export function acceptedNumbers(node: XmlElement, response: Declaration): Accepted[] {
  const parts = childrenOf(node)
  switch (node.name) {
    case 'or':
      return parts.flatMap((each) => acceptedNumbers(each, response))
    case 'match':
      return [{ value: sides(node, response).key, near: { by: 'absolute', tolerance: '0' } }]
    case 'equal':
      return [equalTo(node, response)]
    case 'equalRounded': {
      const { key } = sides(node, response)
      const digits = Number(node.attributes.figures)
      if (!Number.isInteger(digits)) throw new NotRead('A rounding lacks its figures.')
      return [
        {
          value: key,
          near:
            node.attributes.roundingMode === 'decimalPlaces' ? { by: 'decimals', digits } : { by: 'figures', digits },
        },
      ]
    }
    default:
      return [within(rangeOf(node, response), response.correct[0], response)]
  }
}
