import type { QuestionRow } from '../../../database/tables'
import type { Db } from '../../../database/database'
import type { Person } from '../../../people/people'
import { seenAmong } from '../finding/visible'
import { notFound, Problem } from '../../problem'

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
  const seen = await seenAmong(db, person, [id])
  throw seen.size
    ? new Problem(
        403,
        'read-only',
        'This question is shared with you for reading. Ask its owner, or make a copy of your own.',
      )
    : notFound('This question')
}
