import type { ClaimRow, PersonRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { fromSql, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { endSessionsOf } from '../../people/sessions'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

/** How a student of a roster came in without a link: what they knew, and what they wrote themself. */
export interface Claim {
  knownBy: 'address' | 'number'
  name: string
  at: Instant
}

/** A place of a class that nobody has come in to yet. */
export type Place = Pick<PersonRow, 'id' | 'name' | 'email'> & { knownBy: Claim['knownBy'] }

/**
 * What makes a place of a class one that its teachers answer for: roster or administrator put the student there, or the
 * teacher who created them (core/people/password-links.ts). A student whom a teacher merely added, or who joined by
 * themself, is claimed in their own class alone.
 */
const isGiven = '(e.by_id IS NULL OR e.by_id = p.made_by)'

/** The place in a class that an address or a number belongs to and that nobody has taken; undefined for none. */
export async function freePlace(
  db: Db,
  classId: string,
  { email, number }: { email: string | null; number: string | null },
): Promise<Place | undefined> {
  const rows = await db.rows<Pick<PersonRow, 'id' | 'name' | 'email' | 'outside_id'>>(
    `SELECT p.id, p.name, p.email, p.outside_id FROM person p JOIN enrolment e ON e.person_id = p.id AND e.class_id = ?
    WHERE p.role = 'student' AND p.state = 'here' AND p.password_hash = '' AND p.guest = 0 AND ${isGiven} AND (p.email = ? OR p.outside_id = ?)`,
    [classId, email, number],
  )
  // A number says more: an address may have been written down for two.
  const byNumber = rows.find((row) => number !== null && row.outside_id === number)
  const found = byNumber ?? rows[0]
  return found && { ...found, knownBy: byNumber ? 'number' : 'address' }
}

/**
 * Somebody takes their place, once: it gets their password, and their address where it had none. Of two at once one has
 * it. @throws Problem 409 where it was taken at this moment; 422 where somebody else has the address
 */
export async function takePlace(
  database: Database,
  place: Place,
  classId: string,
  given: { name: string; email: string | null; hash: string },
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    if (place.email !== null && given.email !== null && place.email !== given.email)
      throw new Problem(
        422,
        'other-address',
        `The school has another e-mail address for you: it begins with “${place.email[0]}” and ends in “${place.email.slice(place.email.lastIndexOf('@'))}”. Use that one.`,
      )
    const email = place.email ?? given.email
    if (email === null)
      throw new Problem(422, 'no-address', 'Give an e-mail address too: you sign in with it afterwards.')
    const taken = await db
      .run("UPDATE person SET password_hash = ?, email = ? WHERE id = ? AND password_hash = ''", [
        given.hash,
        email,
        place.id,
      ])
      .catch((error: unknown) => {
        if ((error as { errno?: number }).errno !== 1062) throw error
        throw new Problem(422, 'address-taken', 'Somebody signs in with this address already. Use another one.')
      })
    if (!taken)
      throw new Problem(409, 'place-taken', 'Somebody has just taken this place. If it was not you, tell your teacher.')
    // Links that were made for them are over.
    await db.run('DELETE FROM pass WHERE person_id = ? AND used_at IS NULL', [place.id])
    await db.run('REPLACE INTO claim (person_id, known_by, name, email_before, at) VALUES (?, ?, ?, ?, ?)', [
      place.id,
      place.knownBy,
      given.name,
      place.email,
      toSql(now),
    ])
    await recordLine(db, now, place.id, 'place claimed', place.id, { class: classId, by: place.knownBy })
  })
}

/** Who of a class claimed their place, by student. */
export async function claimsOf(db: Db, classId: string): Promise<Map<string, Claim>> {
  const rows = await db.rows<ClaimRow>(
    `SELECT c.* FROM claim c JOIN person p ON p.id = c.person_id JOIN enrolment e ON e.person_id = p.id
    WHERE e.class_id = ? AND ${isGiven}`,
    [classId],
  )
  return new Map(
    rows.map((row) => [
      row.person_id,
      { knownBy: row.known_by as Claim['knownBy'], name: row.name, at: fromSql(row.at) },
    ]),
  )
}

/**
 * Takes a claim back: the person who made it is signed out and can no longer sign in, by a link they asked for neither;
 * the address is as it was, and the place can be claimed again. What was sat stays with the place.
 * @throws Problem 404 where nobody claimed a place of this class
 */
export async function takeClaimBack(
  database: Database,
  person: Person,
  classId: string,
  student: string,
  now: Instant,
): Promise<void> {
  await database.transaction(async (db) => {
    const claim = await db.one<Pick<ClaimRow, 'email_before'>>(
      `SELECT c.email_before FROM claim c JOIN person p ON p.id = c.person_id
      JOIN enrolment e ON e.person_id = p.id AND e.class_id = ? WHERE c.person_id = ? AND ${isGiven}`,
      [classId, student],
    )
    if (!claim || !(await db.run('DELETE FROM claim WHERE person_id = ?', [student]))) throw notFound('This claim')
    await db.run("UPDATE person SET password_hash = '', email = ? WHERE id = ?", [claim.email_before, student])
    await db.run('DELETE FROM pass WHERE person_id = ? AND used_at IS NULL', [student])
    await db.run('DELETE FROM known_browser WHERE person_id = ?', [student])
    await db.run('DELETE FROM calendar_address WHERE person_id = ?', [student])
    await endSessionsOf(db, student)
    await recordLine(db, now, person.id, 'claim taken back', student, { class: classId })
  })
}
