import type { OutsideBankRow } from '../../../database/tables'
import type { Instant } from '../../../../core/kit/time'
import { toSql } from '../../../database/codec'
import type { Db } from '../../../database/database'

/** Ids of the outside banks that a school may search at an instant. */
export async function grantedBanks(db: Db, school: string, now: Instant): Promise<string[]> {
  return (
    await db.rows<Pick<OutsideBankRow, 'id'>>('SELECT id FROM outside_bank WHERE school_id = ? AND granted_until > ?', [
      school,
      toSql(now),
    ])
  ).map((row) => row.id)
}
