import type { XmlElement } from '../../../xml'
import { optionHtml } from '../../content/read'
import { idsFor, wholeKey, worthBy, type Context, type Declaration } from '../reading'

export interface Entry {
  name: string
  id: string
  html: string
}

export const entriesOf = (context: Context, nodes: readonly XmlElement[], mark: string): Entry[] => {
  const ids = idsFor(
    nodes.map((each) => strip(each.attributes.identifier ?? '', mark)),
    mark[0],
  )
  return nodes.map((each) => {
    const name = each.attributes.identifier ?? ''
    return { name, id: ids.get(strip(name, mark))!, html: optionHtml(each.children, context) }
  })
}
/** The mark that Thistle writes before names of either side. */
const strip = (name: string, mark: string) => (name.startsWith(mark) ? name.slice(mark.length) : name)

/** The mark that all names of a side have, if it is one of these. */
export const markOf = (nodes: readonly XmlElement[], marks: readonly [string, string]): string =>
  marks.find((mark) => nodes.every((each) => (each.attributes.identifier ?? '').startsWith(mark))) ?? marks[0]

/** What two sides are matched by. */
export interface Sides {
  context: Context
  response: Declaration
  left: Entry[]
  right: Entry[]
  /** What a pair earns, the left name first. */
  worth: (left: Entry, right: Entry) => number
  /** A pair as the file writes it. */
  pair: (left: Entry, right: Entry) => string
  /** Each on the right takes one only. */
  once: boolean
  whole: boolean
  key: readonly string[] | null
}

export function sidesOf(context: Context, response: Declaration, left: Entry[], right: Entry[], once: boolean): Sides {
  const key = wholeKey(context, response)
  const whole = key !== null
  const byWorth = worthBy(context, response)
  const pair = (a: Entry, b: Entry) => `${a.name} ${b.name}`
  return {
    context,
    response,
    left,
    right,
    once,
    whole,
    key,
    pair,
    worth: (a, b) => (whole ? Number(key.includes(pair(a, b))) : byWorth([pair(a, b)])),
  }
}

/** Whether one on the left goes with several. */
export const several = (sides: Sides) =>
  sides.left.some((a) => sides.right.filter((b) => sides.worth(a, b) > 0).length > 1)

/** The same pairs, looked at from the other side. */
export const turned = (sides: Sides): Sides => ({
  ...sides,
  left: sides.right,
  right: sides.left,
  once: false,
  worth: (a, b) => sides.worth(b, a),
  pair: (a, b) => sides.pair(b, a),
})

/** What all pairs of the key earn together. */
export const wholeWorth = ({ context, response, left, right, pair, key }: Sides): number => {
  const correct = new Set(key ?? response.correct)
  const names = left.flatMap((a) => right.map((b) => pair(a, b))).filter((name) => correct.has(name))
  return worthBy(context, response)(names)
}

/** A pair as the file writes it, by what both are called here; none where one of them is not known. */
export function pairBy({ left, right, pair }: Sides): (leftId: string, rightId: string) => string[] {
  const lefts = new Map(left.map((each) => [each.id, each]))
  const rights = new Map(right.map((each) => [each.id, each]))
  return (leftId, rightId) => {
    const [a, b] = [lefts.get(leftId), rights.get(rightId)]
    return a && b ? [pair(a, b)] : []
  }
}
