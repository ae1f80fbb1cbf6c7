import type { Content } from '../quiz/schema'
import { allRows, gives } from '../quiz/walk'
import type { Paper, PaperItem } from './schema'

/** Rows whose questions have to be answered. */
export function requiredRows(content: Content): Set<string> {
  return new Set(
    allRows(content)
      .filter((row) => gives(row) && row.required)
      .map((row) => row.id),
  )
}

/**
 * Numbers (from 1, as on the sheet) of the questions that have to be answered and are not. While there are some, a
 * student does not hand in, nor leave what cannot be come back to; the clock and a teacher hand in all the same.
 * @param answered ids of the items that have an answer
 * @param among which are looked at: those that can still be answered, those of a page or section that is left
 */
export function requiredMissing(
  content: Content,
  paper: Paper,
  answered: ReadonlySet<string>,
  among: (item: PaperItem) => boolean = () => true,
): number[] {
  const rows = requiredRows(content)
  return paper.items.flatMap((item, index) =>
    rows.has(item.row) && !answered.has(item.id) && among(item) ? [index + 1] : [],
  )
}
