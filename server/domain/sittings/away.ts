import { z } from 'zod'
import type { AttemptAwayRow } from '../../database/tables'
import { iso, ms, second, type Instant } from '../../../core/kit/time'
import { fromSql, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { Problem } from '../problem'
import { loadQuiz } from '../quizzes/quizzes'
import { ownAttempt } from './own-attempt'

const mostAway = 500
/** That somebody was away from the page, told when they are back. */
export const awayRequest = z.strictObject({
  token: z.string().regex(/^[a-zA-Z0-9_-]{8,40}$/),
  seconds: z
    .int()
    .min(0)
    .max(7 * 86_400),
})

/** Times away from the page of a sitting. */
export interface Away {
  leftAt: Instant
  seconds: number
}

/** In the order in which they were left. */
export async function loadAway(db: Db, attempt: string): Promise<Away[]> {
  const rows = await db.rows<AttemptAwayRow>('SELECT * FROM attempt_away WHERE attempt_id = ? ORDER BY left_at', [
    attempt,
  ])
  return rows.map(({ left_at, seconds }) => ({ leftAt: fromSql(left_at), seconds }))
}

/**
 * Notes that a student was away from the page (rule "leaving the page"). The server's clock says when; sent twice it is
 * once. Where it is not noted nothing is kept.
 */
export async function noteAway(
  database: Database,
  student: string,
  id: string,
  { token, seconds }: z.infer<typeof awayRequest>,
  now: Instant,
): Promise<void> {
  const attempt = await ownAttempt(database, student, id, now)
  if (attempt.state !== 'open') throw new Problem(409, 'ended', 'This paper has been handed in.', { attempt: id })
  const { quiz } = await loadQuiz(database, attempt.quiz)
  if (!quiz.rules.watched) return
  const leftAt = iso(Math.max(ms(attempt.startedAt), ms(now) - seconds * second))
  const kept = Math.round((ms(now) - ms(leftAt)) / second)
  await database.run(
    `INSERT IGNORE INTO attempt_away (attempt_id, token, left_at, seconds)
    SELECT ?, ?, ?, ? FROM DUAL WHERE (SELECT COUNT(*) FROM attempt_away WHERE attempt_id = ?) < ?`,
    [id, token, toSql(leftAt), kept, id, mostAway],
  )
}
