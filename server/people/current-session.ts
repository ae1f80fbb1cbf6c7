import type { SchoolRow } from '../database/tables'
import type { Instant } from '../../core/kit/time'
import type { Db } from '../database/database'
import type { Person } from './people'

export interface CurrentSession {
  person: Person | null
  school: string
  zone: string
  now: Instant
}

/**
 * What every page needs first: who is there, school, its zone, the server’s time. Before signing in it is the first
 * school.
 */
export async function currentSession(db: Db, person: Person | null, now: Instant): Promise<CurrentSession> {
  const school = person
    ? await db.one<Pick<SchoolRow, 'name' | 'zone'>>('SELECT name, zone FROM school WHERE id = ?', [person.school])
    : await db.one<Pick<SchoolRow, 'name' | 'zone'>>('SELECT name, zone FROM school ORDER BY id LIMIT 1')
  return { person, school: school?.name ?? '', zone: school?.zone ?? 'UTC', now }
}
