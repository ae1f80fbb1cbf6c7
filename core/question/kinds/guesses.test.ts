import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Chances } from '../../kit/chances'
import { meanOf } from '../../kit/chances'
import { exact } from '../../kit/exact'
import { choice } from './choice'
import { choices, type ChoicesBody } from './choices'
import { gaps, type GapsBody } from './gaps'
import { kinds } from './index'
import { number } from './number'
import { ordering, type OrderingBody } from './ordering'
import { matching, sorting, type PairsBody } from './pairs'
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
    for (const rule of ['exact', 'neighbours', 'moves'] as const)
      for (const n of [2, 3, 5, 6]) {
        const body: OrderingBody = { items: ids(n), rule, layout: 'list' } as never
        const whole = { ...body, items: ids(n).map(option) } as OrderingBody
        const orders = sequences(ids(n), n).filter((order) => new Set(order).size === n)
        expectSame(ordering.guesses(whole), tally(orders.map((order) => ordering.score(whole, { order }).fraction)))
      }
  })
  const pairs = fc
    .tuple(fc.integer({ min: 2, max: 4 }), fc.integer({ min: 2, max: 4 }), fc.constantFrom(0, 0.25, 1))
    .chain(([n, m, wrongCost]) =>
      fc.tuple(
        fc.constant({ n, m, wrongCost }),
        fc.array(fc.option(fc.integer({ min: 0, max: m - 1 })), { minLength: n, maxLength: n }),
      ),
    )
  const bodyOf = (n: number, m: number, wrongCost: number, targets: (number | null)[]): PairsBody => ({
    items: ids(n).map((id, i) => ({
      id,
      html: id,
      comment: '',
      target: targets[i] === null ? null : `t${targets[i]}`,
    })),
    targets: Array.from({ length: m }, (_, i) => ({ id: `t${i}`, html: `t${i}` })),
    wrongCost,
  })
  it('of a matching are those of every way to make as many pairs as can be made', () => {
    fc.assert(
      fc.property(pairs, ([{ n, m, wrongCost }, targets]) => {
        const used = targets.filter((target) => target !== null)
        fc.pre(new Set(used).size === used.length && used.length > 0)
        const body = bodyOf(n, m, wrongCost, targets)
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
      fc.property(pairs, ([{ n, m, wrongCost }, targets]) => {
        const body = bodyOf(n, m, wrongCost, targets)
        const groups = body.targets.map(({ id }) => id)
        const answers = sequences(targets.includes(null) ? [...groups, ''] : groups, n).map((to) => ({
          pairs: Object.fromEntries(to.flatMap((target, i) => (target ? [[`o${i}`, target]] : []))),
        }))
        expectSame(sorting.guesses(body), tally(answers.map((answer) => sorting.score(body, answer).fraction)))
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
    const regions = [1, 2, 3, 4, 5].map((i) => square(`o${i}`, i * 10, 5, i < 3))
    for (const spots of [1, 2]) {
      const body: SpotBody = { ...picture, regions, by: 'place', spots, wrongCost: 0.5 }
      const answers = subsets(regions.map(({ id }) => id)).filter((set) => set.length === spots)
      expectSame(spot.guesses(body), tally(answers.map((chosen) => spot.score(body, { chosen }).fraction)))
    }
  })
  it('of points on a picture follow the areas', () => {
    const regions = [square('a', 0, 25, true), square('b', 50, 20, true)]
    const one: SpotBody = { ...picture, regions: [regions[0]!], by: 'point', spots: 1, wrongCost: 0 }
    expect(meanOf(spot.guesses(one))).toBeCloseTo(0.25, 9)
    const two: SpotBody = { ...picture, regions, by: 'point', spots: 2, wrongCost: 0.5 }
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
    const body: GapsBody = { text: '', gaps: [list('a', 3, 2, -0.5), list('b', 2, 1, 0), typed] }
    const answers = sequences(ids(3), 1).flatMap(([a]) => ids(2).map((b) => ({ gaps: { a: a!, b } })))
    expectSame(gaps.guesses(body), tally(answers.map((answer) => gaps.score(body, answer).fraction)))
  })
  it('of every blank kind are chances that add up to 1, of shares that can be earned', () => {
    for (const kind of Object.values(kinds)) {
      const guesses = kind.guesses(kind.blank() as never)
      expect(guesses.reduce((all, { chance }) => all + chance, 0)).toBeCloseTo(1, 9)
      for (const { value } of guesses) expect(Math.abs(exact(value).valueOf())).toBeLessThanOrEqual(1)
    }
  })
  it('of forty lists with weights of their own, and of thirty credits, take no time', () => {
    const many: GapsBody = {
      text: '',
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
    const began = performance.now()
    for (const guesses of [gaps.guesses(many), choices.guesses(body)])
      expect(guesses.reduce((all, { chance }) => all + chance, 0)).toBeCloseTo(1, 6)
    expect(performance.now() - began).toBeLessThan(8000)
  })
})
