import type { Instant } from '../../../core/kit/time'
import type { Database } from '../../database/database'
import { makePasses, passHours, passPath } from '../../people/passes'
import type { Person } from '../../people/people'
import { endSessionsOf } from '../../people/sessions'
import { writeLetters } from '../outbox'
import { notFound } from '../problem'
import { recordLine } from '../record'

/**
 * A link with which somebody chooses a new password, once; it is shown to who asked for it, and written to who has an
 * address. Who asked learns no password by it, and the old one holds until the link is used; sessions are over at once.
 */
export async function linkFor(
  database: Database,
  person: Person,
  id: string,
  at: string,
  now: Instant,
): Promise<{ link: string; written: boolean; hours: number }> {
  return database.transaction(async (db) => {
    const found = await db.one<{ name: string; email: string | null; role: string }>(
      "SELECT name, email, role FROM person WHERE id = ? AND school_id = ? AND state = 'here'",
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
    return { link, written: found.email !== null, hours: passHours.invited }
  })
}
