import { createHash, timingSafeEqual } from 'node:crypto'
import { minute, plus, type Instant } from '../../core/kit/time'
import { toSql } from '../database/codec'
import type { Db } from '../database/database'
import { newId } from '../domain/ids'
import { Problem } from '../domain/problem'
import { hashPassword, isPassword } from './password'
import { findByEmail } from './people'

const most = 8
const span = 15 * minute

/** Refuses when too many tries have failed for a subject lately; counted in the database, so for all processes. */
export async function ensureFewFailures(db: Db, subject: string, now: Instant): Promise<void> {
  const failed = await db.one<{ n: number }>('SELECT COUNT(*) AS n FROM failed_try WHERE subject = ? AND at > ?', [
    subject,
    toSql(plus(now, -span)),
  ])
  if (failed && Number(failed.n) >= most)
    throw new Problem(429, 'too-many-tries', 'Too many wrong tries. Wait a quarter of an hour and try again.')
}

/** Counts a wrong try for a subject, and forgets tries of more than a day ago. */
export async function noteFailure(db: Db, subject: string, now: Instant): Promise<void> {
  await db.run('INSERT INTO failed_try (id, subject, at) VALUES (?, ?, ?)', [newId(), subject, toSql(now)])
  await db.run('DELETE FROM failed_try WHERE at < ?', [toSql(plus(now, -24 * 60 * minute))])
}

let nobody: Promise<string> | undefined

/** The person whose e-mail and password these are. An unknown address takes as long as a wrong password. */
export async function signIn(db: Db, email: string, password: string, now: Instant): Promise<string> {
  const subject = `sign-in:${email.trim().toLowerCase()}`.slice(0, 190)
  await ensureFewFailures(db, subject, now)
  const person = await findByEmail(db, email)
  const right = await isPassword(password, person?.password_hash ?? (await (nobody ??= hashPassword('nobody'))))
  if (person && right) return person.id
  await noteFailure(db, subject, now)
  throw new Problem(401, 'wrong-password', 'This e-mail and password do not belong together. Check both and try again.')
}

/** Compares a quiz password without telling by time how much of it was right. */
export function samePassword(given: string, wanted: string): boolean {
  const digest = (text: string) => createHash('sha256').update(text.trim().normalize('NFC')).digest()
  return timingSafeEqual(digest(given), digest(wanted))
}
