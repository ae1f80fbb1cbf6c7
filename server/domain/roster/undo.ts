import type { RosterTakenRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { inBatches, mapInOrder } from '../../database/batches'
import { fromJson, fromSql, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { rosterChanged } from '../classes/roster-stamp'
import { grouped } from '../grouped'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import { enrolAll, writePeople, type RosterDone } from './take'

export interface TakenRoster {
  id: string
  name: string
  at: Instant
  by: string
  undoneAt: Instant | null
}

/** Rosters that were taken in, the latest first. */
export async function listTaken(db: Db, person: Person): Promise<TakenRoster[]> {
  const rows = await db.rows<Pick<RosterTakenRow, 'id' | 'name' | 'at' | 'undone_at'> & { by: string }>(
    'SELECT r.id, r.name, r.at, r.undone_at, p.name AS `by` FROM roster_taken r JOIN person p ON p.id = r.by_id WHERE r.school_id = ? ORDER BY r.at DESC LIMIT 20',
    [person.school],
  )
  return rows.map(({ undone_at: undone, ...row }) => ({
    ...row,
    at: fromSql(row.at),
    undoneAt: undone && fromSql(undone),
  }))
}

const atOnce = 500
const same = (a: object, b: object) => JSON.stringify(a) === JSON.stringify(b)

/**
 * Takes a roster back as one act: who was new goes again, who changed is as before, who was put into a class is out of it.
 * Whoever has come in, sat or changed since stays as they are by now, and that is told.
 */
export async function undoRoster(
  database: Database,
  person: Person,
  id: string,
  now: Instant,
): Promise<{ stayed: number; taken: TakenRoster[] }> {
  return database.transaction(async (db) => {
    const row = await db.one<Pick<RosterTakenRow, 'body'>>(
      'SELECT body FROM roster_taken WHERE id = ? AND school_id = ?',
      [id, person.school],
    )
    if (!row) throw notFound('This roster')
    const mine = await db.run('UPDATE roster_taken SET undone_at = ? WHERE id = ? AND undone_at IS NULL', [
      toSql(now),
      id,
    ])
    if (!mine) throw new Problem(409, 'undone', 'This roster was taken back already.')
    const stayed = await undo(db, fromJson<RosterDone>(row.body), now)
    await rosterChanged(db, person.school)
    await recordLine(db, now, person.id, 'roster taken back', id, { stayed })
    return { stayed, taken: await listTaken(db, person) }
  })
}

async function undo(db: Db, done: RosterDone, now: Instant): Promise<number> {
  await enrolAll(db, done.out, now)
  await mapInOrder([...grouped(done.enrolled, (each) => each.class)], ([klass, each]) =>
    inBatches(each, atOnce, async (part) => {
      const ids = part.map((one) => one.person)
      await db.run(
        'DELETE m FROM class_group_member m JOIN class_group g ON g.id = m.group_id WHERE g.class_id = ? AND m.person_id IN (?)',
        [klass, ids],
      )
      await db.run('DELETE FROM enrolment WHERE class_id = ? AND person_id IN (?)', [klass, ids])
    }),
  )
  await inBatches(done.teaching, atOnce, (part) =>
    db.run('DELETE FROM class_teacher WHERE (class_id, person_id) IN (?)', [
      part.map((each) => [each.class, each.person]),
    ]),
  )
  // Those who were new go first: one of them may have the address that somebody had before.
  const gone = await takeAway(db, done.made)
  const reverted = await revert(db, done.changed)
  // A class that is used by now, and a term with other classes, stay.
  await inBatches(done.classes, atOnce, (part) =>
    db.run(
      `DELETE c FROM class c WHERE c.id IN (?) AND NOT EXISTS (SELECT 1 FROM enrolment e WHERE e.class_id = c.id)
      AND NOT EXISTS (SELECT 1 FROM class_teacher t WHERE t.class_id = c.id) AND NOT EXISTS (SELECT 1 FROM quiz_class q WHERE q.class_id = c.id)
      AND NOT EXISTS (SELECT 1 FROM class_group g WHERE g.class_id = c.id) AND NOT EXISTS (SELECT 1 FROM left_class l WHERE l.class_id = c.id)`,
      [part],
    ),
  )
  if (done.terms.length)
    await db.run(
      'DELETE t FROM term t WHERE t.id IN (?) AND NOT EXISTS (SELECT 1 FROM class c WHERE c.term_id = t.id)',
      [done.terms],
    )
  return done.changed.length - reverted + done.made.length - gone
}

/** Those who are still as the roster left them are as they were before it. @returns how many */
async function revert(db: Db, changed: RosterDone['changed']): Promise<number> {
  const back: typeof changed = []
  await inBatches(changed, atOnce, async (part) => {
    const ids = part.map(({ id }) => id)
    const rows = await db.rows<RosterDone['changed'][number]['now'] & { id: string }>(
      'SELECT id, name, email, outside_id AS outsideId, state FROM person WHERE id IN (?)',
      [ids],
    )
    const byId = new Map(rows.map(({ id, ...now }) => [id, now]))
    const wanted = part.flatMap(({ was: { email } }) => email ?? [])
    const others = wanted.length
      ? await db.rows<{ email: string }>('SELECT email FROM person WHERE email IN (?) AND id NOT IN (?)', [
          wanted,
          changed.map(({ id }) => id),
        ])
      : []
    // An address that somebody else has by now is not taken from them.
    const had = new Set(others.map(({ email }) => email))
    back.push(...part.filter(({ id, was, now }) => same(byId.get(id) ?? {}, now) && !had.has(was.email ?? '')))
  })
  await writePeople(
    db,
    back.map(({ id, was }) => ({ id, kept: was })),
  )
  return back.length
}

/** Those who were new and have done nothing since are taken away again. @returns how many */
async function takeAway(db: Db, made: readonly string[]): Promise<number> {
  let gone = 0
  await inBatches(made, atOnce, async (part) => {
    const free = await db.rows<{ id: string }>(
      `SELECT p.id FROM person p WHERE p.id IN (?) AND p.password_hash = '' AND p.accommodation IS NULL AND p.need_reason = ''
      AND NOT EXISTS (SELECT 1 FROM attempt a WHERE a.student_id = p.id) AND NOT EXISTS (SELECT 1 FROM enrolment e WHERE e.person_id = p.id)
      AND NOT EXISTS (SELECT 1 FROM class_teacher t WHERE t.person_id = p.id) AND NOT EXISTS (SELECT 1 FROM left_class l WHERE l.person_id = p.id)
      AND NOT EXISTS (SELECT 1 FROM quiz_student q WHERE q.person_id = p.id) AND NOT EXISTS (SELECT 1 FROM own_value v WHERE v.person_id = p.id)
      AND NOT EXISTS (SELECT 1 FROM quiz_notice n WHERE n.person_id = p.id) AND NOT EXISTS (SELECT 1 FROM link_entry l WHERE l.person_id = p.id)`,
      [part],
    )
    if (!free.length) return
    const ids = free.map((row) => row.id)
    await db.run('DELETE FROM pass WHERE person_id IN (?)', [ids])
    await db.run('DELETE FROM told WHERE person_id IN (?)', [ids])
    gone += await db.run('DELETE FROM person WHERE id IN (?)', [ids])
  })
  return gone
}
