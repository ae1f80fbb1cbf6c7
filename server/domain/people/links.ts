import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { makePasses, passHours, passPath } from '../../people/passes'
import type { Person } from '../../people/people'
import { staysHere } from '../../standins/mail/post'
import { endSessionsOf } from '../../people/sessions'
import { writeLetters } from '../outbox'
import { notFound } from '../problem'
import { recordLine } from '../record'

/**
 * A link with which somebody chooses a new password, once, written to who has an address. It is shown to who asked for it
 * only where no letter gets there: whoever has come in before, and has an address that mail reaches, gets it by mail alone, so
 * that nobody comes in as somebody else by putting them into a class. The old password holds until the link is used;
 * sessions are over at once.
 */
export async function linkFor(
  database: Database,
  person: Person,
  id: string,
  at: string,
  now: Instant,
): Promise<{ link: string | null; written: boolean }> {
  return database.transaction(async (db) => {
    const found = await db.one<{ name: string; email: string | null; waiting: number }>(
      "SELECT name, email, password_hash = '' AS waiting FROM person WHERE id = ? AND school_id = ? AND state = 'here'",
      [id, person.school],
    )
    if (!found) throw notFound('This person')
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
            body: `Hello ${found.name},\n\n${person.name} has made a link for you, with which you choose a password within two weeks:\n\n${link}\n\nIt works once.\n`,
          },
        ],
        now,
      )
    await endSessionsOf(db, id)
    await recordLine(db, now, person.id, 'link for a password made', id)
    const byMailAlone = found.email !== null && !found.waiting && !staysHere()
    return { link: byMailAlone ? null : link, written: found.email !== null }
  })
}
