import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Chances } from '../../kit/chances'
import { meanOf } from '../../kit/chances'
import { exact } from '../../kit/exact'
import { choice } from './choice'
import { choices, type ChoicesBody } from './choices'
import { gaps, type GapsBody } from './gaps'
import { grid, type GridBody } from './grid'
import { kinds } from './index'
import { number } from './number'
import { ordering, type OrderingBody } from './ordering'
import { matching, sorting } from './pairs'
import type { PairsBody } from './pairs-score'
import { spot, type SpotBody } from './spot'

/** Every complete answer scored, each as likely as any other: what `guesses` has to say, by exhaustion. */
function tally(fractions: { valueOf: () => number }[]): Map<string, number> {
  const found = new Map<string, number>()
  for (const each of fractions) {
    const key = each.valueOf().toFixed(9)
    found.set(key, (found.get(key) ?? 0) + 1 / fractions.length)
  }
  return found
}
function expectSame(guesses: Chances, truth: Map<string, number>): void {
  const told = new Map(guesses.map(({ value, chance }) => [exact(value).valueOf().toFixed(9), chance]))
  expect([...told.keys()].sort()).toEqual([...truth.keys()].sort())
  for (const [key, chance] of truth) expect(told.get(key)).toBeCloseTo(chance, 9)
}

const ids = (n: number) => Array.from({ length: n }, (_, i) => `o${i}`)
const subsets = <T>(members: T[]): T[][] =>
  members.reduce<T[][]>((all, member) => [...all, ...all.map((set) => [...set, member])], [[]])
const sequences = <T>(members: readonly T[], n: number): T[][] =>
  n === 0 ? [[]] : sequences(members, n - 1).flatMap((rest) => members.map((member) => [...rest, member]))
const option = (id: string) => ({ id, html: id, comment: '', fixed: false })
const hundredths = (low: number, high: number) => fc.integer({ min: low, max: high }).map((n) => n / 100)

describe('guesses', () => {
  it('of a choice are its credits', () => {
    const body = { options: ids(4).map((id, i) => ({ ...option(id), credit: [1, 0.5, 0, -0.25][i]! })) }
    expect(choice.guesses({ ...body, inOrder: false, layout: 'list' })).toEqual(
      ['-1/4', '0', '1/2', '1'].map((value) => ({ value, chance: 0.25 })),
    )
  })
  it('of choices are those of every set of options, whatever the rule', () => {
    const bodies = fc.record({
      options: fc
        .integer({ min: 2, max: 6 })
        .chain((n) =>
          fc.tuple(
            ...ids(n).map((id) =>
              fc
                .record({ right: fc.boolean(), credit: hundredths(-120, 120) })
                .map((each) => ({ ...option(id), ...each })),
            ),
          ),
        ),
      rule: fc.constantFrom('all' as const, 'share' as const, 'credits' as const),
      lower: hundredths(-200, 0),
      upper: fc.option(hundredths(1, 200)),
      tellHowMany: fc.boolean(),
    })
    fc.assert(
      fc.property(bodies, (drawn) => {
        const body = { ...drawn, inOrder: false, layout: 'list' } as ChoicesBody
        fc.pre(body.options.some(({ right }) => right))
        const told = body.options.filter(({ right }) => right).length
        const answers = subsets(body.options.map(({ id }) => id)).filter((set) =>
          body.tellHowMany ? set.length === told : set.length > 0,
        )
        expectSame(choices.guesses(body), tally(answers.map((chosen) => choices.score(body, { chosen }).fraction)))
      }),
      { numRuns: 300 },
    )
  })
  it('of an ordering are those of every order', () => {
    for (const rule of ['exact', 'places', 'neighbours', 'moves'] as const)
      for (const n of [2, 3, 5, 6]) {
        const body: OrderingBody = { items: ids(n), rule, layout: 'list' } as never
        const whole = { ...body, items: ids(n).map(option) } as OrderingBody
        const orders = sequences(ids(n), n).filter((order) => new Set(order).size === n)
        expectSame(ordering.guesses(whole), tally(orders.map((order) => ordering.score(whole, { order }).fraction)))
      }
  })
  const pairs = fc
    .tuple(
      fc.integer({ min: 2, max: 4 }),
      fc.integer({ min: 2, max: 4 }),
      fc.constantFrom(0, 0.25, 1),
      fc.constantFrom('share' as const, 'credits' as const, 'all' as const),
      fc.array(fc.constantFrom(1, 0.5, 2.25), { minLength: 4, maxLength: 4 }),
      // Of each pair; null where it is not named.
      fc.array(fc.option(fc.oneof(hundredths(-120, 120), fc.constantFrom(1, -1, 0.5)), { freq: 2 }), {
        minLength: 16,
        maxLength: 16,
      }),
      fc.record({
        lower: fc.oneof(fc.constant(0), hundredths(-200, 0)),
        upper: fc.option(hundredths(1, 200)),
      }),
    )
    .chain(([n, m, wrongCost, rule, weights, credits, bounds]) =>
      fc.tuple(
        fc.constant({ n, m, wrongCost, rule, weights, credits, bounds }),
        fc.array(fc.option(fc.integer({ min: 0, max: m - 1 })), { minLength: n, maxLength: n }),
      ),
    )
  interface Drawn {
    n: number
    m: number
    wrongCost: number
    rule: PairsBody['rule']
    weights: number[]
    credits: (number | null)[]
    bounds: { lower: number; upper: number | null }
  }
  const bodyOf = (
    { n, m, wrongCost, rule, weights, credits, bounds }: Drawn,
    targets: (number | null)[],
  ): PairsBody => ({
    items: ids(n).map((id, i) => ({
      id,
      html: id,
      comment: '',
      target: targets[i] === null ? null : `t${targets[i]}`,
      weight: weights[i]!,
      credits: Object.fromEntries(
        Array.from({ length: m }, (_, j) => [`t${j}`, credits[i * 4 + j]] as const).flatMap(([to, credit]) =>
          credit === null || credit === undefined ? [] : [[to, credit]],
        ),
      ),
    })),
    targets: Array.from({ length: m }, (_, i) => ({ id: `t${i}`, html: `t${i}` })),
    rule,
    wrongCost,
    ...bounds,
  })
  it('of a matching are those of every way to make as many pairs as can be made', () => {
    fc.assert(
      fc.property(pairs, ([drawn, targets]) => {
        const { n, m } = drawn
        const used = targets.filter((target) => target !== null)
        fc.pre(new Set(used).size === used.length && used.length > 0)
        const body = bodyOf(drawn, targets)
        const answers = sequences([...body.targets.map(({ id }) => id), ''], n).filter((to) => {
          const taken = to.filter(Boolean)
          return taken.length === Math.min(n, m) && new Set(taken).size === taken.length
        })
        const given = answers.map((to) => ({
          pairs: Object.fromEntries(to.flatMap((target, i) => (target ? [[`o${i}`, target]] : []))),
        }))
        expectSame(matching.guesses(body), tally(given.map((answer) => matching.score(body, answer).fraction)))
      }),
      { numRuns: 200 },
    )
  })
  it('of a sorting are those of every way to put the things', () => {
    fc.assert(
      fc.property(pairs, ([drawn, targets]) => {
        const { n } = drawn
        const body = bodyOf(drawn, targets)
        const groups = body.targets.map(({ id }) => id)
        const answers = sequences(targets.includes(null) ? [...groups, ''] : groups, n).map((to) => ({
          pairs: Object.fromEntries(to.flatMap((target, i) => (target ? [[`o${i}`, target]] : []))),
        }))
        expectSame(sorting.guesses(body), tally(answers.map((answer) => sorting.score(body, answer).fraction)))
      }),
      { numRuns: 200 },
    )
  })
  it('of a matching by credits with six and seven are those of all 5,040 ways', () => {
    for (const [n, m] of [
      [6, 7],
      [7, 6],
    ] as const) {
      const body: PairsBody = {
        ...matching.blank(),
        rule: 'credits',
        lower: -1,
        upper: 4.5,
        wrongCost: 0.25,
        items: ids(n).map((id, i) => ({
          ...option(id),
          target: i < 6 ? `o${i}` : null,
          credits: { ...(i < 6 ? { [`o${i}`]: 1 + (i % 3) / 4 } : {}), [`o${(i + 2) % m}`]: i % 2 ? -1.5 : 0.5 },
        })),
        targets: ids(m).map(option),
      }
      const place = (i: number, taken: string[], skipped: number): string[][] =>
        i === n
          ? [taken]
          : [
              ...ids(m).flatMap((to) => (taken.includes(to) ? [] : place(i + 1, [...taken, to], skipped))),
              ...(skipped < n - m ? place(i + 1, [...taken, ''], skipped + 1) : []),
            ]
      const scores = place(0, [], 0).map((to) => {
        const pairs = Object.fromEntries(to.flatMap((target, i) => (target ? [[`o${i}`, target]] : [])))
        return matching.score(body, { pairs }).fraction
      })
      expect(scores).toHaveLength(5040)
      expectSame(matching.guesses(body), tally(scores))
    }
  })
  it('of a grid are those of every set of ticks but none', () => {
    const bodies = fc.record({
      n: fc.integer({ min: 1, max: 3 }),
      m: fc.integer({ min: 2, max: 3 }),
      rule: fc.constantFrom(...(['share', 'rows', 'all', 'credits', 'credits'] as const)),
      wrongCost: fc.constantFrom(0, 0.25, 1),
      right: fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }),
      credits: fc.array(fc.option(fc.oneof(hundredths(-120, 120), fc.constantFrom(1, -1, 0.5))), {
        minLength: 9,
        maxLength: 9,
      }),
      lower: fc.oneof(fc.constant(0), hundredths(-200, 0)),
      upper: fc.option(hundredths(1, 200)),
    })
    fc.assert(
      fc.property(bodies, ({ n, m, right, credits, ...rules }) => {
        const columns = ids(m)
        const body: GridBody = {
          ...rules,
          inOrder: false,
          columns: columns.map((id) => ({ id, html: id })),
          rows: Array.from({ length: n }, (_, i) => ({
            id: `r${i}`,
            html: `r${i}`,
            comment: '',
            right: columns.filter((_, j) => right[i * 3 + j]),
            credits: Object.fromEntries(
              columns.flatMap((id, j) => (credits[i * 3 + j] === null ? [] : [[id, credits[i * 3 + j]!]])),
            ),
          })),
        }
        const boxes = body.rows.flatMap((row) => columns.map((column) => [row.id, column] as const))
        const answers = subsets(boxes).filter((set) => set.length)
        const ticks = answers.map((set) =>
          Object.fromEntries(body.rows.map(({ id }) => [id, set.flatMap(([row, to]) => (row === id ? [to] : []))])),
        )
        expectSame(grid.guesses(body), tally(ticks.map((each) => grid.score(body, { ticks: each }).fraction)))
      }),
      { numRuns: 200 },
    )
  })
  const square = (id: string, x: number, size: number, right: boolean): SpotBody['regions'][number] => ({
    id,
    shape: { is: 'rectangle', x, y: 0, width: size, height: 100 },
    right,
    label: id,
    comment: '',
  })
  const picture = { picture: '/media/p', alt: 'p', width: 100, height: 100 }
  it('of named places are those of every selection', () => {
    const plain = [1, 2, 3, 4, 5].map((i) => square(`o${i}`, i * 10, 5, i < 3))
    const graded = plain.map((region, i) => (i % 2 ? { ...region, credit: [0.5, -0.25][(i - 1) / 2]! } : region))
    for (const [spots, rule, regions] of [
      [1, 'share', plain],
      [2, 'share', plain],
      [2, 'all', plain],
      [1, 'share', graded],
      [3, 'share', graded],
    ] as const) {
      const body: SpotBody = { ...picture, regions: [...regions], by: 'place', spots, rule, wrongCost: 0.5 }
      const answers = subsets(regions.map(({ id }) => id)).filter((set) => set.length === spots)
      expectSame(spot.guesses(body), tally(answers.map((chosen) => spot.score(body, { chosen }).fraction)))
    }
  })
  it('of points on a picture follow the areas', () => {
    const regions = [square('a', 0, 25, true), square('b', 50, 20, true)]
    const one: SpotBody = { ...picture, regions: [regions[0]!], by: 'point', spots: 1, rule: 'share', wrongCost: 0 }
    expect(meanOf(spot.guesses(one))).toBeCloseTo(0.25, 9)
    const two: SpotBody = { ...picture, regions, by: 'point', spots: 2, rule: 'share', wrongCost: 0.5 }
    // Both hit: 2·¼·⅕. One hit: twice the same region, or one region and one miss, which costs half a place.
    const both = 2 * 0.25 * 0.2
    const same = 0.25 ** 2 + 0.2 ** 2
    const mixed = 2 * 0.45 * 0.55
    const told = new Map(spot.guesses(two).map(({ value, chance }) => [value, chance]))
    expect(told.get('1')).toBeCloseTo(both, 9)
    expect(told.get('1/2')).toBeCloseTo(same, 9)
    expect(told.get('1/4')).toBeCloseTo(mixed, 9)
    expect(told.get('0')).toBeCloseTo(0.55 ** 2, 9)
  })
  it('of rings around a middle: the point goes to the first that holds it', () => {
    const ring = (id: string, x: number, size: number, credit: number) => ({
      ...square(id, x, size, credit === 1),
      credit,
    })
    const rings: SpotBody = {
      ...picture,
      regions: [ring('a', 40, 10, 1), ring('b', 30, 30, 0.5)],
      by: 'point',
      spots: 1,
      rule: 'share',
      wrongCost: 0,
    }
    const at = (x: number, y: number) => String(spot.score(rings, { points: [{ x, y }] }).fraction.valueOf())
    const middle = rings.regions[0]!.shape as { x: number; y: number }
    expect([
      at(middle.x, middle.y),
      at(32, rings.regions[1]!.shape.is === 'rectangle' ? rings.regions[1]!.shape.y : 0),
      at(0, 0),
    ]).toEqual(['1', '0.5', '0'])
    const chances = new Map(spot.guesses(rings).map(({ value, chance }) => [value, chance]))
    expect([...chances.values()].reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
    expect(chances.get('1')! + chances.get('1/2')!).toBeLessThan(0.31)
  })
  it('of gaps add up over lists, and what is typed earns nothing', () => {
    const list = (id: string, k: number, weight: number, wrong: number): GapsBody['gaps'][number] => ({
      id,
      weight,
      as: 'list',
      body: {
        options: ids(k).map((each, i) => ({ ...option(each), credit: i ? wrong : 1 })),
        inOrder: false,
        layout: 'list',
      },
    })
    const typed: GapsBody['gaps'][number] = { id: 'n', weight: 1, as: 'number', body: number.blank() }
    const body: GapsBody = { text: '', gaps: [list('a', 3, 2, -0.5), list('b', 2, 1, 0), typed], rule: 'share' }
    const answers = sequences(ids(3), 1).flatMap(([a]) => ids(2).map((b) => ({ gaps: { a: a!, b } })))
    expectSame(gaps.guesses(body), tally(answers.map((answer) => gaps.score(body, answer).fraction)))
    const whole: GapsBody = { ...body, gaps: body.gaps.slice(0, 2), rule: 'all' }
    expectSame(gaps.guesses(whole), tally(answers.map((answer) => gaps.score(whole, answer).fraction)))
  })
  it('of every blank kind are chances that add up to 1, of shares that can be earned', () => {
    for (const kind of Object.values(kinds)) {
      const guesses = kind.guesses(kind.blank() as never)
      expect(guesses.reduce((all, { chance }) => all + chance, 0)).toBeCloseTo(1, 9)
      for (const { value } of guesses) expect(Math.abs(exact(value).valueOf())).toBeLessThanOrEqual(1)
    }
  })
  it('of forty lists with weights of their own, of thirty credits, and of hundreds of pairs, take no time', () => {
    const many: GapsBody = {
      text: '',
      rule: 'share',
      gaps: ids(40).map((id, i) => ({
        id,
        weight: 1 + i / 100,
        as: 'list',
        body: {
          options: ids(4).map((each, j) => ({ ...option(each), credit: [1, 0.31, 0, -0.17][j]! })),
          inOrder: false,
          layout: 'list',
        },
      })),
    }
    const body: ChoicesBody = {
      ...choices.blank(),
      rule: 'credits',
      tellHowMany: true,
      options: ids(30).map((id, i) => ({ ...option(id), right: i < 15, credit: (i < 15 ? 1 : -1) * (1 + i * 0.29) })),
    }
    const odd = (i: number, j: number) => (i % 10 === j ? 9.97 : -((i * 7 + j * 13) % 97) / 9.7).toFixed(2)
    const credits = (i: number, m: number) => Object.fromEntries(ids(m).map((id, j) => [id, Number(odd(i, j))]))
    const pairsOf = (n: number, m: number): PairsBody => ({
      ...matching.blank(),
      rule: 'credits',
      lower: -100,
      items: ids(n).map((id, i) => ({ ...option(id), target: i < m ? `o${i}` : null, credits: credits(i, m) })),
      targets: ids(m).map(option),
    })
    const ticked: GridBody = {
      ...grid.blank(),
      rule: 'credits',
      lower: -100,
      columns: ids(12).map(option),
      rows: ids(40).map((id, i) => ({ ...option(id), right: [`o${i % 10}`], credits: credits(i, 12) })),
    }
    const began = performance.now()
    const ways = {
      gaps: () => gaps.guesses(many),
      choices: () => choices.guesses(body),
      matching: () => matching.guesses(pairsOf(20, 10)),
      sorting: () => sorting.guesses(pairsOf(40, 40)),
      grid: () => grid.guesses(ticked),
    }
    for (const [name, way] of Object.entries(ways)) {
      const before = process.cpuUsage()
      expect(way().reduce((all, { chance }) => all + chance, 0)).toBeCloseTo(1, 6)
      // A question is written while others wait: the processor's own time, whatever else it does.
      expect(process.cpuUsage(before).user / 1000, name).toBeLessThan(name === 'gaps' ? 2000 : 400)
    }
    expect(performance.now() - began).toBeLessThan(8000)
  })
})
