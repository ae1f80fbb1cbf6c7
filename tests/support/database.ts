import { inject } from 'vitest'
import type { Instant } from '../../core/kit/time'
import { seedDemo } from '../../demo/seed'
import { openDatabase, patient, type Database } from '../../server/database/database'
import { migrate } from '../../server/database/migrate'
import { findPerson, type Person } from '../../server/people/people'

/** A fresh, migrated database of its own name on the test server; with the demo school if an instant is given. */
export function freshDatabase(name: string, seededAt?: Instant): Promise<{ db: Database; url: string }> {
  return laidOut(inject('mariadb'), name, seededAt)
}

/** The same on a server that is named: before tests can ask for theirs. */
export async function laidOut(
  mariadb: string,
  name: string,
  seededAt?: Instant,
): Promise<{ db: Database; url: string }> {
  const root = new URL(mariadb)
  const server = openDatabase(root.href, 1, patient)
  await server.run(`CREATE OR REPLACE DATABASE thistle_${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
  await server.close()
  root.pathname = `/thistle_${name}`
  const db = openDatabase(root.href, 12, patient)
  await migrate(db)
  if (seededAt) await seedDemo(db, seededAt)
  return { db, url: root.href }
}

export async function person(db: Database, id: string): Promise<Person> {
  return (await findPerson(db, id))!
}
