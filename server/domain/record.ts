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
  await recordLines(db, at, who, what, [{ subject, detail }])
}

/** The same for many subjects at once. */
export async function recordLines(
  db: Db,
  at: Instant,
  who: string | null,
  what: string,
  lines: readonly { subject: string; detail: object }[],
): Promise<void> {
  if (!lines.length) return
  await db.run('INSERT INTO record (id, at, who, what, subject, detail) VALUES ?', [
    lines.map(({ subject, detail }) => [newId(), toSql(at), who, what, subject, toJson(detail)]),
  ])
}
