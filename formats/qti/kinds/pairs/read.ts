import { childrenOf, type XmlElement } from '../../../xml'
import { declared, numeric, refuse, wholeKey, worthBy, type Context, type Found } from '../reading'
import { gridded } from './gridded'
import { matched } from './matched'
import { entriesOf, markOf, several, sidesOf, turned, type Entry } from './sides'

/** Two sets, of which one goes with the other. */
export function pairsOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const [first, second] = childrenOf(node, 'simpleMatchSet').map((set) => childrenOf(set, 'simpleAssociableChoice'))
  if (!first || !second) return refuse('A matching lacks one of its sides.')
  const once = (nodes: readonly XmlElement[]) => nodes.every((each) => numeric(each.attributes.matchMax, 1) === 1)
  const sides = sidesOf(
    context,
    response,
    entriesOf(context, first, markOf(first, ['i_', 'r_'])),
    entriesOf(context, second, markOf(second, ['t_', 'c_'])),
    once(second),
  )
  const inOrder = node.attributes.shuffle !== 'true'
  // One on the left that takes several: a grid to tick, or groups that stand on the left.
  if (!once(first) && several(sides))
    return several(turned(sides)) || !once(second) ? gridded(sides, inOrder) : matched(turned(sides))
  if (!once(first) && !once(second)) return gridded(sides, inOrder)
  return matched(sides)
}

/** Pairs within one set: of each right pair one stands on the left and one on the right; what belongs to none is offered on the right. */
export function associateOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const entries = entriesOf(context, childrenOf(node, 'simpleAssociableChoice'), 'a_')
  const worth = worthBy(context, response)
  const key = wholeKey(context, response)
  const whole = key !== null
  const isRight = (a: Entry, b: Entry) =>
    [`${a.name} ${b.name}`, `${b.name} ${a.name}`].some((name) => (whole ? key.includes(name) : worth([name]) > 0))
  const left: Entry[] = []
  const right: Entry[] = []
  for (const entry of entries) {
    const partners = entries.filter((other) => other !== entry && isRight(entry, other))
    if (partners.length > 1)
      return refuse('Something in it goes with several others of its own kind, which has no like here.')
    if (partners[0] && !right.includes(entry)) {
      left.push(entry)
      right.push(partners[0])
    } else if (!partners.length) right.push(entry)
  }
  if (left.length < 2) return refuse('Fewer than two pairs of it are right.')
  context.notes.add('What is paired within one set in the file stands in two columns here.')
  const named = (a: Entry, b: Entry) =>
    response.correct.includes(`${b.name} ${a.name}`) ||
    response.mapping?.entries.some(({ key }) => key === `${b.name} ${a.name}`)
      ? `${b.name} ${a.name}`
      : `${a.name} ${b.name}`
  return matched({
    context,
    response,
    left,
    right,
    once: true,
    whole,
    key,
    pair: named,
    worth: (a, b) => (whole ? Number(isRight(a, b)) : worth([named(a, b)])),
  })
}
