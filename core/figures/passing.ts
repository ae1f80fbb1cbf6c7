import { exactText, Fraction, type Exact } from '../kit/exact'
import { gradeFor } from '../marking/grade'
import type { Rules } from '../quiz/schema'
import { scores, type Line, type Score } from './totals'

export type GradeRules = Pick<Rules, 'grade' | 'late' | 'attempts' | 'counts'>

/** Whether an attempt with this score passes, were it the only one that counts: as the grade is formed, and as people read it. */
function passes(score: Exact, possible: Exact, attempt: number, rules: GradeRules): boolean {
  const graded = { number: attempt, state: 'handed' as const, score, possible, daysLate: 0 }
  return gradeFor([graded], null, rules).passed === true
}

/** The first of so many rising scores from which an attempt passes, as its place; their number where none does. */
function firstPassing(
  count: number,
  scoreAt: (i: number) => Exact,
  possible: number,
  attempt: number,
  rules: GradeRules,
): number {
  const all = exactText(inHundredths(possible))
  let [low, high] = [0, count]
  while (low < high) {
    const middle = (low + high) >> 1
    if (passes(scoreAt(middle), all, attempt, rules)) high = middle
    else low = middle + 1
  }
  return low
}

/** Points go in hundredths; a sum of them in floating point is put back there. */
const inHundredths = (points: number) => new Fraction(Math.round(points * 100), 100)

/**
 * The least share of the points, 0 to 1, with which an attempt passes by the quiz's own pass mark; null where none does.
 * Found among 20,000 steps, and exact to half of one.
 */
export function leastPassingShare(possible: number, rules: GradeRules): number | null {
  const steps = 20_000
  const at = (i: number) => exactText(new Fraction(i, steps).mul(inHundredths(possible)))
  const from = firstPassing(steps + 1, at, possible, 1, withoutCost(rules))
  return from > steps ? null : from / steps
}

export const withoutCost = (rules: GradeRules): GradeRules => ({ ...rules, attempts: { ...rules.attempts, cost: 0 } })

/** The chance that one attempt by itself passes, and every section with it. @param attempt its number: further ones may cost something */
export function passChance(line: Line, possible: number, attempt: number, rules: GradeRules): number {
  const found = scores(line)
  const from = firstPassing(found.length, (i) => found[i]!.exactly, possible, attempt, rules)
  return Math.min(
    1,
    found.slice(from).reduce((all, { reached }) => all + reached, 0),
  )
}

/** Parts of a share that an attempt keeps after what a further one costs, in hundredths of a percent: whole numbers. */
export const partKept = (attempt: number, { attempts: { cost } }: GradeRules): number =>
  Math.max(0, Math.round(10_000 - cost * 100 * (attempt - 1)))

interface Attempt {
  scores: Score[]
  /** Shares that compare between attempts: cells times what is kept. */
  keys: number[]
  /** From which of them on it passes. */
  from: number
  /** Chance of a key below each, and of all. */
  upTo: number[]
}

function attemptOf(line: Line, possible: number, number: number, rules: GradeRules): Attempt {
  const found = scores(line)
  const kept = partKept(number, rules)
  const upTo: number[] = [0]
  for (const { chance } of found) upTo.push(upTo.at(-1)! + chance)
  return {
    scores: found,
    keys: found.map(({ points }) => Math.round(points * line.cells) * kept),
    from: firstPassing(found.length, (i) => found[i]!.exactly, possible, number, rules),
    upTo,
  }
}

/** The chance that an attempt's key is below a value, or at most it. */
function chanceBelow({ keys, upTo }: Attempt, key: number, orAt: boolean): number {
  let [low, high] = [0, keys.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (keys[middle]! < key || (orAt && keys[middle] === key)) low = middle + 1
    else high = middle
  }
  return Math.min(1, upTo[low]!)
}

/**
 * The chance that the attempt that counts passes, where the highest or the lowest counts: of equal ones the earlier
 * (as marking takes them). The sections are asked of that attempt alone.
 */
function extremePasses(all: readonly Attempt[], method: 'highest' | 'lowest'): number {
  let chance = 0
  all.forEach((each, j) => {
    for (let i = each.from; i < each.scores.length; i++) {
      const { reached } = each.scores[i]!
      if (reached === 0) continue
      const key = each.keys[i]!
      let others = 1
      all.forEach((other, at) => {
        if (at === j) return
        others *= method === 'highest' ? chanceBelow(other, key, at > j) : 1 - chanceBelow(other, key, at < j)
      })
      chance += reached * others
    }
  })
  return Math.min(1, chance)
}

/** Cells that a sum over attempts may take; beyond them it is simulated. */
const mostCells = 400_000

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

/** The chance that the average of attempts passes, exactly; null where its lattice is too fine. */
function averagePasses(lines: readonly Line[], possible: number, rules: GradeRules): number | null {
  const kept = lines.map((_, i) => partKept(i + 1, rules))
  const unit = kept.reduce(gcd, 0) || 1
  const { cells } = lines[0]!
  const parts = lines.map((line, i) =>
    scores(line).map(({ points, chance }) => [Math.round(points * cells) * (kept[i]! / unit), chance] as const),
  )
  const most = parts.reduce((sum, part) => sum + (part.at(-1)?.[0] ?? 0), 0)
  if (most > mostCells) return null
  let sums = Float64Array.of(1)
  for (const part of parts) {
    const next = new Float64Array(sums.length + (part.at(-1)?.[0] ?? 0))
    for (const [cell, chance] of part) for (let i = 0; i < sums.length; i++) next[i + cell]! += sums[i]! * chance
    sums = next
  }
  const whole = (cells * 10_000 * lines.length) / unit
  const at = (i: number) => exactText(new Fraction(i, Math.round(whole)))
  const from = firstPassing(sums.length, at, possible, 1, withoutCost(rules))
  return Math.min(
    1,
    sums.slice(from).reduce((a, b) => a + b, 0),
  )
}

/**
 * The chance to pass over attempts, all used, each drawn and answered by itself, by the grading method.
 * @param lines one for each attempt, on one lattice
 * @returns null where it cannot be told exactly: an average beside pass marks of sections, or on too fine a lattice
 */
export function passChanceOver(lines: readonly Line[], possible: number, rules: GradeRules): number | null {
  const { method } = rules.grade
  if (lines.length === 1 || method === 'first') return passChance(lines[0]!, possible, 1, rules)
  if (method === 'latest') return passChance(lines.at(-1)!, possible, lines.length, rules)
  if (method === 'average') return rules.grade.sections.length ? null : averagePasses(lines, possible, rules)
  return extremePasses(
    lines.map((line, i) => attemptOf(line, possible, i + 1, rules)),
    method,
  )
}
