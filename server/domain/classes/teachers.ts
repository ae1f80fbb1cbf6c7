import type { ClassTeacherRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'

/** What a teacher may in a class: all of it, or see its register alone. */
export type MayInClass = ClassTeacherRow['may']

export async function mayInClass(db: Db, teacher: string, classId: string): Promise<MayInClass | null> {
  const found = await db.one<Pick<ClassTeacherRow, 'may'>>(
    'SELECT may FROM class_teacher WHERE class_id = ? AND person_id = ?',
    [classId, teacher],
  )
  return found?.may ?? null
}

/** Whether a teacher has a student in one of the classes that they teach. */
export async function teaches(db: Db, teacher: string, student: string): Promise<boolean> {
  return Boolean(
    await db.one(
      "SELECT 1 AS yes FROM enrolment e JOIN class_teacher t ON t.class_id = e.class_id AND t.may = 'teach' WHERE e.person_id = ? AND t.person_id = ? LIMIT 1",
      [student, teacher],
    ),
  )
}

export interface ClassTeacher {
  id: string
  name: string
  may: MayInClass
}

/** Who teaches a class, and who helps in it. */
export const teachersOf = (db: Db, classId: string): Promise<ClassTeacher[]> =>
  db.rows(
    'SELECT p.id, p.name, t.may FROM class_teacher t JOIN person p ON p.id = t.person_id WHERE t.class_id = ? ORDER BY t.may, p.name',
    [classId],
  )

/**
 * Lets a colleague into a class, or changes what they may there.
 * @throws Problem 422 where nobody of the school has the address, or nobody would teach the class any more
 */
export async function setTeacher(
  database: Database,
  person: Person,
  classId: string,
  { email, may }: { email: string; may: MayInClass },
  now: Instant,
): Promise<ClassTeacher[]> {
  return database.transaction(async (db) => {
    const found = await db.one<{ id: string }>(
      "SELECT id FROM person WHERE email = ? AND school_id = ? AND role = 'teacher' AND state = 'here'",
      [email.trim().toLowerCase(), person.school],
    )
    if (!found) throw new Problem(422, 'no-teacher', 'No teacher of this school has this address.')
    await db.run(
      'INSERT INTO class_teacher (class_id, person_id, may) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE may = VALUES(may)',
      [classId, found.id, may],
    )
    await ensureTaught(db, classId)
    await recordLine(db, now, person.id, 'teacher of a class', classId, { teacher: found.id, may })
    return teachersOf(db, classId)
  })
}

/** Takes a colleague, or oneself, out of a class. */
export async function takeTeacherOut(
  database: Database,
  person: Person,
  classId: string,
  teacher: string,
  now: Instant,
): Promise<ClassTeacher[]> {
  return database.transaction(async (db) => {
    await db.run('DELETE FROM class_teacher WHERE class_id = ? AND person_id = ?', [classId, teacher])
    await ensureTaught(db, classId)
    await recordLine(db, now, person.id, 'teacher left a class', classId, { teacher })
    return teachersOf(db, classId)
  })
}

/**
 * A class that nobody teaches could be mended by nobody. The row of the class is written, so that two who leave at once
 * do not both find the other, on a cluster either; and what is read is what there is by now.
 */
async function ensureTaught(db: Db, classId: string): Promise<void> {
  await db.run('UPDATE class SET touched = touched + 1 WHERE id = ?', [classId])
  const left = await db.rows(
    "SELECT person_id FROM class_teacher WHERE class_id = ? AND may = 'teach' LIMIT 1 FOR UPDATE",
    [classId],
  )
  if (!left.length)
    throw new Problem(
      422,
      'last-teacher',
      'Somebody has to teach this class. Let a colleague in first, or file the class away.',
    )
}
