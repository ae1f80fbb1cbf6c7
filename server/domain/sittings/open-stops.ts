import type { AttemptRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { fromSqlOrNever } from '../../database/codec'
import type { Db } from '../../database/database'

/** The hard stop of a sitting under way; null for none. A rule that was shortened since does not shorten it. */
export interface OpenStop {
  quiz: string
  student: string
  hardStop: Instant | null
}

/** Hard stops of the sittings under way in some quizzes. */
export async function openStops(db: Db, quizzes: readonly string[]): Promise<OpenStop[]> {
  if (!quizzes.length) return []
  const rows = await db.rows<Pick<AttemptRow, 'quiz_id' | 'student_id' | 'hard_stop'>>(
    "SELECT quiz_id, student_id, hard_stop FROM attempt WHERE quiz_id IN (?) AND state = 'open'",
    [quizzes],
  )
  return rows.map((row) => ({
    quiz: row.quiz_id,
    student: row.student_id,
    hardStop: fromSqlOrNever(row.hard_stop),
  }))
}
