import type { QuestionRow } from '../../../database/tables'
import type { Db, Value } from '../../../database/database'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'

/**
 * The condition under which a person may see questions (as `q`): those of the school, their own, those shared with them, and
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

/** Those of the given questions that a person may change: shared with the school or with them for writing, or their own. */
export async function writable(db: Db, person: Person, ids: readonly string[]): Promise<Set<string>> {
  if (!ids.length) return new Set()
  const rows = await db.rows<Pick<QuestionRow, 'id'>>(
    `SELECT q.id FROM question q WHERE q.id IN (?) AND q.school_id = ? AND (q.sharing = 'school' OR (q.owner_id = ? AND q.sharing NOT IN ('staged', 'outside'))
    OR (q.sharing = 'named' AND EXISTS (SELECT 1 FROM question_share s WHERE s.question_id = q.id AND s.person_id = ? AND s.may = 'write')))`,
    [ids, person.school, person.id, person.id],
  )
  return new Set(rows.map(({ id }) => id))
}

/** What a person may not see is not here; what they may see but not change is refused in a sentence. */
export async function ensureWritable(db: Db, person: Person, id: string): Promise<void> {
  if ((await writable(db, person, [id])).size) return
  const { sql, values } = visibleTo(person)
  const seen = await db.one(`SELECT 1 AS yes FROM question q WHERE q.id = ? AND ${sql}`, [id, ...values])
  throw seen
    ? new Problem(
        403,
        'read-only',
        'This question is shared with you for reading. Ask its owner, or make a copy of your own.',
      )
    : notFound('This question')
}
