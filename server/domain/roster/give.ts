import { writeOneRoster, writePlainRoster, type OutgoingRoster } from '../../../formats/roster/write'
import type { Instant } from '../../../core/kit/time'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'

export const rosterForms = ['csv', 'oneroster-1.1', 'oneroster-1.2'] as const
export type RosterForm = (typeof rosterForms)[number]

/** The school's people, classes and terms, or those of one class: no passwords, accommodations or reasons. */
export async function giveRoster(
  db: Db,
  person: Person,
  form: RosterForm,
  classId: string | null,
  now: Instant,
): Promise<{ name: string; type: string; bytes: Uint8Array | string }> {
  const only = classId === null ? { sql: '', values: [] } : { sql: ' AND c.id = ?', values: [classId] }
  const [school, classes, terms, students, teachers] = [
    await db.one<{ id: string; name: string }>('SELECT id, name FROM school WHERE id = ?', [person.school]),
    await db.rows<OutgoingRoster['classes'][number]>(
      `SELECT c.id, c.outside_id AS outsideId, c.name, c.term_id AS term FROM class c WHERE c.school_id = ?${only.sql} AND c.filed = 0 AND c.link_of IS NULL ORDER BY c.name, c.id`,
      [person.school, ...only.values],
    ),
    await db.rows<OutgoingRoster['terms'][number]>(
      'SELECT id, outside_id AS outsideId, name, starts, ends FROM term WHERE school_id = ? ORDER BY starts',
      [person.school],
    ),
    await db.rows<{ class: string; person: string }>(
      `SELECT e.class_id AS class, e.person_id AS person FROM enrolment e JOIN class c ON c.id = e.class_id WHERE c.school_id = ?${only.sql} AND c.filed = 0 AND c.link_of IS NULL`,
      [person.school, ...only.values],
    ),
    await db.rows<{ class: string; person: string; may: string }>(
      `SELECT t.class_id AS class, t.person_id AS person, t.may FROM class_teacher t JOIN class c ON c.id = t.class_id WHERE c.school_id = ?${only.sql} AND c.filed = 0`,
      [person.school, ...only.values],
    ),
  ]
  const people = await db.rows<OutgoingRoster['people'][number]>(
    "SELECT id, outside_id AS outsideId, name, email, role FROM person WHERE school_id = ? AND state = 'here' AND guest = 0 ORDER BY role, name, id",
    [person.school],
  )
  const named = new Set([...students, ...teachers].map((each) => each.person))
  const here = new Set(people.map(({ id }) => id))
  const roster: OutgoingRoster = {
    school: school!,
    people: classId === null ? people : people.filter(({ id }) => named.has(id)),
    classes,
    terms,
    enrolments: [
      ...students.map((each) => ({ ...each, role: 'student' as const })),
      ...teachers.map(({ may, ...each }) => ({
        ...each,
        role: may === 'help' ? ('help' as const) : ('teacher' as const),
      })),
    ].filter((each) => here.has(each.person)),
  }
  if (form === 'csv')
    return { name: 'roster.csv', type: 'text/csv; charset=utf-8', bytes: `\uFEFF${writePlainRoster(roster)}` }
  const version = form === 'oneroster-1.1' ? '1.1' : '1.2'
  return {
    name: `oneroster-${version}.zip`,
    type: 'application/zip',
    bytes: writeOneRoster(roster, version, now.slice(0, 4)),
  }
}
