import { exact, exactText, atLeast, sum, type Exact } from '../kit/exact'

/** What a question earned in one attempt. */
export interface Earned {
  question: string
  section: string
  /** Null while a person has to decide. */
  points: Exact | null
  possible: Exact
}

/** What sections earned and could earn, by their ids. */
export type SectionScores = Readonly<Record<string, { score: Exact | null; possible: Exact }>>

/** Points earned and possible of a paper (semantics §1): sums floored at 0, null while a mark is missing. */
export interface Totals {
  score: Exact | null
  possible: Exact
  sections: SectionScores
}

/** Adds up what questions earned: in all, and by section. */
export function totalsOf(earned: readonly Earned[]): Totals {
  const bySection = new Map<string, Earned[]>()
  for (const each of earned) bySection.set(each.section, [...(bySection.get(each.section) ?? []), each])
  return {
    ...total(earned),
    sections: Object.fromEntries([...bySection].map(([section, own]) => [section, total(own)])),
  }
}

function total(earned: readonly Earned[]): { score: Exact | null; possible: Exact } {
  const isOpen = earned.some(({ points }) => points === null)
  return {
    score: isOpen ? null : exactText(atLeast(0, sum(earned.map(({ points }) => exact(points!))))),
    possible: exactText(sum(earned.map(({ possible }) => exact(possible)))),
  }
}

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
