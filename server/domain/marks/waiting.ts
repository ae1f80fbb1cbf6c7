import type { Instant } from '../../../core/kit/time'
import { fromSql } from '../../database/codec'
import type { Db } from '../../database/database'

/** Papers that wait for a mark by hand, by quiz: how many, and since when. */
export async function waitingForMarks(
  db: Db,
  quizzes: readonly string[],
): Promise<Map<string, { papers: number; since: Instant }>> {
  if (!quizzes.length) return new Map()
  const rows = await db.rows<{ quiz_id: string; papers: number; since: string }>(
    "SELECT quiz_id, COUNT(*) AS papers, MIN(handed_in_at) AS since FROM attempt WHERE quiz_id IN (?) AND state = 'handed' AND score IS NULL GROUP BY quiz_id",
    [quizzes],
  )
  return new Map(rows.map((row) => [row.quiz_id, { papers: Number(row.papers), since: fromSql(row.since) }]))
}
