import type { ClassGroupRow, EnrolmentRow, PersonRow } from '../../database/tables'
import type { Given, Student } from '../../../core/quiz'
import type { Audience } from '../../../core/schedule'
import type { Db, Value } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { readAccommodation } from '../../documents/read'
import { byName } from '../../../core/people'
import { grouped } from '../grouped'

/** Somebody in one of their classes; or in none, which is one row. */
type Row = Pick<PersonRow, 'id' | 'name' | 'accommodation'> & {
  class_id: EnrolmentRow['class_id'] | null
  held: number | null
}

/** Groups of somebody, and what those give them. */
interface InGroups {
  groups: string[]
  given: Given[]
}

/** Groups by member; who is in none is not in it. */
async function groupsByMember(db: Db, where: string, values: readonly Value[]): Promise<Map<string, InGroups>> {
  const rows = await db.rows<{ person_id: string } & Pick<ClassGroupRow, 'id' | 'name' | 'accommodation'>>(
    `SELECT m.person_id, g.id, g.name, g.accommodation FROM class_group g JOIN class_group_member m ON m.group_id = g.id
    WHERE ${where} ORDER BY g.id`,
    values,
  )
  return new Map(
    [...grouped(rows, (row) => row.person_id)].map(([student, each]): [string, InGroups] => [
      student,
      {
        groups: each.map(({ id }) => id),
        given: each.flatMap(({ name, accommodation }) =>
          accommodation === null ? [] : { ...readAccommodation(accommodation), by: { group: name } },
        ),
      },
    ]),
  )
}

/** One student a person, with the classes of all their rows, and what they and their groups are given. */
function gathered(rows: Row[], inGroups: ReadonlyMap<string, InGroups>): Map<string, Student> {
  const byId = new Map<string, Student>()
  for (const row of rows) {
    const known = byId.get(row.id)
    if (known) {
      known.classes.push(row.class_id!)
      if (row.held) known.held = [...(known.held ?? []), row.class_id!]
    } else
      byId.set(row.id, {
        id: row.id,
        name: row.name,
        classes: row.class_id === null ? [] : [row.class_id],
        groups: inGroups.get(row.id)?.groups ?? [],
        ...(row.held ? { held: [row.class_id!] } : {}),
        accommodations: [readAccommodation(row.accommodation), ...(inGroups.get(row.id)?.given ?? [])],
      })
  }
  return byId
}

const columns = 'p.id, p.name, p.accommodation, e.class_id, c.held_at IS NOT NULL AS held'

/** Everybody in the given classes, by name, with those of their classes that are among the given. */
export async function studentsOfClasses(db: Db, classes: readonly string[]): Promise<Student[]> {
  if (!classes.length) return []
  const [rows, inGroups] = await Promise.all([
    db.rows<Row>(
      `SELECT ${columns} FROM enrolment e JOIN class c ON c.id = e.class_id JOIN person p ON p.id = e.person_id WHERE e.class_id IN (?) ORDER BY p.name, p.id`,
      [classes],
    ),
    // Of whatever class: what a group is given goes for every quiz.
    groupsByMember(db, 'm.person_id IN (SELECT person_id FROM enrolment WHERE class_id IN (?))', [classes]),
  ])
  return [...gathered(rows, inGroups).values()]
}

/**
 * Everybody whom an audience can mean, by name: those of its classes with those of their classes that are among them,
 * members of its groups and its own students with all theirs.
 */
export async function studentsMeant(db: Db, { classes, groups, students }: Audience): Promise<Student[]> {
  const members = groups.length
    ? await db.rows<{ person_id: string }>('SELECT person_id FROM class_group_member WHERE group_id IN (?)', [groups])
    : []
  const inClasses = await studentsOfClasses(db, classes)
  const known = new Set(inClasses.map(({ id }) => id))
  const others = [...new Set([...students, ...members.map((row) => row.person_id)])].filter((id) => !known.has(id))
  if (!others.length) return inClasses
  const more = [...(await studentsByIds(db, others)).values()]
  return [...inClasses, ...more].sort((a, b) => byName(a, b))
}

/** Students with all their classes, as core needs them; who has left them all still has their papers. */
export async function studentsByIds(db: Db, ids: readonly string[]): Promise<Map<string, Student>> {
  if (!ids.length) return new Map()
  const [rows, inGroups] = await Promise.all([
    db.rows<Row>(
      `SELECT ${columns} FROM person p LEFT JOIN enrolment e ON e.person_id = p.id LEFT JOIN class c ON c.id = e.class_id WHERE p.id IN (?)`,
      [ids],
    ),
    groupsByMember(db, 'm.person_id IN (?)', [ids]),
  ])
  return gathered(rows, inGroups)
}

/**
 * Students whom the teacher of a quiz has to do with: of its classes, and of their own, with the classes among those.
 * For a page that works out the rules as they are changed.
 */
export async function studentsAround(db: Db, teacher: string, meant: Audience): Promise<Student[]> {
  const own = await db.rows<{ class_id: string }>('SELECT class_id FROM class_teacher WHERE person_id = ?', [teacher])
  return studentsMeant(db, { ...meant, classes: [...new Set([...meant.classes, ...own.map((row) => row.class_id)])] })
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
