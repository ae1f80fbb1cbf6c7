import { minute, plus, type Instant } from '../../core/kit/time'
import { passwordFault } from '../../core/people'
import { toSql } from '../database/codec'
import type { Database, Db } from '../database/database'
import { Problem } from '../domain/problem'
import { recordLine } from '../domain/record'
import { hashPassword } from './password'
import { newToken, tokenKey } from './tokens'

const hour = 60 * minute
/** Hours for which a link holds: one that was asked for because a password was forgotten, and one that lets somebody in first. */
export const passHours = { forgotten: 2, invited: 14 * 24 } as const

/** Links for people, by their ids: each sets a password, once. What a person had before is over. @returns tokens, kept nowhere */
export async function makePasses(
  db: Db,
  people: readonly string[],
  by: string | null,
  hours: number,
  now: Instant,
): Promise<Map<string, string>> {
  if (!people.length) return new Map()
  const tokens = new Map(people.map((person) => [person, newToken()]))
  await db.run('DELETE FROM pass WHERE person_id IN (?) AND used_at IS NULL', [[...people]])
  const rows = await db.rows<{ id: string; again: number }>(
    "SELECT id, password_hash <> '' AS again FROM person WHERE id IN (?)",
    [[...people]],
  )
  const again = new Map(rows.map((row) => [row.id, row.again]))
  await db.run('INSERT INTO pass (token, person_id, made_by, made_at, until, again) VALUES ?', [
    [...tokens].map(([person, token]) => [
      tokenKey(token),
      person,
      by,
      toSql(now),
      toSql(plus(now, hours * hour)),
      again.get(person) ?? 0,
    ]),
  ])
  return tokens
}

/** Where a token leads. */
export const passPath = (token: string): string => `/come-in/${token}`

export interface OpenPass {
  name: string
  email: string | null
  school: string
  /** They have a password already, and choose another. */
  again: boolean
}

const over = () => new Problem(410, 'pass-over', 'This link was used already, or its time is over. Ask for a new one.')

interface Found {
  id: string
  name: string
  email: string | null
  school: string
  password_hash: string
  /** Who made the link; null where they asked for it themselves. */
  made_by: string | null
}

const find = (db: Db, token: string, now: Instant) =>
  db.one<Found>(
    `SELECT p.id, p.name, p.email, s.name AS school, p.password_hash, w.made_by FROM pass w JOIN person p ON p.id = w.person_id AND p.state = 'here'
    JOIN school s ON s.id = p.school_id WHERE w.token = ? AND w.used_at IS NULL AND w.until > ?`,
    [tokenKey(token), toSql(now)],
  )

/** Whom a link lets in. @throws Problem 410 where it was used, or is over */
export async function lookAtPass(db: Db, token: string, now: Instant): Promise<OpenPass> {
  const found = await find(db, token, now)
  if (!found) throw over()
  const { name, email, school, password_hash: hash } = found
  return { name, email, school, again: hash !== '' }
}

/**
 * Uses a link: the password is set, once, and every session of an older one is over.
 * @returns whose it is
 * @throws Problem 410 where it was used, also at this moment; 422 for a password that is too weak
 */
export async function usePass(database: Database, token: string, password: string, now: Instant): Promise<string> {
  const found = await find(database, token, now)
  if (!found) throw over()
  const fault = passwordFault(password, found)
  if (fault) throw new Problem(422, 'password', fault)
  const hash = await hashPassword(password)
  await database.transaction(async (db) => {
    const mine = await db.run('UPDATE pass SET used_at = ? WHERE token = ? AND used_at IS NULL AND until > ?', [
      toSql(now),
      tokenKey(token),
      toSql(now),
    ])
    if (!mine) throw over()
    await db.run('UPDATE person SET password_hash = ? WHERE id = ?', [hash, found.id])
    // Somebody of the school has said who they are: that they once claimed their place is settled.
    if (found.made_by !== null) await db.run('DELETE FROM claim WHERE person_id = ?', [found.id])
    await recordLine(db, now, found.id, 'password set by a link', found.id)
  })
  return found.id
}

/** Forgets links that are long over; those of which their person has to be told still, after a year. */
export async function forgetPasses(db: Db, now: Instant): Promise<void> {
  await db.run(
    'DELETE FROM pass WHERE until < ? AND (again = 0 OR made_by IS NULL OR told_at IS NOT NULL OR until < ?) LIMIT 1000',
    [toSql(plus(now, -30 * 24 * hour)), toSql(plus(now, -365 * 24 * hour))],
  )
}
