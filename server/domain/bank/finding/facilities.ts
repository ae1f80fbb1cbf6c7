import type { MarkRow } from '../../../database/tables'
import { facilityOf } from '../../../../core/analysis/item'
import { inBatches } from '../../../database/batches'
import type { Db } from '../../../database/database'

/** Facilities of questions, with n: of first attempts that were handed in. None below the least that core tells anything of. */
export async function facilitiesOf(db: Db, ids: readonly string[]): Promise<Map<string, { share: number; n: number }>> {
  const found = new Map<string, { share: number; n: number }>()
  await inBatches(ids, 5000, async (part) => {
    const rows = await db.rows<Pick<MarkRow, 'question_id'> & { n: number; earned: string }>(
      `SELECT m.question_id, COUNT(*) AS n, SUM(GREATEST(m.fraction_rounded, 0)) AS earned FROM mark m
      JOIN attempt a ON a.id = m.attempt_id AND a.number = 1 AND a.state = 'handed'
      WHERE m.question_id IN (?) AND m.fraction_rounded IS NOT NULL GROUP BY m.question_id`,
      [part],
    )
    for (const row of rows) {
      const [n, earned] = [Number(row.n), Number(row.earned)]
      const share = facilityOf(n, earned)
      if (share !== null) found.set(row.question_id, { share, n })
    }
  })
  return found
}
