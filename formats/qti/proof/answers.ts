import { exact, type Fraction } from '../../../core/kit/exact'
import { isNumberText, nearestNumberText } from '../../../core/kit/number-text'
import { middle, type Point, type Shape } from '../../../core/kit/shapes'
import { seededRandom, shuffled, type Random } from '../../../core/kit/random'
import type { Question } from '../../../core/question'

/** Texts and numbers that a file names in its keys and rules: an answer may be any of them. */
export type Literals = readonly string[]

type Of<K extends Question['kind']> = Extract<Question, { kind: K }>

/** So many answers are tried at most; of what is typed, the first, which matter most. */
const most = 48
const mostTyped = 24

/** At most so many of them, evenly from the first to the last. */
const spread = <T>(all: readonly T[], n = most): T[] =>
  all.length <= n ? [...all] : Array.from({ length: n }, (_, i) => all[Math.floor((i * all.length) / n)]!)

/** All sets where they are few; else the key, what differs from it by one, single ones, and a sample. */
function sets(ids: readonly string[], right: readonly string[], random: () => Random): string[][] {
  if (ids.length <= 6)
    return Array.from({ length: 2 ** ids.length }, (_, bits) => ids.filter((_id, i) => bits & (1 << i)))
  const toggled = (id: string) => (right.includes(id) ? right.filter((each) => each !== id) : [...right, id])
  return [
    [],
    [...right],
    [...ids],
    ids.filter((id) => !right.includes(id)),
    ...ids.map((id) => [id]),
    ...ids.map(toggled),
    ...Array.from({ length: 16 }, () => ids.filter(() => random().below(2) === 1)),
  ]
}

const isNumber = (text: string) => isNumberText(text.trim())

/** Keys with their bounds, what lies just within and just outside them, what a file names beside, and what lies far off. */
function numbers({ answers }: Of<'number'>['body'], literals: Literals): string[] {
  const about = (key: Fraction, width: Fraction) => {
    // Little beside the number itself: a millionth says nothing of 1.6e-19, and is lost in 6.02e23.
    const size = key.abs().valueOf()
    const just = size > 0 && (size < 0.001 || size >= 1e6) ? key.abs().div(1_000_000_000) : exact('0.000001')
    return [
      key.add(width),
      key.sub(width),
      key.add(width).add(just),
      key.sub(width).sub(just),
      key.add(width).sub(just),
    ]
  }
  const named = literals.filter(isNumber).map((text) => exact(text.trim()))
  const own = answers.filter(({ value }) => isNumber(value)).map(({ value, near }) => ({ key: exact(value), near }))
  const widthsOf = ({ key, near }: (typeof own)[number]): Fraction[] => {
    if (near.by === 'absolute') return [exact(near.tolerance)]
    if (near.by === 'relative') return [key.abs().mul(exact(near.tolerance))]
    if (near.by === 'between') return [near.below, near.above].flatMap((each) => (each === null ? [] : [exact(each)]))
    return [exact('0.05'), exact('0.5')]
  }
  const found = [
    ...own.map(({ key }) => key),
    ...own.slice(0, 4).flatMap((each) => widthsOf(each).flatMap((width) => about(each.key, width))),
    ...named.slice(0, 8),
    ...own.slice(0, 2).flatMap(({ key }) => [key.add(1), key.mul(10), key.neg()]),
    ...named.slice(0, 3).flatMap((key) => named.slice(0, 4).flatMap((width) => about(key, width.abs()))),
  ]
  return [...new Set(['', '0', ...found.map((value) => nearestNumberText(value)), '123456789'])]
}

const withoutAccents = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .normalize('NFC')
/** Accepted texts as they stand, with other capitals, without accents, with a letter more or less, and within other words. */
function texts(keys: readonly string[], literals: Literals): string[] {
  const words = [...new Set([...keys, ...literals].map((text) => text.replace(/\s+/g, ' ').trim()))].filter(Boolean)
  const full = words
    .slice(0, 24)
    .flatMap((text) => [
      text,
      text.toUpperCase(),
      text.toLowerCase(),
      withoutAccents(text),
      `${text}x`,
      `x${text}`,
      `so ${text} there`,
      text.slice(0, -1),
    ])
  return [...new Set(['', ...full, ...words, 'zzz'].map((text) => text.trim().slice(0, 400)))]
}

function typed(question: Of<'number'> | Of<'text'>, literals: Literals): string[] {
  if (question.kind === 'text')
    return texts(
      question.body.answers.map(({ text }) => text),
      literals,
    )
  const { style, unit, unitAsked } = question.body
  return numbers(question.body, literals).map((text) =>
    text === '' ? '' : `${style === 'comma' ? text.replace('.', ',') : text}${unitAsked ? ` ${unit}` : ''}`,
  )
}

/** The key, what differs from it in one gap, each gap alone, and all of them wrong. */
function gaps({ gaps: all }: Of<'gaps'>['body'], literals: Literals): Record<string, string>[] {
  const given = all.map((gap) => ({
    id: gap.id,
    right: rightIn(gap),
    tries:
      gap.as === 'list'
        ? gap.body.options.map(({ id }) => id)
        : typed({ kind: gap.as, body: gap.body } as Of<'number'>, literals),
  }))
  const key = Object.fromEntries(given.map(({ id, right }) => [id, right]))
  const limit = Math.max(3, Math.min(7, Math.floor(most / Math.max(1, all.length))))
  return [
    key,
    {},
    ...given.map(({ id, right }) => ({ [id]: right })),
    ...given.flatMap(({ id, tries }) => tries.slice(0, limit).map((text) => ({ ...key, [id]: text }))),
    Object.fromEntries(given.map(({ id, tries, right }) => [id, tries.find((text) => text && text !== right) ?? ''])),
  ]
}

type Gap = Of<'gaps'>['body']['gaps'][number]
function rightIn(gap: Gap): string {
  if (gap.as === 'list') return gap.body.options.find(({ credit }) => credit === 1)?.id ?? ''
  const full = gap.body.answers.find(({ credit }) => credit === 1)
  if (!full) return ''
  if ('text' in full) return full.text
  const { style, unit, unitAsked } = gap.body as Of<'number'>['body']
  return `${style === 'comma' ? full.value.replace('.', ',') : full.value}${unitAsked ? ` ${unit}` : ''}`
}

/** Pairs and ticks add up one by one: so many of them are tried each by itself. */
const mostCells = 200

/** The key, all but one, each alone, all turned round; then every wrong pair: beside what it leaves of the key, and alone. */
function pairs({ kind, body }: Of<'matching'> | Of<'sorting'>): Record<string, string>[] {
  type Pair = readonly [item: string, target: string]
  const targets = body.targets.map(({ id }) => id)
  const key = body.items.flatMap(({ id, target }): Pair[] => (target === null ? [] : [[id, target]]))
  const wrong = body.items.flatMap(({ id, target }) =>
    targets.flatMap((each): Pair[] => (each === target ? [] : [[id, each]])),
  )
  const beside = ([item, target]: Pair): Pair[] =>
    key.filter(([id, taken]) => id !== item && (kind === 'sorting' || taken !== target))
  // So many at once as there are targets: in a matching each takes one.
  const windows = kind === 'sorting' ? [body.items] : inTurn(body.items, targets.length)
  const turned = windows.flatMap((items) =>
    targets.map((_, by) => items.map(({ id }, i): Pair => [id, targets[(i + by) % targets.length]!])),
  )
  return [
    key,
    [],
    ...key.map(([item]) => key.filter(([id]) => id !== item)),
    ...key.map((each) => [each]),
    ...spread(turned),
    ...spread([...wrong.map((each) => [...beside(each), each]), ...wrong.map((each) => [each])], mostCells),
  ].map((each) => Object.fromEntries(each))
}

const inTurn = <T>(all: readonly T[], n: number): T[][] =>
  Array.from({ length: Math.ceil(all.length / Math.max(1, n)) }, (_, i) => all.slice(i * n, (i + 1) * n))

function ticks({ rows, columns }: Of<'grid'>['body']): Record<string, string[]>[] {
  const key = Object.fromEntries(rows.map(({ id, right }) => [id, right]))
  const all = columns.map(({ id }) => id)
  const toggled = (row: string, column: string) => {
    const before = key[row]!
    return {
      ...key,
      [row]: before.includes(column) ? before.filter((each) => each !== column) : [...before, column],
    }
  }
  return [
    key,
    {},
    Object.fromEntries(rows.map(({ id }) => [id, all])),
    Object.fromEntries(rows.map(({ id, right }) => [id, all.filter((column) => !right.includes(column))])),
    ...rows.map(({ id, right }) => ({ [id]: right })),
    ...spread(
      [
        ...rows.flatMap(({ id }) => all.map((column) => toggled(id, column))),
        ...rows.flatMap(({ id }) => all.map((column) => ({ [id]: [column] }))),
      ],
      mostCells,
    ),
  ]
}

function orders(ids: readonly string[], random: () => Random): string[][] {
  const swapped = ids.slice(1).map((_, i) => {
    const next = [...ids]
    ;[next[i], next[i + 1]] = [next[i + 1]!, next[i]!]
    return next
  })
  return [
    [...ids],
    [...ids].reverse(),
    [...ids.slice(1), ids[0]!],
    ...swapped,
    ...Array.from({ length: 8 }, () => shuffled(ids, random())),
  ]
}

/** The middle of a region, its border, and what lies just beyond it. */
function about(shape: Shape): Point[] {
  const at = middle(shape)
  if (shape.is === 'circle')
    return [
      at,
      { x: shape.x + shape.r, y: shape.y },
      { x: shape.x + shape.r + 0.5, y: shape.y },
      { x: shape.x, y: shape.y - shape.r },
    ]
  if (shape.is === 'rectangle')
    return [
      at,
      { x: shape.x, y: shape.y },
      { x: shape.x + shape.width, y: shape.y + shape.height },
      { x: shape.x + shape.width + 0.5, y: shape.y },
    ]
  return [at, shape.points[0]!, { x: shape.points[1]!.x + 0.5, y: shape.points[1]!.y + 0.5 }]
}

function marks({ regions, by, spots, width, height }: Of<'spot'>['body'], random: () => Random): unknown[] {
  if (by === 'place')
    return sets(
      regions.map(({ id }) => id),
      regions.filter(({ right }) => right).map(({ id }) => id),
      random,
    )
      .filter((chosen) => chosen.length <= spots)
      .map((chosen) => ({ chosen }))
  const points = [...regions.flatMap(({ shape }) => about(shape)), { x: 0, y: 0 }, { x: width, y: height }].map(
    ({ x, y }) => ({ x: Math.max(0, x), y: Math.max(0, y) }),
  )
  const middles = regions.map(({ shape }) => middle(shape))
  return [
    [],
    ...points.map((at) => [at]),
    ...(spots > 1 ? [middles.slice(0, spots), [points[0]!, points[0]!], [middles[0]!, { x: 0, y: 0 }]] : []),
  ].map((each) => ({ points: each }))
}

/** Always the same, and made only where something is drawn. */
function sameRandom(): () => Random {
  let made: Random | undefined
  return () => (made ??= seededRandom('00', ['proof']))
}

/**
 * Answers over which two ways of scoring are compared: all of them where they are few; otherwise the key and what is mapped,
 * their neighbours, single changes, blanks, bounds and a sample, always the same ones.
 * @param literals what a file names beside
 */
export function answersToTry(question: Question, literals: Literals): unknown[] {
  const random = sameRandom()
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo':
      return [[], ...question.body.options.map(({ id }) => [id])].map((chosen) => ({ chosen }))
    case 'choices': {
      const { options } = question.body
      return sets(
        options.map(({ id }) => id),
        options.filter(({ right }) => right).map(({ id }) => id),
        random,
      ).map((chosen) => ({ chosen }))
    }
    case 'number':
    case 'text':
      return typed(question, literals)
        .slice(0, mostTyped)
        .map((text) => ({ text }))
    case 'gaps':
      return gaps(question.body, literals).map((each) => ({ gaps: each }))
    case 'matching':
    case 'sorting':
      return pairs(question).map((each) => ({ pairs: each }))
    case 'grid':
      return ticks(question.body).map((each) => ({ ticks: each }))
    case 'ordering':
      return orders(
        question.body.items.map(({ id }) => id),
        random,
      ).map((order) => ({ order }))
    case 'spot':
      return spread(marks(question.body, random))
    case 'written':
    case 'short':
    case 'recording':
      return []
  }
}
