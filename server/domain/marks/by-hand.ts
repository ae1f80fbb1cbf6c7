import { z } from 'zod'
import { exact, exactText, pointsText } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import { toSql } from '../../database/codec'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import { loadAttempt, loadPaper } from '../sittings/attempts'
import { loadQuiz } from '../quizzes/quizzes'
import { keepMarks } from './keep'

export const handMark = z.strictObject({
  item: z.string().max(12),
  /** Null takes the mark back. */
  points: z
    .number('Points are a number.')
    .min(0, 'Points cannot be below 0.')
    .multipleOf(0.01, 'Points go in hundredths.')
    .nullable(),
  comment: z.string().trim().max(4000, 'A comment has at most 4,000 characters.').default(''),
})
export type HandMark = z.infer<typeof handMark>

/** Gives or takes back a mark by hand. It survives re-marking, and is recorded with who and when. */
export async function giveMark(
  database: Database,
  person: Person,
  quizId: string,
  attemptId: string,
  mark: HandMark,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    const changed = await db.run(
      "UPDATE attempt SET touched = touched + 1 WHERE id = ? AND quiz_id = ? AND state <> 'open'",
      [attemptId, quizId],
    )
    const attempt = await loadAttempt(db, attemptId)
    if (attempt.quiz !== quizId) throw notFound('This paper')
    if (!changed) throw new Problem(409, 'open', 'This paper is still being sat.')
    const item = (await loadPaper(db, attemptId)).items.find((each) => each.id === mark.item)
    if (!item) throw notFound('This question')
    if (mark.points !== null && mark.points > item.points)
      throw new Problem(422, 'points', `This question is worth ${pointsText(item.points)} points at most.`)
    if (mark.points === null)
      await db.run('DELETE FROM hand_mark WHERE attempt_id = ? AND item = ?', [attemptId, mark.item])
    else {
      const fraction = item.points === 0 ? '0' : exactText(exact(mark.points).div(exact(item.points)))
      await db.run(
        'REPLACE INTO hand_mark (attempt_id, item, fraction, comment, given_by, given_at) VALUES (?, ?, ?, ?, ?, ?)',
        [attemptId, mark.item, fraction, mark.comment, person.id, toSql(now)],
      )
    }
    await keepMarks(db, attempt, (await loadQuiz(db, attempt.quiz)).quiz.rules, now)
    await recordLine(db, now, person.id, mark.points === null ? 'hand mark taken back' : 'marked by hand', attemptId, {
      item: mark.item,
      points: mark.points,
    })
  })
}
