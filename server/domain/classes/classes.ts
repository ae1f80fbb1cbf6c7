import type { ClassRow, PersonRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Accommodation } from '../../../core/quiz'
import { toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { notFound } from '../problem'
import { readAccommodation } from '../../documents/read'
import type { Person } from '../../people/people'
import { recordLine } from '../record'
import { rosterChanged } from './roster-stamp'
import { rewriteOpenSittings } from '../sittings/timing'

export interface ListedClass {
  id: string
  name: string
  students: number
  mine: boolean
}

/** The school's classes: a teacher may offer a quiz to any, and sees the roster of their own. */
export async function listClasses(db: Db, person: Person): Promise<ListedClass[]> {
  const rows = await db.rows<Pick<ClassRow, 'id' | 'name'> & { students: number; mine: number }>(
    `SELECT c.id, c.name, COUNT(e.person_id) AS students,
      EXISTS (SELECT 1 FROM class_teacher t WHERE t.class_id = c.id AND t.person_id = ?) AS mine
    FROM class c LEFT JOIN enrolment e ON e.class_id = c.id WHERE c.school_id = ? GROUP BY c.id ORDER BY c.name`,
    [person.id, person.school],
  )
  return rows.map((row) => ({ ...row, students: Number(row.students), mine: Boolean(row.mine) }))
}

/** Names of a school's classes by id. */
export async function classNames(db: Db, school: string): Promise<Map<string, string>> {
  const rows = await db.rows<Pick<ClassRow, 'id' | 'name'>>('SELECT id, name FROM class WHERE school_id = ?', [school])
  return new Map(rows.map(({ id, name }) => [id, name]))
}

export interface RosterStudent {
  id: string
  name: string
  email: string
  accommodation: Accommodation
}

/** The students of a class by name, with their accommodations. Refuses a class that the person does not teach. */
export async function roster(
  db: Db,
  person: Person,
  classId: string,
): Promise<{ id: string; name: string; students: RosterStudent[] }> {
  const found = await db.one<Pick<ClassRow, 'id' | 'name'>>(
    'SELECT c.id, c.name FROM class c JOIN class_teacher t ON t.class_id = c.id AND t.person_id = ? WHERE c.id = ?',
    [person.id, classId],
  )
  if (!found) throw notFound('This class')
  const rows = await db.rows<Pick<PersonRow, 'id' | 'name' | 'email' | 'accommodation'>>(
    'SELECT p.id, p.name, p.email, p.accommodation FROM enrolment e JOIN person p ON p.id = e.person_id WHERE e.class_id = ? ORDER BY p.name',
    [classId],
  )
  return { ...found, students: rows.map((row) => ({ ...row, accommodation: readAccommodation(row.accommodation) })) }
}

/** Whether a teacher has a student in one of their classes. */
export async function teaches(db: Db, teacher: string, student: string): Promise<boolean> {
  return Boolean(
    await db.one(
      'SELECT 1 AS yes FROM enrolment e JOIN class_teacher t ON t.class_id = e.class_id WHERE e.person_id = ? AND t.person_id = ? LIMIT 1',
      [student, teacher],
    ),
  )
}

/** Sets a student's accommodation, which every quiz follows; open sittings get their new time in the same transaction. */
export async function setAccommodation(
  database: Database,
  person: Person,
  student: string,
  accommodation: Accommodation,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    await db.run('UPDATE person SET accommodation = ? WHERE id = ?', [toJson(accommodation), student])
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'accommodation set', student, accommodation)
    await rewriteOpenSittings(db, { student }, now)
  })
}
