/**
 * Pass marks by judges against worked figures of the modified Angoff method (Angoff 1971, in Thorndike, Educational
 * Measurement, 2nd ed.; the layout of a table of judges by items as standard-setting handbooks work it, from memory:
 * numbers of our own, sums by hand), and working times against a long simulation with another generator.
 */
import { describe, expect, it } from 'vitest'
import { judgedMark, papersOf, workingTime } from '../../core/figures'
import { personSpread, questionSpread } from '../../core/figures/working-time'
import { factsNamed, names, poolRow, questionRow, sampleContent } from '../fixtures/core'

const facts = factsNamed(names('q', 30))
const ratings = (values: (number | null)[]) =>
  new Map(values.flatMap((value, i) => (value === null ? [] : [[`q${i + 1}`, value] as const])))
const five = papersOf(sampleContent(names('q', 5).map((id) => questionRow(id))), facts)

describe('a pass mark by judges', () => {
  it('is the mean of what their ratings add up to, with s/√judges', () => {
    const judged = judgedMark(five, [
      ratings([0.9, 0.8, 0.7, 0.5, 0.4]), // 3.3
      ratings([0.8, 0.7, 0.6, 0.5, 0.3]), // 2.9
      ratings([0.95, 0.85, 0.6, 0.6, 0.4]), // 3.4
      ratings([0.85, 0.75, 0.5, 0.4, 0.3]), // 2.8
    ])!
    judged.judges.forEach((mark, i) => expect(mark).toBeCloseTo([3.3, 2.9, 3.4, 2.8][i]!, 12))
    expect(judged.points).toBeCloseTo(3.1, 12)
    expect(judged.share).toBeCloseTo(0.62, 12)
    // Deviations 0.2, −0.2, 0.3, −0.3: s² = 0.26/3; s/√4 = 0.1472.
    expect(judged.error).toBeCloseTo(Math.sqrt(0.26 / 3) / 2, 12)
  })
  it('weighs by points, and a pool’s questions by the chance to be drawn', () => {
    const papers = papersOf(
      sampleContent([questionRow('q1', { points: 3 }), poolRow('p', ['q2', 'q3', 'q4', 'q5'], 2, { points: 2 })]),
      facts,
    )
    const judged = judgedMark(papers, [ratings([0.5, 1, 1, 0, 0])])!
    expect(judged).toMatchObject({ points: 3 * 0.5 + 2 * 2 * 0.5, error: null, rated: 5, questions: 5 })
  })
  it('where a judge has left some out, they stand at the mean of the rest, and it is told how many', () => {
    const judged = judgedMark(five, [ratings([0.9, 0.7, null, null, null]), ratings([0.5, 0.5, 0.1, 0.1, 0.1])])!
    expect(judged).toMatchObject({ rated: 2, questions: 5 })
    expect(judged.judges[0]).toBeCloseTo(0.8 * 5, 12)
    expect(judged.judges[1]).toBeCloseTo(0.5 * 5, 12)
  })
  it('is none before somebody has rated', () => {
    expect(judgedMark(five, [])).toBeNull()
    expect(judgedMark(five, [ratings([])])).toBeNull()
    expect(judgedMark(papersOf(sampleContent([]), facts), [ratings([0.5])])).toBeNull()
  })
})

/** Mulberry32, another generator than Thistle's; normal values by Marsaglia's polar method instead of Box and Muller. */
function other(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}
function polar(random: () => number): number {
  for (;;) {
    const [u, v] = [2 * random() - 1, 2 * random() - 1]
    const s = u * u + v * v
    if (s > 0 && s < 1) return u * Math.sqrt((-2 * Math.log(s)) / s)
  }
}

describe('working time', () => {
  it('agrees with a simulation ten times as long', () => {
    const seconds = [30, 45, 60, 60, 90, 120, 20, 40, 75, 180, 60, 30]
    const medians = factsNamed(names('q', 12), (i) => ({ seconds: seconds[i]! }))
    const told = workingTime(sampleContent(names('q', 12).map((id) => questionRow(id))), medians)!
    const random = other(20_301)
    const times = Array.from({ length: 40_000 }, () => {
      const paper = seconds.reduce((all, median) => all + median * Math.exp(questionSpread * polar(random)), 0)
      return paper * Math.exp(personSpread * polar(random))
    }).sort((a, b) => a - b)
    expect(told.median / times[20_000]!).toBeCloseTo(1, 1)
    expect(Math.abs(told.median / times[20_000]! - 1)).toBeLessThan(0.02)
    expect(Math.abs(told.ninety / times[36_000]! - 1)).toBeLessThan(0.02)
  })
  it('one question has its own median, and a ninetieth percentile of e^(1.2816·√(σ² + τ²))', () => {
    const told = workingTime(sampleContent([questionRow('q1')]), facts, 40_000)!
    expect(Math.abs(told.median / 60 - 1)).toBeLessThan(0.02)
    const ninety = Math.exp(1.2815516 * Math.hypot(questionSpread, personSpread))
    expect(Math.abs(told.ninety / 60 / ninety - 1)).toBeLessThan(0.02)
  })
  it('a pool takes what it draws, and the same time each time it is asked', () => {
    const content = sampleContent([poolRow('p', names('q', 20), 5)])
    expect(workingTime(content, facts)).toEqual(workingTime(content, facts))
    expect(workingTime(content, facts)!.median).toBeGreaterThan(5 * 60)
    expect(workingTime(sampleContent([]), facts)).toBeNull()
  })
})
