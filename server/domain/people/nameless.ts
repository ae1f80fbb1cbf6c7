import type { NamelessRow, OwnValueRow, PersonRow } from '../../database/tables'
import { minute, plus, type Instant } from '../../../core/kit/time'
import { fromJson, fromSql, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { rosterChanged } from '../classes/roster-stamp'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

/** Days for which it can be taken back; then what they were called is forgotten. */
export const namelessDays = 30
const day = 24 * 60 * minute

type OwnValue = Pick<OwnValueRow, 'field_id' | 'value'>
/** Nameless before there were own fields has none of them. */
type Kept = { values?: OwnValue[] } & Pick<
  PersonRow,
  'name' | 'email' | 'outside_id' | 'accommodation' | 'need_reason' | 'password_hash'
>

/**
 * Makes somebody who has left nameless: their papers and grades stay as those of nobody, what they needed and how they
 * signed in goes. It can be taken back for thirty days.
 */
export async function makeNameless(
  database: Database,
  person: Person,
  id: string,
  now: Instant,
): Promise<{ until: Instant }> {
  const until = plus(now, namelessDays * day)
  await database.transaction(async (db) => {
    const found = await db.one<Omit<Kept, 'values'> & Pick<PersonRow, 'state' | 'role'>>(
      'SELECT name, email, outside_id, accommodation, need_reason, password_hash, state, role FROM person WHERE id = ? AND school_id = ? FOR UPDATE',
      [id, person.school],
    )
    if (!found) throw notFound('This person')
    if (found.state !== 'left' || found.role !== 'student')
      throw new Problem(422, 'here', 'Only a student who has left the school is made nameless.')
    const { state: _state, role: _role, ...known } = found
    const values = await db.rows<OwnValue>('SELECT field_id, value FROM own_value WHERE person_id = ?', [id])
    const kept: Kept = { ...known, values }
    const made = await db.run(
      'INSERT IGNORE INTO nameless (person_id, by_id, at, until, body) VALUES (?, ?, ?, ?, ?)',
      [id, person.id, toSql(now), toSql(until), toJson(kept)],
    )
    if (!made) throw new Problem(409, 'nameless', 'They are nameless already.')
    await db.run(
      "UPDATE person SET name = ?, email = NULL, outside_id = NULL, accommodation = NULL, need_reason = '', password_hash = '' WHERE id = ?",
      [`Former student ${id.slice(-4)}`, id],
    )
    await db.run('DELETE FROM pass WHERE person_id = ?', [id])
    await db.run('DELETE FROM own_value WHERE person_id = ?', [id])
    await db.run('DELETE FROM claim WHERE person_id = ?', [id])
    // Letters have their name and address in them.
    if (found.email)
      await db.run('DELETE FROM mail WHERE school_id = ? AND to_address = ?', [person.school, found.email])
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'made nameless', id)
  })
  return { until }
}

/** Gives somebody their name back. @throws Problem 410 where it is forgotten */
export async function giveNameBack(
  database: Database,
  person: Person,
  id: string,
  now: Instant,
): Promise<{ name: string }> {
  return database.transaction(async (db) => {
    const row = await db.one<Pick<NamelessRow, 'body' | 'until'>>(
      'SELECT n.body, n.until FROM nameless n JOIN person p ON p.id = n.person_id WHERE n.person_id = ? AND p.school_id = ? FOR UPDATE',
      [id, person.school],
    )
    if (!row || fromSql(row.until) <= now)
      throw new Problem(410, 'forgotten', 'Their name is not kept any more, or was never taken away.')
    const kept = fromJson<Kept>(row.body)
    // Somebody else may have the address or the id by now.
    const taken = async (column: 'email' | 'outside_id', value: string | null) =>
      value !== null &&
      (await db.one(`SELECT 1 AS yes FROM person WHERE ${column} = ? AND school_id = ?`, [value, person.school]))
        ? null
        : value
    await db.run(
      'UPDATE person SET name = ?, email = ?, outside_id = ?, accommodation = ?, need_reason = ?, password_hash = ? WHERE id = ?',
      [
        kept.name,
        await taken('email', kept.email),
        await taken('outside_id', kept.outside_id),
        kept.accommodation,
        kept.need_reason,
        kept.password_hash,
        id,
      ],
    )
    if (kept.values?.length)
      await db.run('INSERT INTO own_value (person_id, field_id, value) VALUES ?', [
        kept.values.map((each) => [id, each.field_id, each.value]),
      ])
    await db.run('DELETE FROM nameless WHERE person_id = ?', [id])
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'name given back', id)
    return { name: kept.name }
  })
}

/** Forgets what people were called who were made nameless thirty days ago. */
export async function forgetNames(db: Db, now: Instant): Promise<void> {
  // Notes of their own may name them as well.
  await db.run(
    'DELETE n FROM attempt_note n JOIN attempt a ON a.id = n.attempt_id JOIN nameless x ON x.person_id = a.student_id WHERE x.until < ?',
    [toSql(now)],
  )
  await db.run('DELETE FROM nameless WHERE until < ? LIMIT 1000', [toSql(now)])
}
