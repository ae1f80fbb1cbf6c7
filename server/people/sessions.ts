import { minute, plus, type Instant } from '../../core/kit/time'
import { fromSql, toSql } from '../database/codec'
import type { Db } from '../database/database'
import { Remembered } from '../database/remembered'
import type { Person } from './people'
import { newToken, tokenKey } from './tokens'

const day = 24 * 60 * minute
/** A session that is not used ends after so long. */
export const lifetime = 14 * day

interface Found {
  person: Person
  until: Instant
}

/** What has been looked up lately in this process: so long a session outlives its end here, at most. */
const found = new Remembered<{ session: Promise<Found | null>; at: Instant }>(5000)
const remembered = 3000

async function lookUp(db: Db, token: string, now: Instant): Promise<Found | null> {
  const row = await db.one<Omit<Person, 'admin' | 'guest'> & { until: string; admin: number; guest: number }>(
    `SELECT p.id, p.school_id AS school, p.role, p.name, p.admin, p.guest, c.zone, s.until FROM session s
    JOIN person p ON p.id = s.person_id AND p.role = s.role AND p.state = 'here' AND s.password_mark = CONVERT(SHA2(p.password_hash, 256) USING ascii)
    JOIN school c ON c.id = p.school_id WHERE s.token = ? AND s.until > ?`,
    [token, toSql(now)],
  )
  if (!row) return null
  const { until, admin, guest, ...person } = row
  return { person: { ...person, admin: Boolean(admin), guest: Boolean(guest) }, until: fromSql(until) }
}

/**
 * Who a session's token belongs to; null where it is over: signed out, unused for two weeks, or of a password or a role
 * that the person has no more. Looked up again after a few seconds.
 */
export async function sessionPerson(db: Db, given: string, now: Instant): Promise<Person | null> {
  const token = tokenKey(given)
  const known = found.get(token)
  if (known && known.at <= now && now < plus(known.at, remembered)) {
    const session = await known.session
    return session && session.until > now ? session.person : null
  }
  const session = lookUp(db, token, now)
  found.set(token, { session, at: now })
  try {
    const read = await session
    if (!read) found.delete(token)
    // Used, so it lasts: written at most once a day.
    else if (read.until < plus(now, lifetime - day))
      await db.run('UPDATE session SET until = ? WHERE token = ?', [toSql(plus(now, lifetime)), token])
    return read?.person ?? null
  } catch (error) {
    found.delete(token)
    throw error
  }
}

/** Begins a session. @returns its token, for the cookie alone */
export async function beginSession(db: Db, person: string, now: Instant): Promise<string> {
  const token = newToken()
  await db.run(
    'INSERT INTO session (token, person_id, role, password_mark, until, begun_at) SELECT ?, id, role, SHA2(password_hash, 256), ?, ? FROM person WHERE id = ?',
    [tokenKey(token), toSql(plus(now, lifetime)), toSql(now), person],
  )
  return token
}

/** Ends a session: here at once, in other processes within a few seconds. */
export async function endSession(db: Db, given: string): Promise<void> {
  const token = tokenKey(given)
  found.delete(token)
  await db.run('DELETE FROM session WHERE token = ?', [token])
}

/** Ends all sessions of a person, on whatever device: in other processes within a few seconds. */
export async function endSessionsOf(db: Db, person: string): Promise<void> {
  await db.run('DELETE FROM session WHERE person_id = ?', [person])
  found.clear()
}

/** Forgets sessions that are over. */
export async function forgetSessions(db: Db, now: Instant): Promise<void> {
  await db.run('DELETE FROM session WHERE until < ? LIMIT 1000', [toSql(now)])
}
