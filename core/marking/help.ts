import { exact, exactText, type Exact } from '../kit/exact'
import type { Rules } from '../quiz/schema'

/** What somebody was helped with on one question while they worked. */
export interface Helped {
  /** How often an answer was checked. */
  checks: number
  /** The answer kept is another than the one checked last: a try more. */
  changedSince: boolean
  hints: number
}

/** The share of a question's points that help has cost (semantics §6): each try after the first, and each hint. */
export function costOfHelp(rule: Rules['working'], { checks, changedSince, hints }: Helped): Exact {
  const tries = checks + (changedSince ? 1 : 0)
  return exactText(
    exact(rule.cost)
      .mul(Math.max(0, tries - 1))
      .add(exact(rule.hintCost).mul(hints))
      .div(100),
  )
}

export type CheckVerdict = 'right' | 'partly' | 'wrong'

/** What a checked answer is told to be. */
export function checkVerdict(fraction: Exact): CheckVerdict {
  const share = exact(fraction)
  return share.compare(1) >= 0 ? 'right' : share.compare(0) > 0 ? 'partly' : 'wrong'
}

/** Whether a question is closed after a check: it is right, or there is no further try. @param checks with that one */
export const closesAfter = (rule: Rules['working'], verdict: CheckVerdict, checks: number): boolean =>
  verdict === 'right' || (rule.tries !== null && checks >= rule.tries)
