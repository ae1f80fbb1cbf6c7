import type { HandMarkRow } from '../../database/tables'
import { decimalText, exact, type Exact } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import type { Rules } from '../../../core/quiz'
import { costOfHelp, markAttempt } from '../../../core/marking'
import type { Db } from '../../database/database'
import { loadEdition } from '../quizzes/edition'
import { loadAnswers, loadPaper, type Attempt } from '../sittings/attempts'
import { helpedIn } from '../sittings/help'
import { keepFollowers, keepTotals } from './totals'

/** Rounded for the columns that are searched and sorted by. */
const decimals = (value: Exact | null, places: number) => value && decimalText(exact(value), places)

/** Marks an ended attempt from the answers kept and the marks that people gave, and keeps that in place of what was there. */
export async function keepMarks(db: Db, attempt: Attempt, rules: Rules, at: Instant): Promise<void> {
  const [edition, paper] = [await loadEdition(db, attempt.edition), await loadPaper(db, attempt.id)]
  const answers = await loadAnswers(db, attempt.id, true)
  const hand = await db.rows<Pick<HandMarkRow, 'item' | 'fraction'>>(
    'SELECT item, fraction FROM hand_mark WHERE attempt_id = ?',
    [attempt.id],
  )
  const helped = await helpedIn(db, attempt.id)
  const marks = markAttempt(
    edition,
    paper,
    Object.fromEntries(answers.map(({ item, response }) => [item, response])),
    [],
    {
      hand: Object.fromEntries(hand.map(({ item, fraction }) => [item, fraction])),
      counts: rules.counts,
      help: Object.fromEntries([...helped].map(([item, each]) => [item, costOfHelp(rules.working, each)])),
    },
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
