import type { Instant } from '../../core/kit/time'
import type { Database } from '../database/database'
import { Problem } from '../domain/problem'
import { inTurn } from './in-turn'
import { isKnownTo, noteBrowser } from './known-browsers'
import { hashPassword, isDated, isPassword, passwordMark } from './password'
import { findByEmail } from './people'
import { countedTry, mostAtOne, mostForAccount, mostFromAddress, type Counted } from './tries'

/** Where somebody signs in from. */
export interface From {
  /** The network address, as far as it says who it is. */
  address: string
  /** What the browser is known by, if it has been here before. */
  browser: string
}

let nobody: Promise<string> | undefined

/** What the database takes for the same e-mail address, as one text. */
async function asCompared(database: Database, email: string): Promise<string> {
  const row = await database.one<{ same: string }>(
    'SELECT HEX(WEIGHT_STRING(RTRIM(CONVERT(? USING utf8mb4)) COLLATE utf8mb4_unicode_ci)) AS same',
    [email],
  )
  return row!.same
}

/** In a browser where they have been before, nobody else's tries stand in somebody's way. */
function countedBy(account: string, { address, browser }: From, known: boolean): Counted[] {
  return known
    ? [{ by: `known:${account}:${browser}`, most: mostAtOne }]
    : [
        { by: `at:${account}:${address}`, most: mostAtOne },
        { by: `account:${account}`, most: mostForAccount },
        { by: `from:${address}`, most: mostFromAddress },
      ]
}

/** A hash that has become too cheap is made anew while its password is at hand; sessions go on. */
async function renewHash(database: Database, person: string, password: string, old: string): Promise<void> {
  const hash = await hashPassword(password)
  await database.transaction(async (db) => {
    const renewed = await db.run('UPDATE person SET password_hash = ? WHERE id = ? AND password_hash = ?', [
      hash,
      person,
      old,
    ])
    if (renewed)
      await db.run('UPDATE session SET password_mark = ? WHERE person_id = ? AND password_mark = ?', [
        passwordMark(hash),
        person,
        passwordMark(old),
      ])
  })
}

/** The person whose e-mail and password these are. An unknown address takes as long as a wrong password. */
export async function signIn(
  database: Database,
  email: string,
  password: string,
  from: From,
  now: Instant,
): Promise<string> {
  const person = await findByEmail(database, email)
  const known = Boolean(person && (await isKnownTo(database, person.id, from.browser)))
  const counted = countedBy(await asCompared(database, email.trim()), from, known)
  const right = await inTurn(() =>
    countedTry(database, counted, now, async () => {
      const same = await isPassword(password, person?.password_hash ?? (await (nobody ??= hashPassword('nobody'))))
      return same && person !== undefined
    }),
  )
  if (!person || !right)
    throw new Problem(
      401,
      'wrong-password',
      'This e-mail and password do not belong together. Check both and try again.',
    )
  if (isDated(person.password_hash)) await renewHash(database, person.id, password, person.password_hash)
  await noteBrowser(database, person.id, from.browser, now)
  return person.id
}
