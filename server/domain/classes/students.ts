import type { ClassGroupRow, EnrolmentRow, PersonRow } from '../../database/tables'
import type { Accommodation, Student } from '../../../core/quiz'
import type { Db, Value } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { readAccommodation } from '../../documents/read'
import { grouped } from '../grouped'

/** Somebody in one of their classes; or in none, which is one row. */
type Row = Pick<PersonRow, 'id' | 'name' | 'accommodation'> & { class_id: EnrolmentRow['class_id'] | null }

/** What groups give to their members, by member; nobody is in it whose groups give nothing. */
async function givenByGroups(db: Db, where: string, values: readonly Value[]): Promise<Map<string, Accommodation[]>> {
  const rows = await db.rows<{ person_id: string } & Pick<ClassGroupRow, 'accommodation'>>(
    `SELECT m.person_id, g.accommodation FROM class_group g JOIN class_group_member m ON m.group_id = g.id
    WHERE g.accommodation IS NOT NULL AND ${where} ORDER BY g.id`,
    values,
  )
  const given = new Map<string, Accommodation[]>()
  for (const [student, each] of grouped(rows, (row) => row.person_id))
    given.set(
      student,
      each.map((row) => readAccommodation(row.accommodation)),
    )
  return given
}

/** One student a person, with the classes of all their rows, and what they and their groups are given. */
function gathered(rows: Row[], byGroups: ReadonlyMap<string, Accommodation[]>): Map<string, Student> {
  const byId = new Map<string, Student>()
  for (const row of rows) {
    const known = byId.get(row.id)
    if (known) known.classes.push(row.class_id!)
    else
      byId.set(row.id, {
        id: row.id,
        name: row.name,
        classes: row.class_id === null ? [] : [row.class_id],
        accommodations: [readAccommodation(row.accommodation), ...(byGroups.get(row.id) ?? [])],
      })
  }
  return byId
}

const columns = 'p.id, p.name, p.accommodation, e.class_id'

/** Everybody in the given classes, by name, with those of their classes that are among the given. */
export async function studentsOfClasses(db: Db, classes: readonly string[]): Promise<Student[]> {
  if (!classes.length) return []
  const [rows, byGroups] = await Promise.all([
    db.rows<Row>(
      `SELECT ${columns} FROM enrolment e JOIN person p ON p.id = e.person_id WHERE e.class_id IN (?) ORDER BY p.name, p.id`,
      [classes],
    ),
    // Of whatever class: what a group is given goes for every quiz.
    givenByGroups(db, 'm.person_id IN (SELECT person_id FROM enrolment WHERE class_id IN (?))', [classes]),
  ])
  return [...gathered(rows, byGroups).values()]
}

/** Students with all their classes, as core needs them; who has left them all still has their papers. */
export async function studentsByIds(db: Db, ids: readonly string[]): Promise<Map<string, Student>> {
  if (!ids.length) return new Map()
  const [rows, byGroups] = await Promise.all([
    db.rows<Row>(`SELECT ${columns} FROM person p LEFT JOIN enrolment e ON e.person_id = p.id WHERE p.id IN (?)`, [
      ids,
    ]),
    givenByGroups(db, 'm.person_id IN (?)', [ids]),
  ])
  return gathered(rows, byGroups)
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

/** A student with all their classes. @param roster the stamp of the school's roster, read before */
export async function studentAt(db: Db, id: string, roster: number): Promise<Student | undefined> {
  const key = `${id} ${roster}`
  const there = known.get(key)
  if (there) return there
  const student = (await studentsByIds(db, [id])).get(id)
  if (student) known.set(key, student)
  return student
}
