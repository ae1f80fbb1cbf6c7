import { z } from 'zod'
import type { ClassRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { accommodation, type Accommodation } from '../../../core/quiz'
import { toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { recordLine } from '../record'
import { rewriteOpenSittings } from '../sittings/timing'
import { rosterChanged } from './roster-stamp'
import type { MayInClass } from './teachers'

export interface ListedClass {
  id: string
  name: string
  students: number
  /** What the person may there; null for a class that they have nothing to do with. */
  may: MayInClass | null
  mine: boolean
  term: string | null
  filed: boolean
}

/** The school's classes: a teacher may offer a quiz to any, and sees the register of their own. Filed ones at the end. */
export async function listClasses(db: Db, person: Person): Promise<ListedClass[]> {
  const rows = await db.rows<
    Pick<ClassRow, 'id' | 'name' | 'filed'> & { students: number; may: MayInClass | null; term: string | null }
  >(
    `SELECT c.id, c.name, c.filed, t.name AS term, (SELECT COUNT(*) FROM enrolment e WHERE e.class_id = c.id) AS students, k.may
    FROM class c LEFT JOIN class_teacher k ON k.class_id = c.id AND k.person_id = ? LEFT JOIN term t ON t.id = c.term_id
    WHERE c.school_id = ? ORDER BY c.filed, c.name, c.id`,
    [person.id, person.school],
  )
  return rows.map((row) => ({
    ...row,
    students: Number(row.students),
    mine: row.may !== null,
    filed: Boolean(row.filed),
  }))
}

/** Names of a school's classes by id. */
export async function classNames(db: Db, school: string): Promise<Map<string, string>> {
  const rows = await db.rows<Pick<ClassRow, 'id' | 'name'>>('SELECT id, name FROM class WHERE school_id = ?', [school])
  return new Map(rows.map(({ id, name }) => [id, name]))
}

/** What somebody needs, and why: the reason is for the teachers of their classes alone. Without one it stays as it is. */
export const need = accommodation.extend({
  reason: z.string().trim().max(1000, 'A reason has at most 1,000 characters.').optional(),
})
export type Need = z.infer<typeof need>

/**
 * Sets students' accommodations, which every quiz follows; open sittings get their new time in the same transaction. The
 * reason stands in no line of the record.
 */
export async function setAccommodation(
  database: Database,
  person: Person,
  student: string,
  { reason, ...given }: Accommodation & { reason?: string },
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    await db.run('UPDATE person SET accommodation = ? WHERE id = ?', [toJson(given), student])
    if (reason !== undefined) await db.run('UPDATE person SET need_reason = ? WHERE id = ?', [reason, student])
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'accommodation set', student, given)
    await rewriteOpenSittings(db, { student }, now)
  })
}
