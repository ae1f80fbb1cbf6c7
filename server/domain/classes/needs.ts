import type { Instant } from '../../../core/kit/time'
import { toJson } from '../../database/codec'
import { mapInOrder } from '../../database/batches'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { recordLines } from '../record'
import { rewriteOpenSittings } from '../sittings/timing'
import type { Need } from './classes'
import { rosterChanged } from './roster-stamp'

/**
 * Gives several students of a class the same accommodation; every quiz follows it, papers under way too. A reason that is
 * not given stays as it is for each. @returns how many; who is not in the class is left aside
 */
export async function setNeeds(
  database: Database,
  person: Person,
  classId: string,
  students: readonly string[],
  { reason, ...accommodation }: Need,
  now: Instant,
): Promise<number> {
  return database.transaction(async (db) => {
    const rows = await db.rows<{ person_id: string }>(
      'SELECT person_id FROM enrolment WHERE class_id = ? AND person_id IN (?)',
      [classId, [...students]],
    )
    const ids = rows.map((row) => row.person_id)
    if (!ids.length) return 0
    await db.run('UPDATE person SET accommodation = ? WHERE id IN (?)', [toJson(accommodation), ids])
    if (reason !== undefined) await db.run('UPDATE person SET need_reason = ? WHERE id IN (?)', [reason, ids])
    await rosterChanged(db, person.school)
    await recordLines(
      db,
      now,
      person.id,
      'accommodation set',
      ids.map((subject) => ({ subject, detail: accommodation })),
    )
    await mapInOrder(ids, (student) => rewriteOpenSittings(db, { student }, now))
    return ids.length
  })
}
