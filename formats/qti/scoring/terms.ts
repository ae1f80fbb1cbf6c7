import { childrenOf, textOf, type XmlElement } from '../../xml'

/** A summand of a score: how often it counts, what it is, and which responses it looks at. */
export interface Term {
  factor: number
  node: XmlElement
  responses: string[]
}
/** A score as a sum within bounds. */
export interface Score {
  terms: Term[]
  /** What is given whatever is answered. */
  constant: number
  lower: number | null
  upper: number | null
}

/** The number that an expression is, whatever is answered; null for everything else. */
export function constantOf(node: XmlElement): number | null {
  if (node.name === 'integerToFloat') return constantOf(childrenOf(node)[0]!)
  if (node.name !== 'baseValue') return null
  const text = textOf(node).trim()
  return text !== '' && Number.isFinite(Number(text)) ? Number(text) : null
}

/** The response that a condition finds unanswered, or null. */
function unanswered(node: XmlElement): boolean {
  return node.name === 'isNull' && childrenOf(node)[0]?.name === 'variable'
}

/** "If nothing is answered, 0": unanswered is 0 here in any case. */
function withoutGuard(node: XmlElement): XmlElement {
  if (node.name !== 'choose') return node
  const [condition, then, otherwise] = childrenOf(node) as [XmlElement, XmlElement, XmlElement]
  if (unanswered(condition) && constantOf(then) === 0) return withoutGuard(otherwise)
  const [negated] = condition.name === 'not' ? childrenOf(condition) : []
  if (negated && unanswered(negated) && constantOf(otherwise) === 0) return withoutGuard(then)
  return node
}

/** A bound around a whole score: max, min, or "if it is below, then this". */
function bound(node: XmlElement): { inner: XmlElement; lower?: number; upper?: number } | null {
  const parts = childrenOf(node)
  if ((node.name === 'max' || node.name === 'min') && parts.length === 2) {
    const at = parts.findIndex((part) => constantOf(part) !== null)
    if (at < 0) return null
    return { inner: parts[1 - at]!, [node.name === 'max' ? 'lower' : 'upper']: constantOf(parts[at]!)! }
  }
  if (node.name !== 'choose') return null
  const [condition, then, otherwise] = parts as [XmlElement, XmlElement, XmlElement]
  const [compared, to] = childrenOf(condition)
  const limit = to && constantOf(to)
  if (compared !== otherwise || limit === null || limit === undefined || constantOf(then) !== limit) return null
  if (condition.name === 'lt' || condition.name === 'lte') return { inner: otherwise, lower: limit }
  return condition.name === 'gt' || condition.name === 'gte' ? { inner: otherwise, upper: limit } : null
}

const looksAt = new Set(['variable', 'mapResponse', 'mapResponsePoint'])
/** Responses that an expression looks at, each once. */
export function responsesIn(node: XmlElement): string[] {
  const found = new Set<string>()
  const look = (each: XmlElement) => {
    if (looksAt.has(each.name)) found.add(each.attributes.identifier ?? '')
    childrenOf(each).forEach(look)
  }
  look(node)
  return [...found]
}

/** What a score adds up from. */
export function scoreOf(node: XmlElement): Score {
  const limits = { lower: null as number | null, upper: null as number | null }
  let inner = withoutGuard(node)
  for (let found = bound(inner); found; found = bound(inner)) {
    limits.lower ??= found.lower ?? null
    limits.upper ??= found.upper ?? null
    inner = withoutGuard(found.inner)
  }
  const score: Score = { terms: [], constant: 0, ...limits }
  add(inner, 1, score)
  return score
}

function add(written: XmlElement, factor: number, score: Score): void {
  const node = withoutGuard(written)
  const constant = constantOf(node)
  const parts = childrenOf(node)
  if (constant !== null) score.constant += factor * constant
  else if (node.name === 'sum') parts.forEach((part) => add(part, factor, score))
  else if (node.name === 'integerToFloat') add(parts[0]!, factor, score)
  else if (node.name === 'product' && parts.filter((part) => constantOf(part) === null).length === 1) {
    const by = parts.reduce((product, part) => product * (constantOf(part) ?? 1), 1)
    add(
      parts.find((part) => constantOf(part) === null)!,
      factor * by,
      score,
    )
  } else if (node.name === 'divide' && parts[1] && constantOf(parts[1]))
    add(parts[0]!, factor / constantOf(parts[1])!, score)
  else score.terms.push({ factor, node, responses: responsesIn(node) })
}

/** A term as branches with what each earns, the first that holds; null where a branch earns something else than a number. */
export function casesOf({
  node,
  factor,
}: Term): { cases: { condition: XmlElement; worth: number }[]; otherwise: number } | null {
  const cases: { condition: XmlElement; worth: number }[] = []
  let at = node
  while (at.name === 'choose') {
    const [condition, then, otherwise] = childrenOf(at) as [XmlElement, XmlElement, XmlElement]
    const worth = constantOf(then)
    if (worth === null) return null
    cases.push({ condition, worth: worth * factor })
    at = otherwise
  }
  const rest = constantOf(at)
  return rest === null || !cases.length ? null : { cases, otherwise: rest * factor }
}
