import { z } from 'zod'
import type { PersonRow } from '../../database/tables'
import { readPasted } from '../../../formats/roster/pasted'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'

const most = 500
export const addressList = z.strictObject({
  list: z.string().max(100_000, 'This list is longer than 100,000 characters. Put it in by parts.'),
})

/** Students whom a list of addresses names, and its lines of whom the school has none. */
export interface Invited {
  students: Pick<PersonRow, 'id' | 'name'>[]
  unknown: string[]
}

/** Students of the school by a pasted list of addresses, at most 500: to invite them to a quiz by name. */
export async function studentsByAddress(db: Db, person: Pick<Person, 'school'>, list: string): Promise<Invited> {
  const lines = readPasted(list).slice(0, most)
  const addresses = lines.flatMap(({ email }) => email ?? [])
  const rows = addresses.length
    ? await db.rows<{ id: string; name: string; email: string }>(
        "SELECT id, name, email FROM person WHERE email IN (?) AND school_id = ? AND role = 'student' AND state = 'here'",
        [addresses, person.school],
      )
    : []
  const known = new Set(rows.map(({ email }) => email.toLowerCase()))
  return {
    students: rows.map(({ id, name }) => ({ id, name })),
    unknown: lines.flatMap(({ name, email }) => (email && known.has(email) ? [] : (email ?? name))),
  }
}
