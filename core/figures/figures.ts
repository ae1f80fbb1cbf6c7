import { Fraction, fixed, roundToFigures } from '../kit/exact'
import { seededRandom } from '../kit/random'
import { drawPools } from '../paper/draw'
import type { Content, DrawRow } from '../quiz/schema'
import { allRows, drawRows, fixedQuestions, pointsOf, rowSize } from '../quiz/walk'

/** What figures need to know of a question. */
export interface QuestionFacts {
  objectives: string[]
  seconds: number
}

export interface Coverage {
  objective: string
  atLeast: number
  atMost: number
}

export interface Figures {
  questions: number
  points: number
  /** Sum of the expected (median) times, in seconds; the mean over a pool for what it draws. */
  seconds: number
  /** Questions that two papers share on average: Σ πᵢ² (semantics §8). */
  shared: number
  /** Pools overlap, so that sharing and coverage come from simulated draws or loose bounds. */
  about: boolean
  /** Different sets of questions: a power of ten, or null where pools overlap. */
  papers: string | null
  /** Questions on every paper that have an objective. */
  coverage: Coverage[]
}

/** n over k, exactly. */
export function choose(n: number, k: number): bigint {
  if (k < 0 || k > n) return 0n
  let result = 1n
  for (let i = 1; i <= Math.min(k, n - k); i++) result = (result * BigInt(n - i + 1)) / BigInt(i)
  return result
}

/** How many of the n drawn out of N have a property that c of the N have (semantics §8). */
export function drawnBounds(n: number, N: number, c: number): { atLeast: number; atMost: number } {
  return { atLeast: Math.max(0, n - (N - c)), atMost: Math.min(n, c) }
}

interface OpenPool {
  row: DrawRow
  holds: string[]
}

/** N excludes what fixed rows claim. */
function openPools(content: Content): OpenPool[] {
  const claimed = new Set(fixedQuestions(content))
  return drawRows(content).map((row) => ({ row, holds: row.questions.filter((question) => !claimed.has(question)) }))
}

function overlap(pools: OpenPool[]): boolean {
  const all = pools.flatMap(({ holds }) => holds)
  return new Set(all).size < all.length
}

const simulatedPapers = 400

/** Inclusion chances, simulated with a fixed seed; null when the pools cannot be drawn at all. */
function simulatedShare(pools: OpenPool[]): number | null {
  const demands = pools.map(({ row, holds }) => ({ id: row.id, holds, draw: row.draw }))
  const seen = new Map<string, number>()
  try {
    for (let paper = 0; paper < simulatedPapers; paper++) {
      for (const drawn of drawPools(demands, new Set(), null, seededRandom('00', [String(paper)])).values()) {
        for (const question of drawn) seen.set(question, (seen.get(question) ?? 0) + 1)
      }
    }
  } catch {
    return null
  }
  return [...seen.values()].reduce((total, times) => total + (times / simulatedPapers) ** 2, 0)
}

/** From one pool drawing n of N two papers share n²/N (hypergeometric mean). */
function pooledShare(pools: OpenPool[], overlapping: boolean): number {
  const simulated = overlapping ? simulatedShare(pools) : null
  if (simulated !== null) return simulated
  return pools.reduce(
    (total, { row, holds }) => total + (holds.length ? Math.min(row.draw, holds.length) ** 2 / holds.length : 0),
    0,
  )
}

/** "1.7 × 10⁸" to two figures, or the number itself below ten thousand. */
export function powerOfTen(count: bigint): string {
  if (count < 10_000n) return String(count)
  const rounded = roundToFigures(new Fraction(count), 2)
  const power = rounded.toFraction().length - 1
  const superscripts = '⁰¹²³⁴⁵⁶⁷⁸⁹'
  const exponent = [...String(power)].map((digit) => superscripts[Number(digit)]).join('')
  return `${fixed(rounded.div(new Fraction(10).pow(power)!), 1)} × 10${exponent}`
}

function coverageOf(content: Content, pools: OpenPool[], facts: ReadonlyMap<string, QuestionFacts>): Coverage[] {
  const totals = new Map<string, Coverage>()
  const add = (objective: string, atLeast: number, atMost: number) => {
    const before = totals.get(objective) ?? { objective, atLeast: 0, atMost: 0 }
    totals.set(objective, { objective, atLeast: before.atLeast + atLeast, atMost: before.atMost + atMost })
  }
  for (const question of fixedQuestions(content))
    facts.get(question)?.objectives.forEach((objective) => add(objective, 1, 1))
  for (const { row, holds } of pools) {
    const counts = new Map<string, number>()
    for (const question of holds)
      facts.get(question)?.objectives.forEach((objective) => counts.set(objective, (counts.get(objective) ?? 0) + 1))
    for (const [objective, c] of counts) {
      const { atLeast, atMost } = drawnBounds(Math.min(row.draw, holds.length), holds.length, c)
      add(objective, atLeast, atMost)
    }
  }
  return [...totals.values()].sort((a, b) => (a.objective < b.objective ? -1 : 1))
}

/** The first figures of a quiz while it is composed (semantics §8). */
export function figuresFor(content: Content, facts: ReadonlyMap<string, QuestionFacts>): Figures {
  const rows = allRows(content)
  const pools = openPools(content)
  const about = overlap(pools)
  const secondsOf = (question: string) => facts.get(question)?.seconds ?? 60
  const mean = (holds: string[]) =>
    holds.length ? holds.reduce((total, question) => total + secondsOf(question), 0) / holds.length : 0
  return {
    questions: rows.reduce((total, row) => total + rowSize(row), 0),
    points: pointsOf(rows),
    seconds: Math.round(
      fixedQuestions(content).reduce((total, question) => total + secondsOf(question), 0) +
        pools.reduce((total, { row, holds }) => total + row.draw * mean(holds), 0),
    ),
    shared: fixedQuestions(content).length + pooledShare(pools, about),
    about,
    papers: about
      ? null
      : powerOfTen(pools.reduce((product, { row, holds }) => product * choose(holds.length, row.draw), 1n)),
    coverage: coverageOf(content, pools, facts),
  }
}
