import type { EnrolmentRow, PersonRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { passwordLinkRefusal } from '../../../core/people'
import type { Database, Db } from '../../database/database'
import { makePasses, passHours, passPath } from '../../people/passes'
import type { Person } from '../../people/people'
import { staysHere } from '../../standins/mail/post'
import { endSessionsOf } from '../../people/sessions'
import { writeLetters } from '../outbox'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

type Found = Pick<PersonRow, 'name' | 'email' | 'made_by'> & { waiting: number }

/** Why somebody may not make a link for a person, in a sentence; null where they may. */
export async function linkRefusal(db: Db, person: Person, id: string): Promise<string | null> {
  try {
    return (await lookUp(db, person, id)).refusal
  } catch (error) {
    if (error instanceof Problem && error.status === 404) return 'They have left the school, and can no longer sign in.'
    throw error
  }
}

async function lookUp(db: Db, person: Person, id: string): Promise<{ found: Found; refusal: string | null }> {
  const found = await db.one<Found>(
    "SELECT name, email, made_by, password_hash = '' AS waiting FROM person WHERE id = ? AND school_id = ? AND state = 'here'",
    [id, person.school],
  )
  if (!found) throw notFound('This person')
  const shared = await db.rows<Pick<EnrolmentRow, 'by_id'>>(
    "SELECT e.by_id FROM enrolment e JOIN class_teacher t ON t.class_id = e.class_id AND t.person_id = ? AND t.may = 'teach' WHERE e.person_id = ?",
    [person.id, id],
  )
  const refusal = passwordLinkRefusal(person, {
    name: found.name,
    hasPassword: !found.waiting,
    madeBy: found.made_by,
    putInBy: shared.map((row) => row.by_id),
  })
  return { found, refusal }
}

/**
 * A link with which somebody chooses a new password, once, written to who has an address. It is shown to who asked for it
 * only where no letter gets there: whoever has come in before, and has an address that mail reaches, gets it by mail alone.
 * The old password holds until the link is used; sessions are over at once. Who had a password is told of the link when
 * they next come in (server/people/link-notices.ts).
 * @throws Problem 403 where the link is not theirs to make (core/people/password-links.ts)
 */
export async function linkFor(
  database: Database,
  person: Person,
  id: string,
  at: string,
  now: Instant,
): Promise<{ link: string | null; written: boolean }> {
  return database.transaction(async (db) => {
    const { found, refusal } = await lookUp(db, person, id)
    if (refusal) throw new Problem(403, 'not-theirs', refusal)
    const token = (await makePasses(db, [id], person.id, passHours.invited, now)).get(id)!
    const link = `${at}${passPath(token)}`
    if (found.email)
      await writeLetters(
        db,
        person.school,
        [
          {
            to: found.email,
            subject: 'A new password for Thistle',
            body: `Hello ${found.name},\n\n${person.name} has made a link for you. Use it within two weeks to choose a password:\n\n${link}\n\nThe link works once.\n`,
          },
        ],
        now,
      )
    await endSessionsOf(db, id)
    await recordLine(db, now, person.id, 'link for a password made', id, { again: !found.waiting })
    const byMailAlone = found.email !== null && !found.waiting && !staysHere()
    return { link: byMailAlone ? null : link, written: found.email !== null }
  })
}
