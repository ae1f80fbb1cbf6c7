/**
 * Sharing and coverage against the hypergeometric distribution: jStat's `hypgeom`, and the closed forms of its mean
 * n²/N and support (Johnson, Kemp & Kotz, Univariate Discrete Distributions, 3rd ed. 2005, chapter 6; from memory).
 */
import jstat from 'jstat'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { drawnBounds, figuresFor as allFigures, powerOfTen } from '../../core/figures'
import { choose } from '../../core/kit/counting'
import { compilePaper } from '../../core/paper'
import { usualRules, type Content } from '../../core/quiz'
import { factsNamed, names, poolRow, questionRow, sampleContent, sampleEdition } from '../fixtures/core'

const facts = factsNamed(names('q', 40), (i) => ({ objectives: [i % 3 === 0 ? 'o1' : 'o2'] }))
const figuresFor = (content: Content) => allFigures(content, usualRules, facts)

describe('sharing', () => {
  it.each([
    [4, 11],
    [5, 38],
    [3, 7],
    [2, 3],
  ])('two papers that draw %i of %i share n²/N on average', (n, N) => {
    const { shared } = figuresFor(sampleContent([poolRow('p', names('q', N), n)]))
    expect(shared).toBeCloseTo((n * n) / N, 10)
    expect(shared).toBeCloseTo(
      Array.from({ length: n + 1 }, (_, k) => k * jstat.jStat.hypgeom.pdf(k, N, n, n)).reduce((a, b) => a + b),
      8,
    )
  })
  it('fixed rows are shared always, and what they claim leaves the pool', () => {
    const { shared } = figuresFor(
      sampleContent([questionRow('q1'), questionRow('q2'), poolRow('p', names('q', 10), 4)]),
    )
    expect(shared).toBeCloseTo(2 + 16 / 8, 10)
  })
  it('is what compiled papers really share', () => {
    const edition = sampleEdition(
      sampleContent([questionRow('q40'), poolRow('p', names('q', 11), 4), poolRow('r', names('q', 30).slice(15), 5)]),
    )
    const papers = names('s', 300).map(
      (student) => new Set(compilePaper(edition, student, 1, []).items.map((item) => item.question)),
    )
    let total = 0
    for (let i = 1; i < papers.length; i++)
      total += [...papers[i]!].filter((question) => papers[i - 1]!.has(question)).length
    expect(total / 299).toBeCloseTo(figuresFor(edition.content).shared, 0)
  })
  it('pools that overlap are simulated, and said to be about', () => {
    const figures = figuresFor(
      sampleContent([poolRow('a', names('q', 8), 3), poolRow('b', names('q', 12).slice(4), 3)]),
    )
    expect(figures).toMatchObject({ about: true, papers: null })
    expect(figures.shared).toBeGreaterThan(2)
    expect(figures.shared).toBeLessThan(4)
  })
})

describe('coverage', () => {
  it('bounds are the ends of the hypergeometric support', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 25 }), fc.nat(25), fc.nat(25), (N, a, b) => {
        const [n, c] = [a % (N + 1), b % (N + 1)]
        const { atLeast, atMost } = drawnBounds(n, N, c)
        const possible = Array.from({ length: n + 1 }, (_, k) => k).filter(
          (k) => choose(c, k) * choose(N - c, n - k) > 0n,
        )
        expect([atLeast, atMost]).toEqual([possible[0], possible.at(-1)])
      }),
    )
  })
  it('every compiled paper keeps to what is promised', () => {
    const content = sampleContent([
      questionRow('q1'),
      poolRow('p', names('q', 12), 7),
      poolRow('r', names('q', 30).slice(20), 3),
    ])
    const { coverage } = figuresFor(content)
    for (const student of names('s', 200)) {
      const { items } = compilePaper(sampleEdition(content), student, 1, [])
      for (const { objective, atLeast, atMost } of coverage) {
        const has = items.filter((item) => facts.get(item.question)!.objectives.includes(objective)).length
        expect(has).toBeGreaterThanOrEqual(atLeast)
        expect(has).toBeLessThanOrEqual(atMost)
      }
    }
  })
})

describe('the number of different sets', () => {
  it('is the product of binomials for disjoint pools', () => {
    expect(
      figuresFor(sampleContent([poolRow('a', names('q', 11), 4), poolRow('b', names('q', 18).slice(11), 3)])).papers,
    ).toBe(powerOfTen(330n * 35n))
  })
  it('is written as a power of ten', () => {
    expect([powerOfTen(330n), powerOfTen(11_550n), powerOfTen(choose(100, 50))]).toEqual([
      '330',
      '1.2 × 10⁴',
      '1.0 × 10²⁹',
    ])
  })
})
