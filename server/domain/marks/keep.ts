import type { HandMarkRow } from '../../database/tables'
import { decimalText, exact, type Exact } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import type { Counts } from '../../../core/rules/counts'
import { markAttempt } from '../../../core/marking'
import type { Db } from '../../database/database'
import { loadEdition } from '../quizzes/edition'
import { loadAnswers, loadPaper, type Attempt } from '../sittings/attempts'
import { keepFollowers, keepTotals } from './totals'

/** Rounded for the columns that are searched and sorted by. */
const decimals = (value: Exact | null, places: number) => value && decimalText(exact(value), places)

/** Marks an ended attempt from the answers kept and the marks that people gave, and keeps that in place of what was there. */
export async function keepMarks(db: Db, attempt: Attempt, counts: Counts, at: Instant): Promise<void> {
  const [edition, paper] = [await loadEdition(db, attempt.edition), await loadPaper(db, attempt.id)]
  const answers = await loadAnswers(db, attempt.id, true)
  const hand = await db.rows<Pick<HandMarkRow, 'item' | 'fraction'>>(
    'SELECT item, fraction FROM hand_mark WHERE attempt_id = ?',
    [attempt.id],
  )
  const marks = markAttempt(
    edition,
    paper,
    Object.fromEntries(answers.map(({ item, response }) => [item, response])),
    [],
    Object.fromEntries(hand.map(({ item, fraction }) => [item, fraction])),
    counts,
  )
  if (marks.marks.length) {
    await db.run(
      'REPLACE INTO mark (attempt_id, item, question_id, answered, fraction, fraction_rounded, points, possible) VALUES ?',
      [
        marks.marks.map((mark) => [
          attempt.id,
          mark.item,
          mark.question,
          mark.answered,
          mark.fraction,
          decimals(mark.fraction, 4),
          mark.points,
          mark.possible,
        ]),
      ],
    )
  }
  await keepTotals(db, attempt, at)
  await keepFollowers(db, attempt, at)
}
