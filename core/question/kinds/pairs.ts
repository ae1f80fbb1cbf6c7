import { plainText } from '../allowed-html'
import { mostOf, noBounds, nothingToEarn } from './credits'
import type { Kind, Movable, PlacedOption } from './kind'
import { closeMarked, openMarked, optionFaults, sealedOptions } from './options'
import { matchingGuesses, sortingGuesses, uncountable } from './pairs-guesses'
import {
  allCredits,
  creditOf,
  fractionOf,
  isRight,
  pairsAnswer,
  pairsBody,
  placesOf,
  takenOnce,
  type Item,
  type PairsAnswer,
  type PairsBody,
} from './pairs-score'

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

/** Each thing beside its places: "Dover – tidal or fresh". */
function words(body: PairsBody, placesOf: (item: Item) => readonly string[]): string {
  const targetOf = new Map(body.targets.map((each) => [each.id, plainText(each.html)]))
  return body.items
    .flatMap((item) => {
      const places = placesOf(item).map((id) => targetOf.get(id) ?? '')
      return places.length ? [`${plainText(item.html)} – ${places.join(' or ')}`] : []
    })
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
    parts: body.items.map((item) => ({ part: item.id, right: isRight(body, item, answer.pairs[item.id]) })),
  }),
  isEmpty: (answer) => Object.keys(answer.pairs).length === 0,
  guessable: () => null,
  open: (answer, placed) => mapIds(answer, openMarked(placed, itemId('')), openMarked(placed, targetId(''))),
  close: (answer, placed) => mapIds(answer, closeMarked(placed, itemId('')), closeMarked(placed, targetId(''))),
  solution: solutionOf,
  keyText: (body) => words(body, (item) => placesOf(body, item)),
  answerText: (body, { pairs }) => words(body, (item) => (pairs[item.id] === undefined ? [] : [pairs[item.id]!])),
  comments: (body, answer) =>
    body.items
      .filter((item) => item.comment && !isRight(body, item, answer.pairs[item.id]))
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

/** Credits that say something else than the key that is shown. */
function creditFaults(body: PairsBody, name: string): string[] {
  const faults: string[] = []
  body.items.forEach((item, i) => {
    const best = Math.max(...body.targets.map(({ id }) => creditOf(body, item, id)))
    const own = item.target === null ? 0 : creditOf(body, item, item.target)
    if (item.target !== null && own <= 0) faults.push(`The right pair of ${name} ${i + 1} earns nothing.`)
    else if (best > own)
      faults.push(
        item.target === null
          ? `${name} ${i + 1} belongs nowhere, but one of its pairs earns credit.`
          : `A pair of ${name} ${i + 1} earns more than its right one.`,
      )
  })
  if (!faults.length && mostOf(body, allCredits(body)).compare(0) <= 0) faults.push(nothingToEarn)
  return faults
}

function pairFaults(body: PairsBody, item: string, target: string): string[] {
  const faults = [...optionFaults(body.items, 2, item), ...optionFaults(body.targets, 2, target)]
  if (!body.items.some((each) => each.target !== null))
    faults.push('Nothing belongs anywhere. Say what belongs together.')
  if (body.items.some((each) => each.target !== null && !body.targets.some(({ id }) => id === each.target)))
    faults.push('Something belongs to a place that is gone. Choose it anew.')
  else if (body.rule === 'credits') faults.push(...creditFaults(body, item))
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
    rule: 'share',
    wrongCost: 0,
    ...noBounds,
  }),
  faults(body) {
    const faults = pairFaults(body, 'Left entry', 'Partner')
    const used = body.items.flatMap((item) => item.target ?? [])
    if (new Set(used).size < used.length)
      faults.push('Two things share one partner. Give each its own, or make it a sorting.')
    const tooMany = body.rule === 'credits' ? uncountable(body) : null
    if (tooMany) faults.push(tooMany)
    return faults
  },
  options: (body) => movable(body, { always: true }),
  score: (body, answer) => shared.score(body, body.rule === 'credits' ? takenOnce(body, answer) : answer),
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
    rule: 'share',
    wrongCost: 0,
    ...noBounds,
  }),
  faults: (body) => pairFaults(body, 'Thing', 'Group'),
  options: (body) => movable(body, { fixed: true }),
  guesses: sortingGuesses,
  seal: (body, placed) => sealed(body, placed, false),
}
