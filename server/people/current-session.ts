import type { PersonRow, SchoolRow } from '../database/tables'
import type { Instant } from '../../core/kit/time'
import type { Db } from '../database/database'
import type { Person } from './people'

export interface CurrentSession {
  /** With the address that they sign in with; null for who came by a link. */
  person: (Person & { email: string | null }) | null
  school: string
  zone: string
  now: Instant
}

/**
 * What every page needs first: who is there, school, its zone, the server’s time. Before signing in it is the first
 * school.
 */
export async function currentSession(db: Db, person: Person | null, now: Instant): Promise<CurrentSession> {
  if (!person) {
    const first = await db.one<Pick<SchoolRow, 'name' | 'zone'>>('SELECT name, zone FROM school ORDER BY id LIMIT 1')
    return { person, school: first?.name ?? '', zone: first?.zone ?? 'UTC', now }
  }
  const own = await db.one<Pick<SchoolRow, 'name' | 'zone'> & Pick<PersonRow, 'email'>>(
    'SELECT s.name, s.zone, p.email FROM person p JOIN school s ON s.id = p.school_id WHERE p.id = ?',
    [person.id],
  )
  return { person: { ...person, email: own?.email ?? null }, school: own?.name ?? '', zone: own?.zone ?? 'UTC', now }
}
