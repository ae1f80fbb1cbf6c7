import type { ReleasedRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { fromSql } from '../../database/codec'
import type { Db } from '../../database/database'

/** When the teacher released quizzes to classes: by quiz, then by class. */
export async function loadReleases(
  db: Db,
  quizzes: readonly string[],
): Promise<Map<string, ReadonlyMap<string, Instant>>> {
  const rows = quizzes.length
    ? await db.rows<Pick<ReleasedRow, 'quiz_id' | 'class_id' | 'at'>>(
        'SELECT quiz_id, class_id, at FROM released WHERE quiz_id IN (?)',
        [quizzes],
      )
    : []
  return new Map(
    quizzes.map((quiz) => [
      quiz,
      new Map(rows.filter((row) => row.quiz_id === quiz).map((row) => [row.class_id, fromSql(row.at)])),
    ]),
  )
}
