import type { QuestionRow, QuizRow } from '../../../database/tables'
import { itemFigures, type ItemFigures } from '../../../../core/analysis/item'
import type { Instant } from '../../../../core/kit/time'
import { fromSql } from '../../../database/codec'
import type { Db } from '../../../database/database'
import type { Person } from '../../../people/people'
import { notFound } from '../../problem'
import { ensureSeen } from '../finding/visible'

export interface QuestionRecord extends ItemFigures {
  lastUsedAt: Instant | null
  /** Quizzes that hold it; the title is null of one that the person does not teach. */
  quizzes: { id: string; title: string | null; state: string }[]
}

/** How a question has done, over first attempts that were handed in, and where it is used. */
export async function questionRecord(
  db: Db,
  person: Person,
  question: string,
  now: Instant | null = null,
): Promise<QuestionRecord> {
  await ensureSeen(db, person, question, now)
  const row = await db.one<Pick<QuestionRow, 'last_used_at'>>('SELECT last_used_at FROM question WHERE id = ?', [
    question,
  ])
  if (!row) throw notFound('This question')
  const [marks, quizzes] = await Promise.all([
    db.rows<{ share: string; total: string | null; own: string; possible: string; worth: string }>(
      `SELECT m.fraction_rounded AS share, a.score_rounded AS total, m.fraction_rounded * i.worth AS own, t.possible AS possible, i.worth AS worth
      FROM mark m JOIN attempt a ON a.id = m.attempt_id AND a.number = 1 AND a.state = 'handed'
      JOIN (SELECT attempt_id, item, CAST(SUBSTRING_INDEX(possible, '/', 1) AS DECIMAL(12,4)) / IF(LOCATE('/', possible), CAST(SUBSTRING_INDEX(possible, '/', -1) AS DECIMAL(12,4)), 1) AS worth FROM mark WHERE question_id = ?) i ON i.attempt_id = m.attempt_id AND i.item = m.item
      JOIN (SELECT attempt_id, SUM(CAST(SUBSTRING_INDEX(possible, '/', 1) AS DECIMAL(12,4)) / IF(LOCATE('/', possible), CAST(SUBSTRING_INDEX(possible, '/', -1) AS DECIMAL(12,4)), 1)) AS possible FROM mark WHERE attempt_id IN (SELECT attempt_id FROM mark WHERE question_id = ?) GROUP BY attempt_id) t ON t.attempt_id = m.attempt_id
      WHERE m.question_id = ? AND m.fraction_rounded IS NOT NULL LIMIT 20000`,
      [question, question, question],
    ),
    db.rows<Pick<QuizRow, 'id' | 'title' | 'state'> & { mine: number }>(
      "SELECT z.id, z.title, z.state, (z.owner_id = ? OR EXISTS (SELECT 1 FROM quiz_teacher t WHERE t.quiz_id = z.id AND t.person_id = ? AND t.may = 'write')) AS mine FROM quiz_question u JOIN quiz z ON z.id = u.quiz_id WHERE u.question_id = ? ORDER BY z.changed_at DESC LIMIT 100",
      [person.id, person.id, question],
    ),
  ])
  const responses = marks.map(({ share, total, own, possible, worth }) => {
    const left = Number(possible) - Number(worth)
    // A paper of one question has no rest, and one that waits for a mark has none yet.
    const rest = left > 0 && total !== null ? (Number(total) - Number(own)) / left : null
    return { share: Number(share), rest }
  })
  return {
    ...itemFigures(responses),
    lastUsedAt: row.last_used_at && fromSql(row.last_used_at),
    quizzes: quizzes.map(({ id, title, state, mine }) => ({ id, title: mine ? title : null, state })),
  }
}
