import { z } from 'zod'
import { certain, gathered } from '../../kit/chances'
import { arrangements, fixedPoints, longestIncreasing, share, successions } from '../../kit/counting'
import { Fraction } from '../../kit/exact'
import { plainText } from '../allowed-html'
import type { Kind } from './kind'
import { byId, closeIds, openIds, optionBase, optionFaults, sealedOptions } from './options'

export const orderingBody = z.strictObject({
  /** In the right order. */
  items: z.array(optionBase.omit({ fixed: true })).max(30, 'An ordering has at most 30 things.'),
  /** How a fraction is formed: semantics §2. */
  rule: z.enum(['exact', 'places', 'neighbours', 'moves']),
  layout: z.enum(['list', 'row']).default('list'),
})
export type OrderingBody = z.infer<typeof orderingBody>

export const orderAnswer = z.strictObject({ order: z.array(z.string().max(24)).max(30) })
export type OrderAnswer = z.infer<typeof orderAnswer>

/** Length of the longest increasing subsequence (patience sorting; Fredman 1975, Discrete Math. 11). */
export function longestInOrder(values: readonly number[]): number {
  const tails: number[] = []
  for (const value of values) {
    const at = tails.findIndex((tail) => tail >= value)
    tails[at < 0 ? tails.length : at] = value
  }
  return tails.length
}

/** An answer as places in the right order: each line once, wherever it comes first; what is no line left out. */
function placesOf(body: OrderingBody, order: string[]): number[] {
  return [...new Set(order)].map((id) => body.items.findIndex((item) => item.id === id)).filter((place) => place >= 0)
}

function fractionOf(body: OrderingBody, places: number[]): Fraction {
  const n = body.items.length
  if (n < 2) return new Fraction(0)
  switch (body.rule) {
    case 'exact':
      return new Fraction(places.length === n && places.every((place, i) => place === i) ? 1 : 0)
    case 'places':
      return new Fraction(places.filter((place, i) => place === i).length, n)
    case 'neighbours':
      return new Fraction(places.slice(1).filter((place, i) => place === places[i]! + 1).length, n - 1)
    case 'moves':
      return new Fraction(Math.max(0, longestInOrder(places) - 1), n - 1)
  }
}

/** Every order is as likely as any other. */
function guesses({ items, rule }: OrderingBody) {
  const n = items.length
  const all = arrangements(n, n)
  if (n < 2) return certain(0)
  switch (rule) {
    case 'exact':
      return gathered([
        [new Fraction(1), share(1n, all)],
        [new Fraction(0), share(all - 1n, all)],
      ])
    case 'places':
      return gathered(fixedPoints(n).map((orders, right) => [new Fraction(right, n), share(orders, all)]))
    case 'neighbours':
      return gathered(successions(n).map((orders, right) => [new Fraction(right, n - 1), share(orders, all)]))
    case 'moves':
      return gathered(
        longestIncreasing(n).map((orders, length) => [
          new Fraction(Math.max(0, length - 1), n - 1),
          share(orders, all),
        ]),
      )
  }
}

const words = (body: OrderingBody, order: string[]) =>
  order
    .flatMap((id) => body.items.find((item) => item.id === id) ?? [])
    .map((item) => plainText(item.html))
    .join(' → ')

/** Putting in order (QTI orderInteraction): exact, right places, right neighbours, or the longest part already in order. */
export const ordering: Kind<OrderingBody, OrderAnswer> = {
  name: 'ordering',
  label: 'Ordering',
  body: orderingBody,
  answer: orderAnswer,
  blank: () => ({
    items: ['a', 'b', 'c', 'd'].map((id) => ({ id, html: '', comment: '' })),
    rule: 'moves',
    layout: 'list',
  }),
  faults: (body) => optionFaults(body.items, 2, 'Line'),
  // Sorted by id, so that the shuffled start tells nothing of the right order.
  options: (body) => byId(body.items).map(({ id }) => ({ id, fixed: false, always: true })),
  score(body, answer) {
    const places = placesOf(body, answer.order)
    return {
      fraction: fractionOf(body, places),
      parts: body.items.map((item, i) => ({ part: item.id, right: places[i] === i })),
    }
  },
  isEmpty: (answer) => answer.order.length === 0,
  guessable: () => null,
  guesses,
  seal: (body, placed) => ({ asks: 'order', items: sealedOptions(body.items, placed), layout: body.layout }),
  open: (answer, placed) => ({ order: openIds(answer.order, placed) }),
  close: (answer, placed) => ({ order: closeIds(answer.order, placed) }),
  solution: (body) => ({ order: body.items.map((item) => item.id) }),
  keyText: (body) =>
    words(
      body,
      body.items.map((item) => item.id),
    ),
  answerText: (body, answer) => words(body, answer.order),
  comments(body, answer) {
    const places = placesOf(body, answer.order)
    return body.items.filter((item, i) => item.comment && places[i] !== i).map((item) => item.comment)
  },
  mapHtml: (body, map) => ({
    ...body,
    items: body.items.map((item) => ({
      ...item,
      html: map(item.html, `item:${item.id}`),
      comment: map(item.comment, `item:${item.id}:comment`),
    })),
  }),
}
