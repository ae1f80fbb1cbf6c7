import type { ClassRow } from '../../database/tables'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
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
    WHERE c.school_id = ? AND c.link_of IS NULL ORDER BY c.filed, c.name, c.id`,
    [person.id, person.school],
  )
  return rows.map((row) => ({
    ...row,
    students: Number(row.students),
    mine: row.may !== null,
    filed: Boolean(row.filed),
  }))
}

/** Names of a school's classes and groups, and of some of its students, by id. */
export async function audienceNames(db: Db, school: string, students: readonly string[]): Promise<Map<string, string>> {
  const rows = await db.rows<{ id: string; name: string }>(
    `SELECT id, name FROM class WHERE school_id = ?
    UNION ALL SELECT g.id, g.name FROM class_group g JOIN class c ON c.id = g.class_id WHERE c.school_id = ?
    UNION ALL SELECT id, name FROM person WHERE id IN (?) AND school_id = ?`,
    [school, school, ['-', ...students], school],
  )
  return new Map(rows.map(({ id, name }) => [id, name]))
}
