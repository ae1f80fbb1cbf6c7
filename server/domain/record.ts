import type { Instant } from '../../core/kit/time'
import { toJson, toSql } from '../database/codec'
import type { Db } from '../database/database'
import { newId } from './ids'

/** Leaves a line in the append-only record. @param who person's id, or null for the clock */
export async function recordLine(
  db: Db,
  at: Instant,
  who: string | null,
  what: string,
  subject: string,
  detail: object = {},
): Promise<void> {
  await db.run('INSERT INTO record (id, at, who, what, subject, detail) VALUES (?, ?, ?, ?, ?, ?)', [
    newId(),
    toSql(at),
    who,
    what,
    subject,
    toJson(detail),
  ])
}
