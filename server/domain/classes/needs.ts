import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import { accommodation, type Accommodation } from '../../../core/quiz'
import { toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { recordLines } from '../record'
import { rewriteOpenSittings } from '../sittings/timing'
import { rosterChanged } from './roster-stamp'

/** What somebody needs, and why: the reason is for the teachers of their classes alone. Without one it stays as it is. */
export const need = accommodation.extend({
  reason: z.string().trim().max(1000, 'A reason has at most 1,000 characters.').optional(),
})
type Need = Accommodation & { reason?: string | undefined }

/**
 * Gives students an accommodation, which every quiz follows; their sittings under way get their new time in the same
 * transaction. The reason stands in no line of the record.
 */
async function giveNeed(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  students: readonly string[],
  { reason, ...given }: Need,
  now: Instant,
): Promise<void> {
  await db.run('UPDATE person SET accommodation = ? WHERE id IN (?)', [toJson(given), [...students]])
  if (reason !== undefined) await db.run('UPDATE person SET need_reason = ? WHERE id IN (?)', [reason, [...students]])
  await recordLines(
    db,
    now,
    person.id,
    'accommodation set',
    students.map((subject) => ({ subject, detail: given })),
  )
  await needsChanged(db, person, students, now)
}

/** What these students need has changed: their sittings under way get their new time. Called in the transaction that changes it. */
export async function needsChanged(
  db: Db,
  person: Pick<Person, 'school'>,
  students: readonly string[],
  now: Instant,
): Promise<void> {
  await rosterChanged(db, person.school)
  if (students.length) await rewriteOpenSittings(db, { students }, now)
}

/** The same for one student, whom the teacher teaches (the route asks). */
export async function setAccommodation(
  database: Database,
  person: Person,
  student: string,
  given: Need,
  now: Instant,
): Promise<void> {
  await database.transaction((db) => giveNeed(db, person, [student], given, now))
}

/** Several students of a class at once. @returns how many; who is not in the class is left aside */
export async function setNeeds(
  database: Database,
  person: Person,
  classId: string,
  students: readonly string[],
  given: Need,
  now: Instant,
): Promise<number> {
  return database.transaction(async (db) => {
    const rows = await db.rows<{ person_id: string }>(
      'SELECT person_id FROM enrolment WHERE class_id = ? AND person_id IN (?)',
      [classId, [...students]],
    )
    const ids = rows.map((row) => row.person_id)
    if (ids.length) await giveNeed(db, person, ids, given, now)
    return ids.length
  })
}
