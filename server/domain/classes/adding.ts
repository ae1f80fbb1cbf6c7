import { z } from 'zod'
import { readPasted } from '../../../formats/roster/pasted'
import type { Instant } from '../../../core/kit/time'
import { id } from '../../../core/question'
import type { Database, Db } from '../../database/database'
import { makePasses, passHours, passPath } from '../../people/passes'
import type { Person } from '../../people/people'
import { writeLetters } from '../outbox'
import { addToClass, type Added } from './members'

/** A list as it was pasted: a name, an address or both a line. */
export const namedList = z.strictObject({
  list: z.string().max(200_000, 'This list is longer than 200,000 characters. Bring it in from a file.'),
  /** Who has an address and no password yet is written to, with a link to choose one. */
  invite: z.boolean(),
})

export const studentIds = z.strictObject({
  students: z.array(id).min(1, 'Choose somebody first.').max(2000, 'Choose at most 2,000 at once.'),
})

export interface AddedNow extends Added {
  /** How many were written to. */
  invited: number
}

/** Puts the people of a pasted list into a class. Lines that cannot be taken are told; the others are. */
export async function addNamed(
  database: Database,
  person: Person,
  classId: string,
  { list, invite }: z.infer<typeof namedList>,
  at: string,
  now: Instant,
): Promise<AddedNow> {
  const lines = readPasted(list)
  const good = lines.filter((line) => line.fault === null)
  const added = await addToClass(database, person, classId, good, now)
  const refused = lines.flatMap(({ name, email, fault }) => (fault ? [{ name, email, sentence: fault }] : []))
  const ids = invite ? [...added.made, ...added.joined].map((each) => each.id) : []
  const invited = await database.transaction((db) => invitePeople(db, person, ids, at, now))
  return { ...added, refused: [...refused, ...added.refused], invited }
}

/** Writes a link to choose a password to those who have an address and no password yet. @returns how many */
export async function invitePeople(
  db: Db,
  person: Person,
  ids: readonly string[],
  at: string,
  now: Instant,
): Promise<number> {
  if (!ids.length) return 0
  const people = await db.rows<{ id: string; name: string; email: string; role: string; school: string }>(
    `SELECT p.id, p.name, p.email, p.role, s.name AS school FROM person p JOIN school s ON s.id = p.school_id
    WHERE p.id IN (?) AND p.school_id = ? AND p.email IS NOT NULL AND p.password_hash = ''`,
    [[...ids], person.school],
  )
  const tokens = await makePasses(
    db,
    people.map((each) => each.id),
    person.id,
    passHours.invited,
    now,
  )
  await writeLetters(
    db,
    person.school,
    people.map(({ id: whose, name, email, role, school }) => ({
      to: email,
      subject: `Come in to Thistle, ${school}`,
      body: `Hello ${name},\n\n${person.name} has ${role === 'teacher' ? `let you in as a teacher of ${school}` : `put you down for quizzes of ${school}`}. Choose a password here, within two weeks:\n\n${at}${passPath(tokens.get(whose)!)}\n\nAfterwards you sign in with this address.\n`,
    })),
    now,
  )
  return people.length
}
