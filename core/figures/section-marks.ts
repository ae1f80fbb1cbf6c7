import { exact, roundHalfAway, Fraction } from '../kit/exact'
import type { Rules } from '../quiz/schema'

/** A pass mark of a section, in percent of its points, as people read them. */
export interface SectionMark {
  section: string
  percent: number
  decimals: number
}

/** The sections that have to be passed by themselves; none where the score does not count. */
export const sectionMarks = ({ grade, counts }: Pick<Rules, 'grade' | 'counts'>): SectionMark[] =>
  counts === 'score'
    ? grade.sections.map(({ section, percent }) => ({ section, percent, decimals: grade.decimals }))
    : []

/** Whether a section's score reaches its pass mark, as marking decides it. @param score in points; below 0 it is 0 */
export function reaches({ percent, decimals }: SectionMark, score: Fraction, possible: Fraction): boolean {
  if (possible.compare(0) <= 0) return true
  const share = score.compare(0) < 0 ? new Fraction(0) : score.div(possible)
  return roundHalfAway(share.mul(100), decimals).compare(exact(percent)) >= 0
}

/** The least number of cells of a section's score from which it reaches its mark. @param cells a point */
export function leastCells(mark: SectionMark, possible: number, cells: number): number {
  const all = new Fraction(Math.round(possible * 100), 100)
  let [low, high] = [0, Math.ceil(possible * cells) + 1]
  while (low < high) {
    const middle = (low + high) >> 1
    if (reaches(mark, new Fraction(middle, cells), all)) high = middle
    else low = middle + 1
  }
  return low
}
