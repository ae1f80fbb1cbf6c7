import { mapped, type Chances } from '../kit/chances'
import { exact } from '../kit/exact'
import { wrongAnswerCost } from '../marking/wrong-answer'
import type { Content, Rules } from '../quiz/schema'
import type { WrongCost } from '../rules/content/wrong-cost'
import { factsOf, type Facts, type QuestionFacts } from './facts'
import { possibleOf } from './moments'
import type { Papers, Worth } from './papers'
import { passChance, passChanceOver } from './passing'
import { scores, totalsOf, totalsOver, type Totals } from './totals'

export interface Guessing {
  /** Chance to pass by guessing alone; null without a pass mark or without points. */
  passes: number | null
  /** Attempts that this reckons with; null where there may be any number, and the chance is that of one. */
  attempts: number | null
  /** Share of the points that guessing earns on average. */
  mean: number
  /** By how many points a total may be off; 0 where it is exact. */
  error: number
}

/** What guessing earns on a question at one point: its own guesses, less what a wrong answer costs in this quiz (as marking does it). */
function guessed({ guesses, options }: QuestionFacts, cost: WrongCost): Chances {
  const off = wrongAnswerCost(options, cost)
  return off.equals(0) ? guesses : mapped(guesses, (share) => (share.equals(0) ? share.sub(off) : share))
}

/** What a guesser's paper adds up to. @param drawn papers where pools overlap */
export function guessedTotals(
  content: Content,
  papers: Papers,
  drawn: readonly Worth[][] | null,
  facts: Facts,
): Totals {
  const outcomes = ({ question, points }: Worth) =>
    mapped(guessed(factsOf(facts, question), content.wrongCost), (share) => share.mul(exact(points)))
  return papers.overlap && drawn ? totalsOver(papers.fixed, drawn, outcomes) : totalsOf(papers, outcomes)
}

/** The chance to pass by guessing alone (semantics §8), over pools, attempts and the grading method. */
export function guessing(
  content: Content,
  rules: Pick<Rules, 'grade' | 'late' | 'attempts' | 'counts'>,
  papers: Papers,
  drawn: readonly Worth[][] | null,
  facts: Facts,
): Guessing {
  const possible = possibleOf(papers)
  const totals = guessedTotals(content, papers, drawn, facts)
  const mean = scores(totals).reduce((all, { points, chance }) => all + points * chance, 0)
  const attempts = rules.attempts.count
  const none = rules.grade.pass === null || possible <= 0
  return {
    passes: none
      ? null
      : attempts === null
        ? passChance(totals, possible, 1, rules)
        : passChanceOver(totals, possible, attempts, rules),
    attempts,
    mean: possible > 0 ? mean / possible : 0,
    error: totals.error,
  }
}
