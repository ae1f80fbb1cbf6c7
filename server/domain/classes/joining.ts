import { z } from 'zod'
import { readAddress } from '../../../formats/roster/address'
import type { Instant } from '../../../core/kit/time'
import { cleanName, nameFault, passwordFault } from '../../../core/people'
import type { Database } from '../../database/database'
import { hashPassword } from '../../people/password'
import { inTurn } from '../../people/in-turn'
import { countedTry, mostForAccount } from '../../people/tries'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { Problem } from '../problem'
import { freePlace, takePlace } from './claims'
import { classByCode } from './join-codes'
import { enrol } from './members'

export interface Joined {
  name: string
  /** They were in it before. */
  already: boolean
}

/** A student of the school joins a class by its code; twice is once. */
export async function joinClass(
  database: Database,
  person: Person,
  typed: string,
  address: string,
  now: Instant,
): Promise<Joined> {
  if (person.guest)
    throw new Problem(
      403,
      'guest',
      'You came by a link, without a password. Sign out first, then join with a name and a password of your own.',
    )
  const { id, name } = await classByCode(database, typed, { address, person }, now)
  return database.transaction(async (db) => {
    const already = await db.one('SELECT 1 AS yes FROM enrolment WHERE class_id = ? AND person_id = ?', [id, person.id])
    if (!already) await enrol(db, person, id, [person.id], now, (student) => student)
    return { name, already: Boolean(already) }
  })
}

export const newcomer = z.strictObject({
  name: z.string().max(1000),
  email: z.string().max(400),
  password: z.string().max(1000),
})
/** Somebody who joins a class by its code; with the number that the school knows them by, where they have one. */
export const joiner = newcomer.extend({ number: z.string().trim().max(100).optional() })

const taken = new Problem(
  422,
  'address-taken',
  'Somebody signs in with this address already. If it is you, sign in first and type the code again. If the school has put you down under this address in another class, ask your teacher to add you to this one.',
)
/** Newcomers to one class within a quarter of an hour: more than any class has. */
const mostNewcomers = 1000

/**
 * Somebody joins a class by its code, with a password of their own. Whoever the class has down under their address or
 * number already, and who has not come in yet, takes that place; anybody else is new.
 * @returns their id
 * @throws Problem 422 for what cannot be taken, or an address that somebody has; 429 where too many numbers were tried
 */
export async function joinAsNew(
  database: Database,
  typed: string,
  { number: typedNumber, ...given }: z.infer<typeof joiner>,
  address: string,
  now: Instant,
): Promise<string> {
  const found = await classByCode(database, typed, { address, person: null }, now)
  // Counted by class, since a whole school may come from one address.
  await countedTry(database, [{ by: `newcomer:${found.id}`, most: mostNewcomers }], now, () => false)
  const number = typedNumber || null
  const email = readAddress(given.email)?.address ?? null
  const place = await freePlace(database, found.id, { email, number })
  const isWrong = number !== null && place?.knownBy !== 'number'
  // Numbers follow each other and could be gone through: wrong ones are counted, for all who come from one address.
  if (number !== null)
    await countedTry(database, [{ by: `number:${found.id}:${address}`, most: mostForAccount }], now, () => !isWrong)
  if (isWrong)
    throw new Problem(
      422,
      'no-number',
      `Nobody in ${found.name} is waiting under this number. Check it, or leave it empty and join as new.`,
    )
  if (place) {
    const name = cleanName(given.name)
    const fault = nameFault(name) ?? passwordFault(given.password, { name, email: place.email ?? email })
    if (fault) throw new Problem(422, 'newcomer', fault)
    const hash = await inTurn(() => hashPassword(given.password))
    await takePlace(database, place, found.id, { name, email, hash }, now)
    return place.id
  }
  const who = newPerson(given)
  const hash = await inTurn(() => hashPassword(given.password))
  const id = newId()
  await database.transaction(async (db) => {
    const made = await db.run(
      "INSERT IGNORE INTO person (id, school_id, role, name, email, password_hash) VALUES (?, ?, 'student', ?, ?, ?)",
      [id, found.school_id, who.name, who.email, hash],
    )
    if (!made) throw taken
    await enrol(db, { id, school: found.school_id }, found.id, [id], now, (student) => student)
  })
  return id
}

/** A name, an address and a password as they are kept. @throws Problem 422 for what cannot be taken */
export function newPerson({ name, email, password }: z.infer<typeof newcomer>): { name: string; email: string } {
  const clean = cleanName(name)
  const read = readAddress(email)
  const fault =
    nameFault(clean) ??
    (read ? null : 'Write an e-mail address, as petra@school.example.') ??
    passwordFault(password, { name: clean, email: read!.address })
  if (fault) throw new Problem(422, 'newcomer', fault)
  return { name: clean, email: read!.address }
}
