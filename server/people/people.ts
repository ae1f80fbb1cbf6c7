import type { Db } from '../database/database'

export interface Person {
  id: string
  school: string
  role: 'teacher' | 'student'
  name: string
  zone: string
  /** Runs the school: its people, terms and zone. */
  admin: boolean
  /** Came by a link without signing in: nothing lets them in again but this session. */
  guest: boolean
}

/** One of the demo school's people, to come in as. */
export interface DemoPerson {
  id: string
  role: 'teacher' | 'student'
  name: string
  email: string
  /** Names of the classes of a student, with commas; null without any. */
  classes: string | null
}

/** A person with their school and its zone; undefined where there is none. */
export async function findPerson(db: Db, id: string): Promise<Person | undefined> {
  const row = await db.one<Omit<Person, 'admin' | 'guest'> & { admin: number; guest: number }>(
    'SELECT p.id, p.school_id AS school, p.role, p.name, p.admin, p.guest, s.zone FROM person p JOIN school s ON s.id = p.school_id WHERE p.id = ?',
    [id],
  )
  return row && { ...row, admin: Boolean(row.admin), guest: Boolean(row.guest) }
}

/**
 * Who an e-mail address belongs to, written in whatever case, with the hash of their password; undefined where nobody.
 */
export async function findByEmail(db: Db, email: string): Promise<{ id: string; password_hash: string } | undefined> {
  return db.one("SELECT id, password_hash FROM person WHERE email = ? AND state = 'here' AND password_hash <> ''", [
    email.trim().toLowerCase(),
  ])
}

/** People of a demo school, teachers first; empty where no school is one. */
export async function demoPeople(db: Db): Promise<DemoPerson[]> {
  return db.rows(`SELECT p.id, p.role, p.name, p.email, GROUP_CONCAT(c.name ORDER BY c.name SEPARATOR ', ') AS classes
    FROM person p JOIN school s ON s.id = p.school_id AND s.demo = 1
    LEFT JOIN enrolment e ON e.person_id = p.id LEFT JOIN class c ON c.id = e.class_id
    GROUP BY p.id ORDER BY p.role, p.name`)
}

/** Whether anything has been laid out in this database. */
export async function hasSchool(db: Db): Promise<boolean> {
  return Boolean(await db.one('SELECT 1 AS yes FROM school LIMIT 1'))
}
