import type { Instant } from '../../../../core/kit/time'
import type { Db, Value } from '../../../database/database'
import type { QuestionRow } from '../../../database/tables'
import type { Person } from '../../../people/people'
import { notFound } from '../../problem'
import { grantedBanks } from '../outside/granted'

/**
 * For searching alone (lint sees to it); others ask `seenAmong`. The condition under which a person may see questions (as `q`): those of the school, their own, those shared with them, and
 * those of outside banks that are granted; never what is still being imported.
 * @param banks outside banks that the school has at that instant (grantedBanks); without them only its own questions count
 */
export function visibleTo(
  person: Pick<Person, 'id' | 'school'>,
  banks: readonly string[] = [],
): { sql: string; values: Value[] } {
  const outside = banks.length ? " OR (q.sharing = 'outside' AND q.origin_bank IN (?))" : ''
  return {
    sql: `q.school_id = ? AND (q.sharing = 'school' OR (q.owner_id = ? AND q.sharing NOT IN ('staged', 'outside'))${outside} OR (q.sharing = 'named' AND EXISTS (SELECT 1 FROM question_share s WHERE s.question_id = q.id AND s.person_id = ?)))`,
    values: [person.school, person.id, ...(banks.length ? [banks] : []), person.id],
  }
}

/**
 * Those of the given questions that a person may see.
 * @param now with it, those of outside banks that are granted then are seen as well
 */
export async function seenAmong(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  ids: readonly string[],
  now: Instant | null = null,
): Promise<Set<string>> {
  if (!ids.length) return new Set()
  const visible = visibleTo(person, now ? await grantedBanks(db, person.school, now) : [])
  const rows = await db.rows<Pick<QuestionRow, 'id'>>(
    `SELECT q.id FROM question q WHERE q.id IN (?) AND ${visible.sql}`,
    [ids, ...visible.values],
  )
  return new Set(rows.map(({ id }) => id))
}

/** @throws Problem 404 where a person may not see a question: what is not theirs to see is not here */
export async function ensureSeen(db: Db, person: Person, id: string, now: Instant | null = null): Promise<void> {
  if (!(await seenAmong(db, person, [id], now)).size) throw notFound('This question')
}
