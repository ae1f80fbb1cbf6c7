import type { PersonRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { alikeName } from '../../../core/people'
import { inBatches } from '../../database/batches'
import { toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { Problem } from '../problem'
import { recordLines } from '../record'
import { rosterChanged } from './roster-stamp'

/** Somebody as they are written down for a class; an address is kept in small letters. */
export interface Named {
  name: string
  email: string | null
}

/** What became of each that was named. */
export interface Added {
  /** New to the school. */
  made: { id: string; name: string; email: string | null }[]
  /** In the school before, and now in the class. */
  joined: { id: string; name: string }[]
  already: { id: string; name: string }[]
  refused: { name: string; email: string | null; sentence: string }[]
}

export const mostAdded = 1000
const atOnce = 500

type Known = Pick<PersonRow, 'id' | 'name' | 'email' | 'role' | 'school_id'>

async function knownByEmail(db: Db, emails: readonly string[]): Promise<Map<string, Known>> {
  const found: Known[] = []
  await inBatches(emails, atOnce, async (part) => {
    found.push(
      ...(await db.rows<Known>('SELECT id, name, email, role, school_id FROM person WHERE email IN (?)', [part])),
    )
  })
  return new Map(found.map((person) => [person.email!, person]))
}

const membersOf = (db: Db, classId: string): Promise<Pick<PersonRow, 'id' | 'name'>[]> =>
  db.rows('SELECT p.id, p.name FROM enrolment e JOIN person p ON p.id = e.person_id WHERE e.class_id = ?', [classId])

/** What keeps somebody out of the class, in a sentence; null for nothing. */
function refusal(known: Known | undefined, school: string): string | null {
  if (!known) return null
  if (known.school_id !== school) return 'This address cannot be used here. Take another one of theirs.'
  return known.role === 'student' ? null : 'This is the address of a teacher, who sits nothing.'
}

/**
 * Puts people into a class: who has an address that the school knows is that person, whoever else is new. One who has no
 * address is new too, unless somebody of that name is in the class.
 */
export async function addToClass(
  database: Database,
  person: Person,
  classId: string,
  named: readonly Named[],
  now: Instant,
): Promise<Added> {
  if (named.length > mostAdded)
    throw new Problem(422, 'too-many', `Add at most ${mostAdded} at once; bring more in from a file.`)
  return database.transaction(async (db) => {
    const emails = [...new Set(named.flatMap(({ email }) => email ?? []))]
    const [known, members] = [await knownByEmail(db, emails), await membersOf(db, classId)]
    const inClass = new Set(members.map(({ id }) => id))
    const names = new Map(members.map(({ id, name }) => [alikeName(name), id]))
    const added: Added = { made: [], joined: [], already: [], refused: [] }
    const seen = new Set<string>()
    for (const { name, email } of named) {
      const found = email === null ? undefined : known.get(email)
      const sentence = refusal(found, person.school)
      const same = email === null ? names.get(alikeName(name)) : undefined
      const key = email ?? `name ${alikeName(name)}`
      if (seen.has(key)) added.refused.push({ name, email, sentence: 'This one is named twice.' })
      else if (sentence) added.refused.push({ name, email, sentence })
      else if (found && inClass.has(found.id)) added.already.push({ id: found.id, name: found.name })
      else if (same) added.already.push({ id: same, name })
      else if (found) added.joined.push({ id: found.id, name: found.name })
      else added.made.push({ id: newId(), name, email })
      seen.add(key)
    }
    await makePeople(db, person.school, added.made, person.admin ? null : person.id)
    await enrol(
      db,
      person,
      classId,
      [...added.made, ...added.joined].map(({ id }) => id),
      now,
      () => teacherIn(person),
    )
    return added
  })
}

/**
 * Students without a password: nobody can come in as them until they have chosen one.
 * @param by the teacher who creates them; null for the roster and the administrator
 */
export async function makePeople(
  db: Db,
  school: string,
  people: readonly {
    id: string
    name: string
    email: string | null
    outsideId?: string | null
    role?: 'student' | 'teacher'
  }[],
  by: string | null = null,
): Promise<void> {
  await inBatches(people, atOnce, (part) =>
    db.run('INSERT INTO person (id, school_id, role, name, email, password_hash, outside_id, made_by) VALUES ?', [
      part.map(({ id, name, email, outsideId = null, role = 'student' }) => [
        id,
        school,
        role,
        name,
        email,
        '',
        outsideId,
        by,
      ]),
    ]),
  )
}

/**
 * Puts people of the school into a class. Who left it is back, with all that they have sat.
 * @param as who is said to have put each of them in: a teacher, or the student who joined; null for the administrator
 */
export async function enrol(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  classId: string,
  ids: readonly string[],
  now: Instant,
  as: (id: string) => string | null,
): Promise<void> {
  if (!ids.length) return
  await inBatches(ids, atOnce, async (part) => {
    await db.run('INSERT IGNORE INTO enrolment (class_id, person_id, since, by_id) VALUES ?', [
      part.map((id) => [classId, id, toSql(now), as(id)]),
    ])
    await db.run('DELETE FROM left_class WHERE class_id = ? AND person_id IN (?)', [classId, part])
    await db.run("UPDATE person SET state = 'here' WHERE id IN (?) AND state = 'left'", [part])
  })
  await rosterChanged(db, person.school)
  await recordLines(
    db,
    now,
    person.id,
    'into a class',
    ids.map((subject) => ({ subject, detail: { class: classId } })),
  )
}

/** Takes students out of a class. Their papers stay theirs and stay counted, and they can come back. @returns who was in it */
export async function takeOut(
  db: Db,
  person: Pick<Person, 'id' | 'school'>,
  classId: string,
  ids: readonly string[],
  now: Instant,
): Promise<string[]> {
  const gone: string[] = []
  await inBatches(ids, atOnce, async (part) => {
    const there = await db.rows<{ person_id: string }>(
      'SELECT person_id FROM enrolment WHERE class_id = ? AND person_id IN (?)',
      [classId, part],
    )
    gone.push(...there.map((row) => row.person_id))
    await db.run(
      `INSERT INTO left_class (class_id, person_id, since, left_at, by_id, put_in_by)
      SELECT class_id, person_id, since, ?, ?, by_id FROM enrolment WHERE class_id = ? AND person_id IN (?)
      ON DUPLICATE KEY UPDATE since = VALUES(since), left_at = VALUES(left_at), by_id = VALUES(by_id), put_in_by = VALUES(put_in_by)`,
      [toSql(now), person.id, classId, part],
    )
    await db.run('DELETE FROM enrolment WHERE class_id = ? AND person_id IN (?)', [classId, part])
    await db.run(
      'DELETE m FROM class_group_member m JOIN class_group g ON g.id = m.group_id WHERE g.class_id = ? AND m.person_id IN (?)',
      [classId, part],
    )
  })
  if (!gone.length) return gone
  await rosterChanged(db, person.school)
  await recordLines(
    db,
    now,
    person.id,
    'out of a class',
    gone.map((subject) => ({ subject, detail: { class: classId } })),
  )
  return gone
}

/** A teacher who puts somebody into a class on their own; null for the administrator. */
const teacherIn = ({ id, admin }: Pick<Person, 'id' | 'admin'>): string | null => (admin ? null : id)

/** Moves students from one class to another, at once. Whoever put them into the one has put them into the other. */
export async function moveStudents(
  database: Database,
  person: Person,
  { from, to }: { from: string; to: string },
  ids: readonly string[],
  now: Instant,
): Promise<number> {
  return database.transaction(async (db) => {
    const rows = ids.length
      ? await db.rows<{ person_id: string; by_id: string | null }>(
          'SELECT person_id, by_id FROM enrolment WHERE class_id = ? AND person_id IN (?)',
          [from, [...ids]],
        )
      : []
    const putInBy = new Map(rows.map((row) => [row.person_id, row.by_id]))
    const moved = await takeOut(db, person, from, ids, now)
    await enrol(db, person, to, moved, now, (id) => putInBy.get(id) ?? null)
    return moved.length
  })
}

/** Brings students back into a class they were in before, and keeps who added them then. Others are ignored. */
export async function bringBack(
  database: Database,
  person: Person,
  classId: string,
  ids: readonly string[],
  now: Instant,
): Promise<number> {
  return database.transaction(async (db) => {
    const were = ids.length
      ? await db.rows<{ person_id: string; put_in_by: string | null }>(
          'SELECT person_id, put_in_by FROM left_class WHERE class_id = ? AND person_id IN (?)',
          [classId, [...ids]],
        )
      : []
    const putInBy = new Map(were.map((row) => [row.person_id, row.put_in_by]))
    await enrol(db, person, classId, [...putInBy.keys()], now, (id) => putInBy.get(id) ?? null)
    return were.length
  })
}
