import type { EnrolmentRow, PersonRow } from '../../database/tables'
import type { Student } from '../../../core/quiz'
import type { Db } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { readAccommodation } from '../../documents/read'

type Row = Pick<PersonRow, 'id' | 'name' | 'accommodation'> & Pick<EnrolmentRow, 'class_id'>

/** One student a person, with the classes of all their rows. */
function gathered(rows: Row[]): Map<string, Student> {
  const byId = new Map<string, Student>()
  for (const row of rows) {
    const known = byId.get(row.id)
    if (known) known.classes.push(row.class_id)
    else
      byId.set(row.id, {
        id: row.id,
        name: row.name,
        classes: [row.class_id],
        accommodations: [readAccommodation(row.accommodation)],
      })
  }
  return byId
}

const columns = 'p.id, p.name, p.accommodation, e.class_id FROM enrolment e JOIN person p ON p.id = e.person_id'

/** Everybody in the given classes, by name, with those of their classes that are among the given. */
export async function studentsOfClasses(db: Db, classes: readonly string[]): Promise<Student[]> {
  if (!classes.length) return []
  return [
    ...gathered(
      await db.rows<Row>(`SELECT ${columns} WHERE e.class_id IN (?) ORDER BY p.name, p.id`, [classes]),
    ).values(),
  ]
}

/** Students with all their classes, as core needs them. */
export async function studentsByIds(db: Db, ids: readonly string[]): Promise<Map<string, Student>> {
  return ids.length ? gathered(await db.rows<Row>(`SELECT ${columns} WHERE p.id IN (?)`, [ids])) : new Map()
}

/**
 * Students whom the teacher of a quiz has to do with: of its classes, and of their own, with the classes among those.
 * For a page that works out the rules as they are changed.
 */
export async function studentsAround(db: Db, teacher: string, quizClasses: readonly string[]): Promise<Student[]> {
  const own = await db.rows<{ class_id: string }>('SELECT class_id FROM class_teacher WHERE person_id = ?', [teacher])
  return studentsOfClasses(db, [...new Set([...quizClasses, ...own.map((row) => row.class_id)])])
}

/** Students as they are at a stamp of their school's roster. */
const known = new Remembered<Student>(5000)

/** A student with all their classes; undefined for who is in none. @param roster the stamp of the school's roster, read before */
export async function studentAt(db: Db, id: string, roster: number): Promise<Student | undefined> {
  const key = `${id} ${roster}`
  const there = known.get(key)
  if (there) return there
  const student = (await studentsByIds(db, [id])).get(id)
  if (student) known.set(key, student)
  return student
}
