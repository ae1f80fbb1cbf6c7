import type { PassRow, PersonRow } from '../database/tables'
import type { Instant } from '../../core/kit/time'
import { fromSql, toSql } from '../database/codec'
import type { Db } from '../database/database'
import { tokenKey } from './tokens'

/** A link for a new password that somebody else made for a person who had one. */
export interface LinkNotice {
  /** Who made it. */
  by: string
  madeAt: Instant
  /** Null while it has not been used. */
  usedAt: Instant | null
}

/**
 * What a session is told of and has not heard yet. One that came by the link itself hears nothing: it may be the wrong
 * person's, and would say so in place of the right one.
 */
const untold = `FROM pass w JOIN session s ON s.token = ? AND s.person_id = w.person_id
  WHERE w.again = 1 AND w.made_by IS NOT NULL AND w.told_at IS NULL AND COALESCE(w.used_at, w.made_at) < s.begun_at`

/** Links made for whoever this session belongs to, of which they have not heard. @param token of the session, as its cookie has it */
export async function linkNotices(db: Db, token: string): Promise<LinkNotice[]> {
  const rows = await db.rows<Pick<PassRow, 'made_at' | 'used_at'> & Pick<PersonRow, 'name'>>(
    `SELECT w.made_at, w.used_at, (SELECT name FROM person WHERE id = w.made_by) AS name ${untold} ORDER BY w.made_at`,
    [tokenKey(token)],
  )
  return rows.map((row) => ({
    by: row.name,
    madeAt: fromSql(row.made_at),
    usedAt: row.used_at && fromSql(row.used_at),
  }))
}

/** They have read it. */
export async function noteLinkNotices(db: Db, token: string, now: Instant): Promise<void> {
  const rows = await db.rows<Pick<PassRow, 'token'>>(`SELECT w.token ${untold}`, [tokenKey(token)])
  if (rows.length)
    await db.run('UPDATE pass SET told_at = ? WHERE token IN (?)', [toSql(now), rows.map((row) => row.token)])
}
