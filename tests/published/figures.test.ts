/**
 * Guessing, forecast, spread and draws against binomial and hypergeometric distributions (jStat; the values of R's
 * dbinom(0:10, 10, 0.25) from memory), against exhaustive enumeration of small quizzes, and against Cochran's formula
 * (Sampling Techniques, 3rd ed. 1977, theorem 2.2) by enumerating every draw.
 */
import fc from 'fast-check'
import jstat from 'jstat'
import { describe, expect, it } from 'vitest'
import { facilityOf, figuresFor, papersOf, type QuestionFacts } from '../../core/figures'
import { drawMoments, paperSpread, usuallyExpected } from '../../core/figures/moments'
import { unspread } from '../../core/figures/papers'
import { lineOf } from '../../core/figures/totals'
import { exact } from '../../core/kit/exact'
import { usualRules, type Content, type Rules } from '../../core/quiz'
import { factsNamed, names, poolRow, questionRow, sampleContent } from '../fixtures/core'

const passAt = (percent: number, over: Partial<Rules> = {}): Rules => ({
  ...usualRules,
  grade: {
    method: 'highest',
    decimals: 1,
    pass: { by: 'percent', value: percent },
    scale: { by: 'percent' },
    sections: [],
  },
  ...over,
})
const fixedRows = (n: number) => sampleContent(names('q', n).map((id) => questionRow(id)))
const subsets = <T>(members: readonly T[], n: number): T[][] =>
  n === 0 ? [[]] : members.flatMap((member, i) => subsets(members.slice(i + 1), n - 1).map((rest) => [member, ...rest]))
const sum = (values: number[]) => values.reduce((a, b) => a + b, 0)

describe('guessing', () => {
  it('ten choices of four are binomial: R’s dbinom(0:10, 10, 0.25)', () => {
    const dbinom = [
      0.0563135147, 0.1877117157, 0.2815675735, 0.2502822876, 0.1459980011, 0.0583992004, 0.0162220001, 0.0030899048,
      0.0003862381, 0.0000286102, 0.0000009537,
    ]
    const facts = factsNamed(names('q', 10))
    const { chances, low, cells, error } = lineOf(
      papersOf(fixedRows(10), facts),
      null,
      ({ question }) => facts.get(question)!.guesses,
    )
    expect({ low, cells, error, n: chances.length }).toEqual({ low: 0, cells: 1, error: 0, n: 11 })
    dbinom.forEach((chance, k) => expect(chances[k]).toBeCloseTo(chance, 9))
  })
  it.each([
    [60, 6],
    [55, 6],
    [50.05, 6],
    [50, 5],
    [100, 10],
    [0, 0],
  ])('to pass at %s percent of ten takes %i right', (percent, right) => {
    const { guessing } = figuresFor(fixedRows(10), passAt(percent), factsNamed(names('q', 10)))
    const tail = right === 0 ? 1 : 1 - jstat.jStat.binomial.cdf(right - 1, 10, 0.25)
    expect(guessing.passes).toBeCloseTo(tail, 9)
    expect(guessing.mean).toBeCloseTo(0.25, 9)
  })
  it('follows what is displayed: 59.95 % reads 60.0 % and passes', () => {
    // 1199 of 2000 points are 59.95 %.
    const content = sampleContent([questionRow('q1', { points: 11.99 }), questionRow('q2', { points: 8.01 })])
    const sure = (i: number): Partial<QuestionFacts> => ({ guesses: [{ value: i ? '0' : '1', chance: 1 }] })
    expect(figuresFor(content, passAt(60), factsNamed(names('q', 2), sure)).guessing.passes).toBe(1)
    const two = { ...passAt(60), grade: { ...passAt(60).grade, decimals: 2 } }
    expect(figuresFor(content, two, factsNamed(names('q', 2), sure)).guessing.passes).toBe(0)
  })
  it('attempts: the highest passes when one does, the lowest when all do, the first and latest as one', () => {
    const facts = factsNamed(names('q', 10))
    const once = figuresFor(fixedRows(10), passAt(50), facts).guessing.passes!
    const over = (method: Rules['grade']['method']) =>
      figuresFor(
        fixedRows(10),
        {
          ...passAt(50),
          attempts: { ...usualRules.attempts, count: 3 },
          grade: { ...passAt(50).grade, method },
        },
        facts,
      ).guessing.passes
    expect(over('highest')).toBeCloseTo(1 - (1 - once) ** 3, 9)
    expect(over('lowest')).toBeCloseTo(once ** 3, 9)
    expect(over('first')).toBeCloseTo(once, 9)
    expect(over('latest')).toBeCloseTo(once, 9)
    // Thirty guesses in all: an average of 50 % takes 15 of them.
    expect(over('average')).toBeCloseTo(1 - jstat.jStat.binomial.cdf(14, 30, 0.25), 6)
  })
  it('a further attempt that costs a fifth has to earn more', () => {
    const rules = { ...passAt(50), attempts: { ...usualRules.attempts, count: 2, cost: 20 } }
    const at = (right: number) => 1 - jstat.jStat.binomial.cdf(right - 1, 10, 0.25)
    // 0.8 · x ≥ 5 from 7 of ten.
    expect(figuresFor(fixedRows(10), rules, factsNamed(names('q', 10))).guessing.passes).toBeCloseTo(
      1 - (1 - at(5)) * (1 - at(7)),
      9,
    )
  })
  it('where handing in counts everybody passes, and where nothing does nobody, over any attempts', () => {
    const over = (counts: Rules['counts']) =>
      figuresFor(
        fixedRows(10),
        {
          ...passAt(50),
          counts,
          attempts: { ...usualRules.attempts, count: 3, cost: 20 },
          grade: { ...passAt(50).grade, method: 'average' },
        },
        factsNamed(names('q', 10)),
      ).guessing.passes
    expect(over('completion')).toBeCloseTo(1, 9)
    expect(over('nothing')).toBe(0)
  })
  it('formula scoring leaves a guesser nothing on average, but never below nought', () => {
    const content: Content = { ...fixedRows(2), wrongCost: { by: 'formula' } }
    const { guessing } = figuresFor(content, passAt(60), factsNamed(names('q', 2)))
    // 2, 1 − 1/3, or nought (where −2/3 is lifted to it): (2/16 + (6/16)·(2/3)) / 2.
    expect(guessing.mean).toBeCloseTo((2 / 16 + (6 / 16) * (2 / 3)) / 2, 9)
  })
  it('five sure and five impossible of which five are drawn are hypergeometric, not binomial', () => {
    const sure = factsNamed(names('q', 10), (i) => ({ guesses: [{ value: i < 5 ? '1' : '0', chance: 1 }] }))
    const content = sampleContent([poolRow('p', names('q', 10), 5)])
    const papers = papersOf(content, sure)
    const { chances } = lineOf(papers, null, ({ question }) => sure.get(question)!.guesses)
    for (let k = 0; k <= 5; k++) expect(chances[k]).toBeCloseTo(jstat.jStat.hypgeom.pdf(k, 10, 5, 5), 9)
    expect(figuresFor(content, passAt(80), sure).guessing.passes).toBeCloseTo((25 + 1) / 252, 9)
  })
})

/** A small quiz with unequal guesses, points, costs and pools, and all its papers. */
const quizzes = fc.record({
  fixed: fc.array(fc.constantFrom<number>(0.5, 1, 2.25), { maxLength: 3 }),
  pools: fc.array(
    fc.record({ holds: fc.integer({ min: 1, max: 5 }), draw: fc.nat(4), points: fc.constantFrom<number>(0.5, 1, 3) }),
    { maxLength: 2 },
  ),
  seeds: fc.array(fc.nat(1000), { minLength: 13, maxLength: 13 }),
  pass: fc.integer({ min: 0, max: 100 }),
  cost: fc.constantFrom('none' as const, 'formula' as const),
})
const shapes: QuestionFacts['guesses'][] = [
  [
    { value: '0', chance: 0.75 },
    { value: '1', chance: 0.25 },
  ],
  [{ value: '0', chance: 1 }],
  [
    { value: '0', chance: 1 / 3 },
    { value: '1/3', chance: 1 / 3 },
    { value: '1', chance: 1 / 3 },
  ],
  [
    { value: '-1/2', chance: 0.5 },
    { value: '1', chance: 0.5 },
  ],
]

function enumerated(drawn: typeof quizzes extends fc.Arbitrary<infer T> ? T : never) {
  let next = 0
  const id = () => `q${++next}`
  const fixed = drawn.fixed.map((points) => ({ question: id(), points }))
  const pools = drawn.pools.map(({ holds, draw, points }) => ({
    questions: Array.from({ length: holds }, id),
    draw: Math.min(holds, draw + 1),
    points,
  }))
  const facts = factsNamed(names('q', 13), (i) => {
    const shape = drawn.seeds[i]! % shapes.length
    return {
      guesses: shapes[shape]!,
      options: shape === 0 ? 4 : null,
      difficulty: (drawn.seeds[i]! % 5) + 1,
      right: drawn.seeds[i]! % 3 ? null : { share: (drawn.seeds[i]! % 11) / 10, n: 20 },
    }
  })
  const content: Content = {
    ...sampleContent([
      ...fixed.map(({ question, points }) => questionRow(question, { points })),
      ...pools.map(({ questions, draw, points }, i) => poolRow(`p${i}`, questions, draw, { points })),
    ]),
    wrongCost: { by: drawn.cost },
  }
  const papers = pools.reduce<{ question: string; points: number }[][]>(
    (all, pool) =>
      all.flatMap((paper) =>
        subsets(pool.questions, pool.draw).map((set) => [
          ...paper,
          ...set.map((question) => ({ question, points: pool.points })),
        ]),
      ),
    [fixed],
  )
  return { content, facts, papers, possible: sum(papers[0]!.map(({ points }) => points)) }
}

type Chance = { total: number; chance: number }
/** Every outcome of every question of a paper, one by one. */
function outcomes(
  paper: { question: string; points: number }[],
  of: (question: string) => [number, number][],
): Chance[] {
  return paper.reduce<Chance[]>(
    (all, { question, points }) =>
      all.flatMap(({ total, chance }) =>
        of(question).map(([share, each]) => ({ total: total + share * points, chance: chance * each })),
      ),
    [{ total: 0, chance: 1 }],
  )
}

describe('unequal items and small pools, by exhaustion', () => {
  it('guessing', () => {
    fc.assert(
      fc.property(quizzes, (drawn) => {
        const { content, facts, papers, possible } = enumerated(drawn)
        fc.pre(possible > 0 && papers[0]!.length <= 8)
        const guessed = (question: string): [number, number][] => {
          const { guesses, options } = facts.get(question)!
          return guesses.map(({ value, chance }) => {
            const share = exact(value).valueOf()
            const cost = drawn.cost === 'formula' && options && share === 0 ? 1 / (options - 1) : 0
            return [share - cost, chance]
          })
        }
        let [mean, passing] = [0, 0]
        for (const paper of papers)
          for (const { total, chance } of outcomes(paper, guessed)) {
            const share = Math.max(0, total) / possible
            mean += (share * chance) / papers.length
            if (Math.floor(share * 1000 + 0.5 + 1e-9) / 10 >= drawn.pass - 1e-9) passing += chance / papers.length
          }
        const { guessing } = figuresFor(content, passAt(drawn.pass), facts)
        expect(guessing.error).toBe(0)
        expect(guessing.mean).toBeCloseTo(mean, 9)
        expect(guessing.passes).toBeCloseTo(passing, 9)
      }),
      { numRuns: 150 },
    )
  })
  it('forecast, with the luck of the draw', () => {
    fc.assert(
      fc.property(quizzes, (drawn) => {
        const { content, facts, papers, possible } = enumerated(drawn)
        fc.pre(possible > 0 && papers[0]!.length <= 8)
        const p = (question: string) => facilityOf(facts.get(question)!)
        // Who does not know gives any answer that earns nothing or less, and pays for it where wrong answers cost.
        const earns = (question: string): [number, number][] => {
          const { guesses, options } = facts.get(question)!
          const none = guesses.filter(({ value }) => exact(value).valueOf() <= 0)
          const all = sum(none.map(({ chance }) => chance))
          return [
            [1, p(question)],
            ...none.map(({ value, chance }): [number, number] => {
              const share = exact(value).valueOf()
              const cost = drawn.cost === 'formula' && options && share === 0 ? 1 / (options - 1) : 0
              return [share - cost, ((1 - p(question)) * chance) / all]
            }),
          ]
        }
        let [mean, square] = [0, 0]
        for (const paper of papers)
          for (const { total, chance } of outcomes(paper, earns)) {
            const share = Math.max(0, total) / possible
            mean += (share * chance) / papers.length
            square += (share ** 2 * chance) / papers.length
          }
        const expected = papers.map(
          (paper) =>
            sum(
              paper.map(
                ({ question, points }) => points * sum(earns(question).map(([share, chance]) => share * chance)),
              ),
            ) / possible,
        )
        const middle = sum(expected) / expected.length
        const between = sum(expected.map((each) => (each - middle) ** 2)) / expected.length
        const means = papers.map((paper) => sum(paper.map(({ question, points }) => points * p(question))) / possible)
        const figures = figuresFor(content, passAt(60), facts)
        const forecast = figures.forecast!
        expect(forecast.mean).toBeCloseTo(mean, 9)
        expect(forecast.deviation ** 2).toBeCloseTo(square - mean ** 2, 9)
        expect(forecast.luck.deviation ** 2).toBeCloseTo(between, 9)
        expect(sum(forecast.twentieths)).toBeCloseTo(1, 9)
        expect(figures.spread!.easiest).toBeCloseTo(Math.max(...means), 9)
        expect(figures.spread!.hardest).toBeCloseTo(Math.min(...means), 9)
        expect(forecast.measured).toBe(
          [...new Set(papers.flat().map(({ question }) => question))].filter((question) => facts.get(question)!.right)
            .length,
        )
      }),
      { numRuns: 150 },
    )
  })
})

describe('draws', () => {
  it('have Cochran’s variance, as every draw shows', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 8 }),
        fc.nat(7),
        (values, k) => {
          const n = 1 + (k % values.length)
          const totals = subsets(values, n).map(sum)
          const mean = sum(totals) / totals.length
          const { mean: told, variance } = drawMoments(values, n)
          expect(told).toBeCloseTo(mean, 9)
          expect(variance).toBeCloseTo(sum(totals.map((total) => (total - mean) ** 2)) / totals.length, 9)
        },
      ),
    )
  })
  it('spread over difficulty differ less, and no question’s chance changes', () => {
    const facts = factsNamed(names('q', 12), (i) => ({ difficulty: (i % 3) * 2 + 1 }))
    const spread = papersOf(sampleContent([poolRow('p', names('q', 12), 5, { spread: 'difficulty' })]), facts)
    const [even, plain] = [
      paperSpread(spread, usuallyExpected(facts))!,
      paperSpread(unspread(spread), usuallyExpected(facts))!,
    ]
    expect(even.mean).toBeCloseTo(plain.mean, 12)
    expect(even.deviation).toBeLessThan(plain.deviation * 0.6)
    // Six of three strata of four are two of each: all papers alike.
    const six = sampleContent([poolRow('p', names('q', 12), 6, { spread: 'difficulty' })])
    expect(paperSpread(papersOf(six, facts), usuallyExpected(facts))!.deviation).toBe(0)
    expect(even.easiest - even.hardest).toBeLessThan(plain.easiest - plain.hardest)
    const included = new Map<string, number>()
    for (const { chance, draws } of spread.pools[0]!.ways)
      for (const { from, n } of draws)
        for (const { question } of from)
          included.set(question, (included.get(question) ?? 0) + (chance * n) / from.length)
    for (const chance of included.values()) expect(chance).toBeCloseTo(5 / 12, 12)
  })
})

describe('Rasch', () => {
  const logit = (b: number | null) => factsNamed(names('q', 1), () => ({ logit: b, right: { share: 0.3, n: 50 } }))
  const chanceAt = (b: number, ability: { mean: number; deviation: number }) =>
    figuresFor(fixedRows(1), passAt(60), logit(b), ability).forecast!.mean
  it('an ability at the difficulty has one half, one logit above 0.7311 (1/(1 + e⁻¹))', () => {
    expect(chanceAt(0.7, { mean: 0.7, deviation: 0 })).toBeCloseTo(0.5, 12)
    expect(chanceAt(0, { mean: 1, deviation: 0 })).toBeCloseTo(0.731058578, 8)
  })
  it('is averaged over a normal class as a fine sum does it', () => {
    const normal = (z: number) => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)
    const step = 0.001
    let mean = 0
    for (let z = -8; z <= 8; z += step) mean += (normal(z) * step) / (1 + Math.exp(0.5 - (0.2 + 1.1 * z)))
    expect(chanceAt(0.5, { mean: 0.2, deviation: 1.1 })).toBeCloseTo(mean, 4)
  })
  it('without calibration the measured facility stands', () => {
    const { forecast } = figuresFor(fixedRows(1), passAt(60), logit(null), { mean: 3, deviation: 1 })
    expect(forecast).toMatchObject({ mean: 0.3, calibrated: 0, measured: 1 })
  })
})
