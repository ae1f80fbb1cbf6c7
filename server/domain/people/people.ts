import { z } from 'zod'
import { readAddress } from '../../../formats/roster/address'
import type { PersonRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName, nameFault } from '../../../core/people'
import type { Database, Db, Value } from '../../database/database'
import { endSessionsOf } from '../../people/sessions'
import type { Person } from '../../people/people'
import { like } from '../bank/finding/search-query'
import { invitePeople } from '../classes/adding'
import { rosterChanged } from '../classes/roster-stamp'
import { grouped } from '../grouped'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

/** Somebody of the school, as who runs it sees them: no accommodations, no grades. */
export interface SchoolPerson {
  id: string
  name: string
  email: string | null
  role: 'teacher' | 'student'
  admin: boolean
  state: PersonRow['state']
  /** They have no password yet. */
  waiting: boolean
  /** Their name was taken away, and can be given back. */
  nameless: boolean
  classes: string
}

export const mostPeople = 200
export const peopleQuery = z.object({
  words: z.string().max(200, 'Search for at most 200 characters.').default(''),
  role: z.enum(['', 'teacher', 'student']).default(''),
  state: z.enum(['here', 'left']).default('here'),
  after: z.coerce.number().int().min(0).max(1_000_000).default(0),
})

/** People of a school by name, so many at a time. */
export async function listPeople(
  db: Db,
  person: Person,
  { words, role, state, after }: z.infer<typeof peopleQuery>,
): Promise<{ people: SchoolPerson[]; more: boolean; total: number }> {
  const parts: { sql: string; values: Value[] }[] = [
    { sql: 'p.school_id = ? AND p.state = ? AND p.guest = 0', values: [person.school, state] },
    ...(role ? [{ sql: 'p.role = ?', values: [role] }] : []),
    ...words
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, 8)
      .map((word) => ({ sql: "CONCAT_WS(' ', p.name, p.email) LIKE ?", values: [`%${like(word)}%`] })),
  ]
  const where = parts.map((part) => part.sql).join(' AND ')
  const values = parts.flatMap((part) => part.values)
  const [rows, total] = await Promise.all([
    db.rows<
      Pick<PersonRow, 'id' | 'name' | 'email' | 'role' | 'admin' | 'state'> & {
        waiting: number
        nameless: number
      }
    >(
      `SELECT p.id, p.name, p.email, p.role, p.admin, p.state, p.password_hash = '' AS waiting,
        EXISTS (SELECT 1 FROM nameless n WHERE n.person_id = p.id) AS nameless
      FROM person p WHERE ${where} ORDER BY p.role, p.name, p.id LIMIT ? OFFSET ?`,
      [...values, mostPeople + 1, after],
    ),
    db.one<{ n: number }>(`SELECT COUNT(*) AS n FROM person p WHERE ${where}`, values),
  ])
  const shown = rows.slice(0, mostPeople)
  const classes = await classesOf(
    db,
    shown.map(({ id }) => id),
  )
  return {
    more: rows.length > mostPeople,
    total: Number(total!.n),
    people: shown.map((row) => ({
      ...row,
      admin: Boolean(row.admin),
      waiting: Boolean(row.waiting),
      nameless: Boolean(row.nameless),
      classes: (classes.get(row.id) ?? []).map(({ name }) => name).join(', '),
    })),
  }
}

/** Names of the classes that people are in, teach or help in, by person. */
async function classesOf(db: Db, people: readonly string[]): Promise<Map<string, { name: string }[]>> {
  if (!people.length) return new Map()
  const rows = await db.rows<{ person_id: string; name: string }>(
    `SELECT m.person_id, c.name FROM (SELECT person_id, class_id FROM enrolment WHERE person_id IN (?)
      UNION ALL SELECT person_id, class_id FROM class_teacher WHERE person_id IN (?)) m
    JOIN class c ON c.id = m.class_id AND c.filed = 0 AND c.link_of IS NULL ORDER BY c.name`,
    [[...people], [...people]],
  )
  return grouped(rows, (row) => row.person_id)
}

export const newTeacher = z.strictObject({ name: z.string().max(1000), email: z.string().max(400) })

/** Lets a teacher into the school: they are written to, with a link to choose a password. */
export async function addTeacher(
  database: Database,
  person: Person,
  given: z.infer<typeof newTeacher>,
  at: string,
  now: Instant,
): Promise<{ id: string; name: string }> {
  const name = cleanName(given.name)
  const read = readAddress(given.email)
  const fault = nameFault(name) ?? (read ? null : 'Write an e-mail address, as maren@school.example.')
  if (fault) throw new Problem(422, 'teacher', fault)
  const id = newId()
  await database.transaction(async (db) => {
    const made = await db.run(
      "INSERT IGNORE INTO person (id, school_id, role, name, email, password_hash) VALUES (?, ?, 'teacher', ?, ?, '')",
      [id, person.school, name, read!.address],
    )
    if (!made) throw new Problem(422, 'address-taken', 'Somebody has this address already.')
    await recordLine(db, now, person.id, 'teacher let in', id, { name })
    await invitePeople(db, person, [id], at, now)
  })
  return { id, name }
}

export const personChange = z.strictObject({
  name: z.string().max(1000).optional(),
  /** Empty takes the address away: nobody signs in with it any more. */
  email: z.string().max(400).optional(),
  admin: z.boolean().optional(),
  state: z.enum(['here', 'left']).optional(),
})

/**
 * Changes somebody of the school. Who has left cannot come in any more and keeps all that they have sat. The last one who
 * runs the school stays so.
 */
export async function changePerson(
  database: Database,
  person: Person,
  id: string,
  change: z.infer<typeof personChange>,
  now: Instant,
): Promise<{ id: string }> {
  const set: [column: string, value: Value][] = []
  if (change.name !== undefined) {
    const name = cleanName(change.name)
    const fault = nameFault(name)
    if (fault) throw new Problem(422, 'name', fault)
    set.push(['name', name])
  }
  const email = change.email === undefined ? undefined : change.email.trim() ? addressOf(change.email) : null
  if (email !== undefined) set.push(['email', email])
  if (change.admin !== undefined) set.push(['admin', change.admin])
  if (change.state !== undefined) set.push(['state', change.state])
  return database.transaction(async (db) => {
    const before = await db.one<Pick<PersonRow, 'role' | 'email'>>(
      'SELECT role, email FROM person WHERE id = ? AND school_id = ?',
      [id, person.school],
    )
    if (!before) throw notFound('This person')
    if (change.admin && before.role !== 'teacher')
      throw new Problem(422, 'no-teacher', 'Only a teacher can run the school.')
    if (set.length)
      await db
        .run(`UPDATE person SET ${set.map(([column]) => `${column} = ?`).join(', ')} WHERE id = ?`, [
          ...set.map(([, value]) => value),
          id,
        ])
        .catch((error: unknown) => {
          if ((error as { errno?: number }).errno === 1062)
            throw new Problem(422, 'address-taken', 'Somebody has this address already.')
          throw error
        })
    await ensureRun(db, person.school)
    // A name that is kept with the address that was there signs nobody out.
    const moved = email !== undefined && email !== before.email
    if (change.state === 'left' || moved) {
      await endSessionsOf(db, id)
      // A link that went to the address before is over with it.
      await db.run('DELETE FROM pass WHERE person_id = ? AND used_at IS NULL', [id])
    }
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'person changed', id, {
      ...change,
      ...(change.email === undefined ? {} : { email: '…' }),
    })
    return { id }
  })
}

const addressOf = (text: string): string => {
  const read = readAddress(text)
  if (!read) throw new Problem(422, 'address', 'Write an e-mail address, as maren@school.example.')
  return read.address
}

/**
 * The row of the school is written, so that two who leave at once do not both find the other; and what is read is what
 * there is by now, not what there was when the transaction first looked.
 */
async function ensureRun(db: Db, school: string): Promise<void> {
  await rosterChanged(db, school)
  const left = await db.one(
    "SELECT 1 AS yes FROM person WHERE school_id = ? AND role = 'teacher' AND admin = 1 AND state = 'here' LIMIT 1 FOR UPDATE",
    [school],
  )
  if (!left) throw new Problem(422, 'last-admin', 'Somebody has to run the school. Let another teacher run it first.')
}
