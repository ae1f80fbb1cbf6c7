import { exactText, Fraction, type Exact } from '../kit/exact'
import { gradeFor, shareOf as markedShare } from '../marking/grade'
import type { Rules } from '../quiz/schema'
import { scores, type Totals } from './totals'

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

/** The chance that one attempt by itself passes. @param attempt its number: further ones may cost something */
export function passChance(totals: Totals, possible: number, attempt: number, rules: GradeRules): number {
  const found = scores(totals)
  const from = firstPassing(found.length, (i) => found[i]!.exactly, possible, attempt, rules)
  return Math.min(
    1,
    found.slice(from).reduce((all, { chance }) => all + chance, 0),
  )
}

/** Steps of a share in which averages over attempts are reckoned. */
const steps = 500
/** More attempts than this make an average whose spread is told by the central limit theorem. */
const mostConvolved = 12

/** Shares that attempts earn, in steps, after what a further attempt costs. */
function inSteps(totals: Totals, possible: number, attempt: number, rules: GradeRules): Float64Array {
  // What marking makes of a score is a straight line from none to all of the points (semantics §1).
  const all = inHundredths(possible)
  const earns = (score: Fraction) =>
    markedShare(
      { number: attempt, state: 'handed', score: exactText(score), possible: exactText(all), daysLate: 0 },
      rules,
    )!.valueOf()
  const [none, full] = [earns(new Fraction(0)), earns(all)]
  const chances = new Float64Array(steps + 1)
  for (const { points, chance } of scores(totals))
    chances[Math.min(steps, Math.round((none + (full - none) * (points / possible)) * steps))]! += chance
  return chances
}

/** The error function by Abramowitz & Stegun 7.1.26; off by at most 1.5e-7. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x))
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t
  return Math.sign(x) * (1 - poly * Math.exp(-x * x))
}

function averagePasses(totals: Totals, possible: number, attempts: number, rules: GradeRules): number {
  const each = Array.from({ length: attempts }, (_, i) => inSteps(totals, possible, i + 1, rules))
  const alone = { ...rules, attempts: { ...rules.attempts, cost: 0 } }
  const shareOf = (part: number, of: number) => exactText(new Fraction(part, of).mul(inHundredths(possible)))
  if (attempts > mostConvolved) {
    const moments = each.map((chances) => {
      const mean = chances.reduce((all, chance, i) => all + chance * (i / steps), 0)
      return { mean, variance: chances.reduce((all, chance, i) => all + chance * (i / steps - mean) ** 2, 0) }
    })
    const mean = moments.reduce((all, moment) => all + moment.mean, 0) / attempts
    const deviation = Math.sqrt(moments.reduce((all, moment) => all + moment.variance, 0)) / attempts
    const from = firstPassing(10_001, (i) => shareOf(i, 10_000), possible, 1, alone)
    if (from > 10_000) return 0
    if (deviation === 0) return mean * 10_000 >= from ? 1 : 0
    return (1 - erf((from / 10_000 - mean) / deviation / Math.SQRT2)) / 2
  }
  let sums = Float64Array.of(1)
  for (const chances of each) {
    const next = new Float64Array(sums.length + steps)
    sums.forEach((sum, i) => {
      if (sum > 0) for (let j = 0; j <= steps; j++) next[i + j]! += sum * chances[j]!
    })
    sums = next
  }
  const from = firstPassing(sums.length, (i) => shareOf(i, steps * attempts), possible, 1, alone)
  return Math.min(
    1,
    sums.slice(from).reduce((a, b) => a + b, 0),
  )
}

/**
 * The chance to pass over so many attempts, all used, with papers drawn each by itself, by the grading method. An
 * average is reckoned in steps of a five-hundredth of an attempt, beyond twelve attempts by the central limit theorem.
 */
export function passChanceOver(totals: Totals, possible: number, attempts: number, rules: GradeRules): number {
  const alone = (attempt: number) => passChance(totals, possible, attempt, rules)
  switch (attempts === 1 ? 'first' : rules.grade.method) {
    case 'first':
      return alone(1)
    case 'latest':
      return alone(attempts)
    case 'highest':
      return 1 - Array.from({ length: attempts }, (_, i) => 1 - alone(i + 1)).reduce((a, b) => a * b, 1)
    case 'lowest':
      return Array.from({ length: attempts }, (_, i) => alone(i + 1)).reduce((a, b) => a * b, 1)
    case 'average':
      return averagePasses(totals, possible, attempts, rules)
  }
}
