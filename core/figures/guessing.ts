import { mapped, type Chances } from '../kit/chances'
import { exact } from '../kit/exact'
import type { Content, Rules } from '../quiz/schema'
import { factsOf, type Facts } from './facts'
import { bestOf, bestsWeighted, guessOutcomes } from './guess-outcomes'
import { possibleOf } from './moments'
import type { Papers, Worth } from './papers'
import { partKept, passChance, passChanceOver, withoutCost, type GradeRules } from './passing'
import { sectionMarks, type SectionMark } from './section-marks'
import { simulatedGuessing } from './simulated-guessing'
import { lineOf, scores, type Line, type Outcomes } from './totals'

export interface Guessing {
  /** Chance to pass by guessing alone; null without a pass mark or without points. */
  passes: number | null
  /** By how much that chance may be off, where it is simulated; 0 where it is exact. */
  passesError: number
  /** Attempts that this reckons with; null where there may be any number, and the chance is that of one. */
  attempts: number | null
  /** Share of the points that guessing earns on average. */
  mean: number
  /** By how many points a total may be off; 0 where it is exact. */
  error: number
}

export type GuessingRules = GradeRules & Pick<Rules, 'working'>

/** What all guesses of a quiz hang on. */
interface Guessed {
  papers: Papers
  drawn: readonly Worth[][] | null
  /** What a question earns in one attempt, as a share of its points. */
  outcomes: (worth: Worth) => Chances
  possible: number
  rules: GradeRules
  marks: readonly SectionMark[]
}

const inPoints =
  (of: (worth: Worth) => Chances): Outcomes =>
  (worth) =>
    mapped(of(worth), (share) => share.mul(exact(worth.points)))

const lineBy = ({ papers, drawn, marks }: Guessed, of: (worth: Worth) => Chances): Line =>
  lineOf(papers, drawn, inPoints(of), marks)

/** More attempts than this are simulated where each question's own history counts. */
const mostHistories = 12

/**
 * Attempts that hold only the questions missed: the best share of each question makes each attempt's, and none is lower
 * than the one before. @returns null where it cannot be told exactly
 */
function onlyMissed(guessed: Guessed, attempts: number): number | null {
  const { rules, possible, outcomes } = guessed
  const { method } = rules.grade
  const costs = rules.attempts.cost > 0
  const after = (number: number) =>
    passChance(
      lineBy(guessed, (worth) => bestOf(outcomes(worth), number)),
      possible,
      number,
      rules,
    )
  if (method === 'first' || (method === 'lowest' && !costs)) return after(1)
  if (method === 'latest' || (method === 'highest' && !costs)) return after(attempts)
  if (method !== 'average' || attempts > mostHistories || (costs && guessed.marks.length)) return null
  // Below nought an attempt's sum is lifted to it: then an average is not the sum of its questions.
  const { papers, drawn } = guessed
  const all = [...papers.fixed, ...papers.pools.flatMap((pool) => pool.from), ...(drawn ?? []).flat()]
  if (all.some((worth) => outcomes(worth).some(({ value }) => exact(value).compare(0) < 0))) return null
  const weights = Array.from({ length: attempts }, (_, i) => partKept(i + 1, rules))
  const mean = lineBy(guessed, (worth) =>
    mapped(bestsWeighted(outcomes(worth), weights), (sum) => sum.div(10_000 * attempts)),
  )
  return passChance(mean, possible, 1, withoutCost(rules))
}

/** The chance to pass by guessing alone (semantics §8), by the rules of working, pools, attempts, grading and sections. */
export function guessing(
  content: Content,
  rules: GuessingRules,
  papers: Papers,
  drawn: readonly Worth[][] | null,
  facts: Facts,
): Guessing {
  const known = new Map<string, Chances>()
  const outcomes = ({ question }: Worth): Chances => {
    const there = known.get(question) ?? guessOutcomes(factsOf(facts, question), content.wrongCost, rules.working)
    known.set(question, there)
    return there
  }
  const possible = possibleOf(papers)
  const guessed: Guessed = { papers, drawn, outcomes, possible, rules, marks: sectionMarks(rules) }
  const line = lineBy(guessed, outcomes)
  const mean = scores(line).reduce((all, { points, chance }) => all + points * chance, 0)
  const { count, draw } = rules.attempts
  const attempts = count ?? 1
  const figures = { attempts: count, mean: possible > 0 ? mean / possible : 0, error: line.error }
  if (rules.grade.pass === null || possible <= 0) return { passes: null, passesError: 0, ...figures }
  const exactly =
    draw === 'missed' && attempts > 1
      ? onlyMissed(guessed, attempts)
      : passChanceOver(
          Array.from({ length: attempts }, () => line),
          possible,
          rules,
        )
  if (exactly !== null) return { passes: exactly, passesError: 0, ...figures }
  const { passes, error } = simulatedGuessing(papers, drawn, outcomes, possible, attempts, rules, guessed.marks)
  return { passes, passesError: error, ...figures }
}
