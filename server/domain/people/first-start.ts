import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import { cleanName } from '../../../core/people'
import { alone } from '../../database/alone'
import type { Database } from '../../database/database'
import { hasSchool } from '../../people/people'
import { hashPassword } from '../../people/password'
import { newId } from '../ids'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { newcomer, newPerson } from '../classes/joining'

export const schoolName = z
  .string()
  .transform(cleanName)
  .pipe(z.string().min(1, 'Give the school a name.').max(160, 'The name of a school has at most 160 characters.'))
/** An IANA zone that this machine knows. */
export const zone = z.string().refine((name) => {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }) !== null
  } catch {
    return false
  }
}, 'Choose a time zone of the list.')

export const firstStart = newcomer.extend({ school: schoolName, zone })

/**
 * Lays out a school and its first teacher, who runs it: where there is no school yet, and once, whoever else asks at the
 * same time. @returns the teacher's id
 */
export async function makeSchool(
  database: Database,
  { school, zone: where, ...teacher }: z.infer<typeof firstStart>,
  now: Instant,
): Promise<string> {
  if (await hasSchool(database)) throw there()
  const { name, email } = newPerson(teacher)
  const hash = await hashPassword(teacher.password)
  const [schoolId, id] = [newId(), newId()]
  await alone(database, 'make a school', async () => {
    if (await hasSchool(database)) throw there()
    await database.transaction(async (db) => {
      await db.run('INSERT INTO school (id, name, zone) VALUES (?, ?, ?)', [schoolId, school, where])
      await db.run(
        "INSERT INTO person (id, school_id, role, name, email, password_hash, admin) VALUES (?, ?, 'teacher', ?, ?, ?, 1)",
        [id, schoolId, name, email, hash],
      )
      await recordLine(db, now, id, 'school made', schoolId, { name: school, zone: where })
    })
  })
  return id
}

const there = () => new Problem(409, 'there-already', 'There is a school here already. Sign in, or ask who runs it.')
