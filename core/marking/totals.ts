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
