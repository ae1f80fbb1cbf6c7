import { exact } from '../kit/exact'
import type { Earned } from './totals'

/**
 * The best of each question over attempts of which the later ones held only what was missed (semantics §6). One that waits
 * for a mark in any of them is open.
 * @param attempts what each earned; a question is in the first of them at least
 */
export function bestOfEach(attempts: readonly (readonly Earned[])[]): Earned[] {
  const best = new Map<string, Earned>()
  for (const each of attempts.flat()) {
    const known = best.get(each.question)
    const isBetter =
      !known || (known.points !== null && (each.points === null || exact(each.points).compare(exact(known.points)) > 0))
    if (isBetter) best.set(each.question, each)
  }
  return [...best.values()]
}

/** Questions that were not fully right in any attempt: what a further one of only the questions missed holds. */
export function missedIn(attempts: readonly (readonly Earned[])[]): Set<string> {
  return new Set(
    bestOfEach(attempts)
      .filter(({ points, possible }) => points === null || exact(points).compare(exact(possible)) < 0)
      .map(({ question }) => question),
  )
}
