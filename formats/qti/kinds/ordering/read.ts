import { childrenOf, textOf, type XmlElement } from '../../../xml'
import { casesOf } from '../../scoring/terms'
import { optionHtml } from '../../content/read'
import {
  declared,
  found,
  idsFor,
  namesBack,
  refuse,
  wholeKey,
  worthBy,
  type Context,
  type Declaration,
  type Found,
} from '../reading'

/** What every term of the score looks for, where all of them earn the same: with what all of them earn together. */
function alike(
  context: Context,
  { identifier }: Declaration,
  soughtIn: (condition: XmlElement) => string | null,
): { sought: string[]; worth: number } | null {
  const terms = context.score?.terms.filter((term) => term.responses.includes(identifier)) ?? []
  const found = terms.map((term) => {
    const { cases, otherwise } = casesOf(term) ?? { cases: [], otherwise: 1 }
    const [only] = cases
    const sought = cases.length === 1 && otherwise === 0 ? soughtIn(only!.condition) : null
    return sought === null ? null : { sought, worth: only!.worth }
  })
  if (found.length < 2 || found.some((each) => !each || each.worth !== found[0]?.worth)) return null
  return { sought: found.map((each) => each!.sought), worth: found.reduce((sum, each) => sum + each!.worth, 0) }
}
const sameSet = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && [...a].sort().join('\n') === [...b].sort().join('\n')

/** Two that follow one another: “contains” over an order of two. */
function pairIn(condition: XmlElement): string | null {
  const [whole, part] = childrenOf(condition)
  if (condition.name !== 'contains' || whole?.name !== 'variable' || part?.name !== 'ordered') return null
  return childrenOf(part)
    .map((each) => textOf(each).trim())
    .join(' ')
}

/** One in its place: “match” of the n-th with a name, or with the one that stands there in the key. */
const placeIn =
  ({ correct }: Declaration) =>
  (condition: XmlElement): string | null => {
    const parts = childrenOf(condition)
    const nth = (of: 'variable' | 'correct') =>
      parts.find((each) => each.name === 'index' && childrenOf(each)[0]?.name === of)?.attributes.n
    const [at, keyed] = [nth('variable'), nth('correct')]
    const base = parts.find((each) => each.name === 'baseValue')
    const name = base ? textOf(base).trim() : keyed && correct[Number(keyed) - 1]
    return condition.name === 'match' && at && name ? `${at} ${name}` : null
  }

/** The right order: as it is declared, or as the rules look for it, whole or place by place. */
function keyOf(context: Context, response: Declaration): readonly string[] {
  if (response.correct.length) return response.correct
  const places = alike(context, response, placeIn(response))?.sought.map((each) => each.split(' ')) ?? []
  if (!places.length) return wholeKey(context, response) ?? []
  return places.sort((a, b) => Number(a[0]) - Number(b[0])).map(([, name]) => name!)
}

/** How much of an order is right, where the processing looks at its parts: with what all of them earn. */
function partsOf(
  context: Context,
  response: Declaration,
  correct: readonly string[],
): { rule: 'places' | 'neighbours'; worth: number } | null {
  const pairs = alike(context, response, pairIn)
  const two = correct.slice(1).map((name, i) => `${correct[i]!} ${name}`)
  if (pairs && sameSet(pairs.sought, two)) return { rule: 'neighbours', worth: pairs.worth }
  const places = alike(context, response, placeIn(response))
  const each = correct.map((name, i) => `${i + 1} ${name}`)
  return places && sameSet(places.sought, each) ? { rule: 'places', worth: places.worth } : null
}

export function orderingOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const choices = childrenOf(node, 'simpleChoice')
  const ids = idsFor(choices.map((each) => each.attributes.identifier ?? ''))
  const lines = choices.map((each) => {
    const name = each.attributes.identifier ?? ''
    return { name, id: ids.get(name)!, html: optionHtml(each.children, context), comment: '' }
  })
  const key = keyOf(context, response)
  const items = key.flatMap((name) => lines.filter((each) => each.name === name))
  if (items.length < lines.length) return refuse('The right order does not name every line.')
  const names = namesBack(ids)
  const by = partsOf(context, response, key)
  return found(
    'ordering',
    {
      items: items.map(({ name: _name, ...item }) => item),
      rule: by?.rule ?? 'exact',
      layout: node.attributes.orientation === 'horizontal' ? 'row' : 'list',
    },
    by?.worth ?? worthBy(context, response)(key),
    ({ order }: { order: string[] }) => ({ [response.identifier]: order.flatMap(names) }),
  )
}
