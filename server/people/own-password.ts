import type { Instant } from '../../core/kit/time'
import { passwordFault } from '../../core/people'
import type { Database } from '../database/database'
import { Problem } from '../domain/problem'
import { recordLine } from '../domain/record'
import { writeLetters } from '../domain/outbox'
import { hashPassword, isPassword } from './password'
import { makePasses, passHours, passPath } from './passes'
import { findByEmail, type Person } from './people'
import { endSessionsOf } from './sessions'
import { inTurn } from './in-turn'
import { countedTry, mostAtOne, mostFromAddress } from './tries'

/** Changes one's own password (ASVS 4.0.3, 2.1.5 and 2.1.6): the old one is asked for, and every session of it is over. */
export async function changePassword(
  database: Database,
  person: Person,
  { current, next }: { current: string; next: string },
  now: Instant,
): Promise<void> {
  const known = await database.one<{ password_hash: string; email: string | null }>(
    'SELECT password_hash, email FROM person WHERE id = ?',
    [person.id],
  )
  const right = await inTurn(() =>
    countedTry(database, [{ by: `change:${person.id}`, most: mostAtOne }], now, () =>
      isPassword(current, known!.password_hash),
    ),
  )
  if (!right) throw new Problem(422, 'wrong-password', 'This is not your password until now. Try again.')
  const fault = passwordFault(next, { name: person.name, email: known!.email })
  if (fault) throw new Problem(422, 'password', fault)
  const hash = await hashPassword(next)
  await database.transaction(async (db) => {
    const changed = await db.run('UPDATE person SET password_hash = ? WHERE id = ? AND password_hash = ?', [
      hash,
      person.id,
      known!.password_hash,
    ])
    if (!changed)
      throw new Problem(409, 'changed', 'Your password has just been changed from somewhere else. Sign in again.')
    await endSessionsOf(db, person.id)
    await recordLine(db, now, person.id, 'password changed', person.id)
  })
}

/**
 * Counts that somebody asks for a link because they have forgotten a password. Nothing here depends on whether anybody
 * has the address. @throws Problem 429 where too many were asked for
 */
export async function countForgotten(database: Database, email: string, address: string, now: Instant): Promise<void> {
  // Each is counted as a try: letters to strangers are no service.
  const counted = [
    { by: `forgot:${email.trim().toLowerCase()}`, most: 4 },
    { by: `forgot-from:${address}`, most: mostFromAddress },
  ]
  await countedTry(database, counted, now, () => false)
}

/**
 * Writes a link to whoever has an address and has forgotten their password; nothing where nobody has it. It is done after
 * the request has been answered: nobody learns by the time that it takes who is here (ASVS 4.0.3, 2.5.2 and 3.7).
 * @param at where Thistle is reached: "https://quiz.example"
 */
export async function writeForgotten(database: Database, email: string, at: string, now: Instant): Promise<void> {
  const found = await findByEmail(database, email)
  if (!found) return
  await database.transaction(async (db) => {
    const [token] = (await makePasses(db, [found.id], null, passHours.forgotten, now)).values()
    const person = await db.one<{ school_id: string; email: string; name: string }>(
      'SELECT school_id, email, name FROM person WHERE id = ?',
      [found.id],
    )
    const letter = {
      to: person!.email,
      subject: 'A new password for Thistle',
      body: `Hello ${person!.name},\n\nsomebody asked for a new password for this address. If it was you, choose one here within two hours:\n\n${at}${passPath(token!)}\n\nIf it was not, there is nothing to do: your password stays as it is.\n`,
    }
    await writeLetters(db, person!.school_id, [letter], now)
  })
}
