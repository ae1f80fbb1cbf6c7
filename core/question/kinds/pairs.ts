import { z } from 'zod'
import { certain, gathered, type Chances } from '../../kit/chances'
import { arrangements, choose, share } from '../../kit/counting'
import { Fraction, atLeast, exact } from '../../kit/exact'
import { plainText } from '../allowed-html'
import type { Kind, Movable, PlacedOption } from './kind'
import { optionBase, optionFaults, sealedOptions } from './options'

const target = optionBase.pick({ id: true, html: true })

/** Matching and sorting share a body: things, and what each belongs to. */
export const pairsBody = z.strictObject({
  items: z
    .array(optionBase.omit({ fixed: true }).extend({ target: z.string().max(24).nullable() }))
    .max(40, 'At most 40 things can be placed.'),
  targets: z.array(target).max(40, 'At most 40 places can be offered.'),
  /** What a wrong pair takes away, as a share of what a right one earns. */
  wrongCost: z.number().min(0).max(1).multipleOf(0.01).default(0),
})
export type PairsBody = z.infer<typeof pairsBody>

export const pairsAnswer = z.strictObject({
  pairs: z
    .record(z.string().max(24), z.string().max(24))
    .refine((pairs) => Object.keys(pairs).length <= 40, 'At most 40 things can be placed.'),
})
export type PairsAnswer = z.infer<typeof pairsAnswer>

/** Ids of items and of targets share one list on a paper; the mark before them keeps them apart. */
const itemId = (id: string) => `i.${id}`
const targetId = (id: string) => `t.${id}`

function mapIds(
  answer: PairsAnswer,
  item: (id: string) => string | undefined,
  target: (id: string) => string | undefined,
): PairsAnswer {
  return {
    pairs: Object.fromEntries(
      Object.entries(answer.pairs).flatMap(([from, to]) => {
        const [a, b] = [item(from), target(to)]
        return a !== undefined && b !== undefined ? [[a, b]] : []
      }),
    ),
  }
}

const opener = (placed: PlacedOption[], mark: string) => {
  const known = new Map(
    placed.filter(({ option }) => option.startsWith(mark)).map(({ id, option }) => [id, option.slice(mark.length)]),
  )
  return (id: string) => known.get(id)
}
const closer = (placed: PlacedOption[], mark: string) => {
  const known = new Map(placed.map(({ id, option }) => [option, id]))
  return (id: string) => known.get(mark + id)
}

/** Share of the pairs right; wrong pairs cost as set, floor 0 (semantics §2). A thing that belongs nowhere is wrong anywhere. */
function fractionOf(body: PairsBody, { pairs }: PairsAnswer): Fraction {
  const right = body.items.filter((item) => item.target !== null && pairs[item.id] === item.target).length
  const wrong = body.items.filter((item) => pairs[item.id] !== undefined && pairs[item.id] !== item.target).length
  return ofPairs(body, right, wrong)
}

function ofPairs(body: PairsBody, right: number, wrong: number): Fraction {
  const belonging = belongingIn(body)
  return belonging === 0
    ? new Fraction(0)
    : atLeast(0, new Fraction(right).sub(exact(body.wrongCost).mul(wrong)).div(belonging))
}

const belongingIn = (body: PairsBody) => body.items.filter((item) => item.target !== null).length

/** As many pairs as can be made, each target taken once: the matching problem, by inclusion and exclusion (Montmort 1713). */
function matchingGuesses(body: PairsBody): Chances {
  const [n, m] = [body.items.length, body.targets.length]
  const pairs = Math.min(n, m)
  const most = Math.min(belongingIn(body), pairs)
  const ways = (set: number) => arrangements(Math.max(n, m) - set, pairs - set)
  return gathered(
    Array.from({ length: most + 1 }, (_, right) => {
      let exactly = 0n
      for (let more = 0; more <= belongingIn(body) - right; more++)
        exactly += (more % 2 ? -1n : 1n) * choose(belongingIn(body) - right, more) * ways(right + more)
      const orders = choose(belongingIn(body), right) * exactly
      return [ofPairs(body, right, pairs - right), share(orders, ways(0))] as const
    }),
  )
}

/** Each thing goes to any group by itself; to none too, where something belongs nowhere. */
function sortingGuesses(body: PairsBody): Chances {
  const nowhere = body.items.length > belongingIn(body)
  const places = body.targets.length + (nowhere ? 1 : 0)
  if (!places) return certain(0)
  let chances = new Map([['0,0', 1]])
  for (const item of body.items) {
    const next = new Map<string, number>()
    for (const [key, chance] of chances) {
      const [right, wrong] = key.split(',').map(Number) as [number, number]
      const add = (r: number, w: number, share: number) => {
        const to = `${right + r},${wrong + w}`
        next.set(to, (next.get(to) ?? 0) + chance * share)
      }
      if (item.target !== null) add(1, 0, 1 / places)
      add(0, 1, (body.targets.length - (item.target === null ? 0 : 1)) / places)
      if (nowhere) add(0, 0, 1 / places)
    }
    chances = next
  }
  return gathered(
    [...chances].map(([key, chance]) => {
      const [right, wrong] = key.split(',').map(Number) as [number, number]
      return [ofPairs(body, right, wrong), chance] as const
    }),
  )
}

function words(body: PairsBody, pairs: Record<string, string>): string {
  const targetOf = new Map(body.targets.map((each) => [each.id, plainText(each.html)]))
  return body.items
    .flatMap((item) =>
      pairs[item.id] === undefined ? [] : [`${plainText(item.html)} – ${targetOf.get(pairs[item.id]!) ?? ''}`],
    )
    .join(' · ')
}

const solutionOf = (body: PairsBody): PairsAnswer => ({
  pairs: Object.fromEntries(body.items.flatMap((item) => (item.target === null ? [] : [[item.id, item.target]]))),
})

type Shared = Omit<Kind<PairsBody, PairsAnswer>, 'name' | 'label' | 'blank' | 'faults' | 'options' | 'guesses' | 'seal'>

const shared: Shared = {
  body: pairsBody,
  answer: pairsAnswer,
  score: (body, answer) => ({
    fraction: fractionOf(body, answer),
    parts: body.items.map((item) => ({ part: item.id, right: (answer.pairs[item.id] ?? null) === item.target })),
  }),
  isEmpty: (answer) => Object.keys(answer.pairs).length === 0,
  guessable: () => null,
  open: (answer, placed) => mapIds(answer, opener(placed, itemId('')), opener(placed, targetId(''))),
  close: (answer, placed) => mapIds(answer, closer(placed, itemId('')), closer(placed, targetId(''))),
  solution: solutionOf,
  keyText: (body) => words(body, solutionOf(body).pairs),
  answerText: (body, answer) => words(body, answer.pairs),
  comments: (body, answer) =>
    body.items
      .filter((item) => item.comment && (answer.pairs[item.id] ?? null) !== item.target)
      .map((item) => item.comment),
  mapHtml: (body, map) => ({
    ...body,
    items: body.items.map((item) => ({
      ...item,
      html: map(item.html, `item:${item.id}`),
      comment: map(item.comment, `item:${item.id}:comment`),
    })),
    targets: body.targets.map((each) => ({ ...each, html: map(each.html, `target:${each.id}`) })),
  }),
}

function sealed(body: PairsBody, placed: PlacedOption[], once: boolean) {
  const written = (entries: { id: string; html: string }[], mark: string) =>
    sealedOptions(
      entries.map(({ id, html }) => ({ id: mark + id, html })),
      placed,
    )
  return {
    asks: 'pairs' as const,
    items: written(body.items, itemId('')),
    targets: written(body.targets, targetId('')),
    once,
  }
}

const movable = (body: PairsBody, targets: Partial<Movable>): Movable[] => [
  ...body.items.map(({ id }) => ({ id: itemId(id), fixed: false, list: 'items', always: true })),
  ...body.targets.map(({ id }) => ({ id: targetId(id), fixed: false, list: 'targets', ...targets })),
]

function pairFaults(body: PairsBody, item: string, target: string): string[] {
  const faults = [...optionFaults(body.items, 2, item), ...optionFaults(body.targets, 2, target)]
  if (!body.items.some((each) => each.target !== null))
    faults.push('Nothing belongs anywhere. Say what belongs together.')
  if (body.items.some((each) => each.target !== null && !body.targets.some(({ id }) => id === each.target)))
    faults.push('Something belongs to a place that is gone. Choose it anew.')
  return faults
}

/** Pairs (QTI matchInteraction): each target takes one thing; targets may be left over. */
export const matching: Kind<PairsBody, PairsAnswer> = {
  ...shared,
  name: 'matching',
  label: 'Matching',
  blank: () => ({
    items: ['a', 'b', 'c'].map((id) => ({ id, html: '', comment: '', target: id })),
    targets: ['a', 'b', 'c'].map((id) => ({ id, html: '' })),
    wrongCost: 0,
  }),
  faults(body) {
    const faults = pairFaults(body, 'Left', 'Right')
    const used = body.items.flatMap((item) => item.target ?? [])
    if (new Set(used).size < used.length)
      faults.push('Two things share one partner. Give each its own, or make it a sorting.')
    return faults
  },
  options: (body) => movable(body, { always: true }),
  guesses: matchingGuesses,
  seal: (body, placed) => sealed(body, placed, true),
}

/** Sorting into groups (QTI matchInteraction, gapMatchInteraction): a group takes any number; a thing may belong to none. */
export const sorting: Kind<PairsBody, PairsAnswer> = {
  ...shared,
  name: 'sorting',
  label: 'Sorting',
  blank: () => ({
    items: ['a', 'b', 'c', 'd'].map((id) => ({ id, html: '', comment: '', target: id < 'c' ? 'x' : 'y' })),
    targets: ['x', 'y'].map((id) => ({ id, html: '' })),
    wrongCost: 0,
  }),
  faults: (body) => pairFaults(body, 'Thing', 'Group'),
  options: (body) => movable(body, { fixed: true }),
  guesses: sortingGuesses,
  seal: (body, placed) => sealed(body, placed, false),
}
