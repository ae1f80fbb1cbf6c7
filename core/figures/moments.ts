import { facilityOf, factsOf, type Facts } from './facts'
import type { Draw, Papers, Pool, Worth } from './papers'

/** How papers differ in what they ask: as shares of the points possible, from hard (low) to easy (high). */
export interface PaperSpread {
  hardest: number
  mean: number
  easiest: number
  /** Standard deviation over papers. */
  deviation: number
}

/** The points that somebody may expect of a question. */
export type Expects = (worth: Worth) => number

/** What a student of usual ability may expect. */
export const usuallyExpected =
  (facts: Facts): Expects =>
  (worth) =>
    worth.points * facilityOf(factsOf(facts, worth.question))

const total = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)

/**
 * Mean and variance over draws of the sum of n values out of N: n·mean and n·(1 − n/N)·S², S² with N − 1
 * (Cochran 1977, Sampling Techniques, theorem 2.2, for a total).
 */
export function drawMoments(values: readonly number[], n: number): { mean: number; variance: number } {
  const N = values.length
  if (!N || !n) return { mean: 0, variance: 0 }
  const mean = total(values) / N
  const s2 = N > 1 ? total(values.map((value) => (value - mean) ** 2)) / (N - 1) : 0
  return { mean: n * mean, variance: n * (1 - n / N) * s2 }
}

function extremes({ from, n }: Draw, of: (worth: Worth) => number): { least: number; most: number } {
  const sorted = from.map(of).sort((a, b) => a - b)
  return { least: total(sorted.slice(0, n)), most: total(n ? sorted.slice(-n) : []) }
}

/** Over the ways in which a pool may draw: the variance within each, and that between them. */
function ofPool({ ways }: Pool, of: (worth: Worth) => number) {
  const each = ways.map(({ chance, draws }) => {
    const moments = draws.map((draw) => drawMoments(draw.from.map(of), draw.n))
    const ends = draws.map((draw) => extremes(draw, of))
    return {
      chance,
      mean: total(moments.map((moment) => moment.mean)),
      variance: total(moments.map((moment) => moment.variance)),
      least: total(ends.map((end) => end.least)),
      most: total(ends.map((end) => end.most)),
    }
  })
  if (!each.length) return { mean: 0, variance: 0, least: 0, most: 0 }
  const mean = total(each.map((way) => way.chance * way.mean))
  return {
    mean,
    variance: total(each.map((way) => way.chance * (way.variance + (way.mean - mean) ** 2))),
    least: Math.min(...each.map((way) => way.least)),
    most: Math.max(...each.map((way) => way.most)),
  }
}

/** Points possible on every paper. */
export const possibleOf = ({ fixed, pools }: Papers): number =>
  total(fixed.map(({ points }) => points)) + total(pools.map(({ from, n }) => n * (from[0]?.points ?? 0)))

/** Easiest, usual and hardest paper, by the expected score of a student; null without points. */
export function paperSpread(papers: Papers, of: Expects): PaperSpread | null {
  const possible = possibleOf(papers)
  if (possible <= 0) return null
  const sure = total(papers.fixed.map(of))
  const pools = papers.pools.map((pool) => ofPool(pool, of))
  const share = (points: number) => points / possible
  return {
    hardest: share(sure + total(pools.map((pool) => pool.least))),
    mean: share(sure + total(pools.map((pool) => pool.mean))),
    easiest: share(sure + total(pools.map((pool) => pool.most))),
    deviation: share(Math.sqrt(total(pools.map((pool) => pool.variance)))),
  }
}

/** The same over papers that were drawn. @param drawn what pools gave, paper by paper */
export function spreadOver(fixed: readonly Worth[], drawn: readonly Worth[][], of: Expects): PaperSpread | null {
  const possible = total(fixed.map(({ points }) => points)) + total((drawn[0] ?? []).map(({ points }) => points))
  if (possible <= 0 || !drawn.length) return null
  const sure = total(fixed.map(of))
  const each = drawn.map((paper) => (sure + total(paper.map(of))) / possible)
  const mean = total(each) / each.length
  const variance = total(each.map((value) => (value - mean) ** 2)) / Math.max(1, each.length - 1)
  return { hardest: Math.min(...each), mean, easiest: Math.max(...each), deviation: Math.sqrt(variance) }
}
