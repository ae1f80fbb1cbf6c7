import { createHash } from 'node:crypto'
import { minute, plus, type Instant } from '../../core/kit/time'
import { toSql } from '../database/codec'
import type { Database } from '../database/database'
import { Problem } from '../domain/problem'

/** What tries are counted by, and how many there may be in a span. */
export interface Counted {
  by: string
  most: number
}
const span = 15 * minute

/** One person's tries from one place. */
export const mostAtOne = 8
/** Tries for one account, from wherever they come; more than a family of devices needs. */
export const mostForAccount = 40
/** Wrong tries from one address, which a whole school may share. */
export const mostFromAddress = 300

const key = (by: string) => createHash('sha256').update(by).digest('hex')

/**
 * Tries a password. The try is counted before, in the database, so that of any number at once, in any number of
 * processes, no more than so many are tried; a right one is taken out of the count again.
 * @param counted what it is counted by: each has to have tries left
 * @throws Problem 429 where too many were tried lately
 */
export async function countedTry(
  database: Database,
  counted: readonly Counted[],
  now: Instant,
  isRight: () => Promise<boolean> | boolean,
): Promise<boolean> {
  // Always in one order, so that two tries do not wait for each other.
  const subjects = counted
    .map(({ by, most }) => ({ subject: key(by), most }))
    .sort((a, b) => (a.subject < b.subject ? -1 : 1))
  const all = subjects.map(({ subject }) => subject)
  const [at, begins] = [toSql(now), toSql(plus(now, -span))]
  const tries = await database.transaction(async (db) => {
    for (const subject of all)
      await db.run(
        `INSERT INTO password_try (subject, since, tries) VALUES (?, ?, 1) ON DUPLICATE KEY UPDATE
        tries = IF(since > ?, tries + 1, 1), since = IF(since > ?, since, ?)`,
        [subject, at, begins, begins, at],
      )
    return db.rows<{ subject: string; tries: number }>('SELECT subject, tries FROM password_try WHERE subject IN (?)', [
      all,
    ])
  })
  const counts = new Map(tries.map((row) => [row.subject, row.tries]))
  const refused = subjects.some(({ subject, most }) => (counts.get(subject) ?? 0) > most)
  const right = !refused && (await isRight())
  // What was not tried does not count, nor what was right.
  if (refused || right)
    await database.run('UPDATE password_try SET tries = tries - 1 WHERE subject IN (?) AND tries > 0', [all])
  if (refused)
    throw new Problem(429, 'too-many-tries', 'Too many wrong tries. Wait a quarter of an hour and try again.')
  return right
}

/** Forgets tries that count no more. */
export async function forgetTries(database: Database, now: Instant): Promise<void> {
  await database.run('DELETE FROM password_try WHERE since < ? LIMIT 1000', [toSql(plus(now, -span))])
}
