import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import type { RosterPlan } from '../../../core/roster'
import { byKey } from '../../database/by-key'
import { inBatches, mapInOrder } from '../../database/batches'
import { toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { makePeople, takeOut } from '../classes/members'
import { stampRoster } from '../classes/roster-stamp'
import { guardRoster } from '../quizzes/start-guard'
import { grouped } from '../grouped'
import { newId } from '../ids'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { planRoster, rosterFiles } from './look'

export const rosterTaking = rosterFiles.extend({
  mark: z.string().max(64),
  /** Who is in a class of the file and does not stand in it there is taken out of the class. */
  takeOut: z.boolean(),
})

/** What was done, so that it can be undone. */
export interface RosterDone {
  made: string[]
  changed: { id: string; was: Kept; now: Kept }[]
  classes: string[]
  terms: string[]
  enrolled: { class: string; person: string }[]
  teaching: { class: string; person: string }[]
  out: { class: string; person: string }[]
}
interface Kept {
  name: string
  email: string | null
  outsideId: string | null
  state: 'here' | 'left'
}

const atOnce = 500

/**
 * Takes a roster in, whole or not at all: one transaction, which a process that ends leaves undone.
 * @throws Problem 409 where the school has changed since it was looked at
 */
export async function takeRoster(
  database: Database,
  person: Person,
  { mark, takeOut: leave, ...files }: z.infer<typeof rosterTaking>,
  now: Instant,
): Promise<{ id: string; people: number; enrolments: number }> {
  return database.transaction(async (db) => {
    // Two at once stand in a line: the second finds the school changed.
    await stampRoster(db, person.school)
    const planned = await planRoster(db, person, files)
    if (planned.mark !== mark)
      throw new Problem(409, 'changed', 'The school has changed since you looked. Look again before you take this in.')
    const done = await carryOut(db, person, planned.plan, leave, now).catch((error: unknown) => {
      if ((error as { errno?: number }).errno !== 1062) throw error
      throw new Problem(
        422,
        'one-address',
        'After this two people would have one address, or one id. Nothing was taken in; look again and decide otherwise.',
      )
    })
    const id = newId()
    await db.run('INSERT INTO roster_taken (id, school_id, by_id, at, name, body) VALUES (?, ?, ?, ?, ?, ?)', [
      id,
      person.school,
      person.id,
      toSql(now),
      files.files
        .map(({ name }) => name)
        .join(', ')
        .slice(0, 200),
      toJson(done),
    ])
    // Last: a long roster does not keep students from starting while it is written.
    await guardRoster(db, person.school)
    await recordLine(db, now, person.id, 'roster taken in', id, {
      made: done.made.length,
      changed: done.changed.length,
      enrolled: done.enrolled.length,
      out: done.out.length,
    })
    return { id, people: done.made.length + done.changed.length, enrolments: done.enrolled.length }
  })
}

async function carryOut(db: Db, person: Person, plan: RosterPlan, leave: boolean, now: Instant): Promise<RosterDone> {
  const ids = new Map<string, string>()
  const made = plan.people.flatMap(({ person: each, fate }) => {
    if (fate.is === 'same' || fate.is === 'changed') ids.set(each.key, fate.id)
    if (fate.is !== 'new') return []
    const id = newId()
    ids.set(each.key, id)
    return [{ ...each, id }]
  })
  await makePeople(db, person.school, made)
  const changed = await changePeople(db, plan)
  const terms = plan.terms.map(({ term, id }) => ({ ...term, id: id ?? newId(), isNew: id === null }))
  const newTerms = terms.filter(({ isNew }) => isNew)
  if (newTerms.length)
    await db.run('INSERT INTO term (id, school_id, name, starts, ends, outside_id) VALUES ?', [
      newTerms.map((term) => [term.id, person.school, term.name, term.starts, term.ends, term.outsideId]),
    ])
  const termIds = new Map(terms.map(({ key, id }) => [key, id]))
  const classes = plan.classes.map(({ class: each, id }) => ({ ...each, id: id ?? newId(), isNew: id === null }))
  const newClasses = classes.filter(({ isNew }) => isNew)
  await inBatches(newClasses, atOnce, (part) =>
    db.run('INSERT INTO class (id, school_id, name, outside_id, term_id) VALUES ?', [
      part.map((each) => [each.id, person.school, each.name, each.outsideId, termIds.get(each.term ?? '') ?? null]),
    ]),
  )
  const classIds = new Map(classes.map(({ key, id }) => [key, id]))
  const pairs = plan.enrolments.map(({ class: klass, person: who, role }) => ({
    class: classIds.get(klass)!,
    person: ids.get(who)!,
    role,
  }))
  const enrolled = pairs
    .filter(({ role }) => role === 'student')
    .map(({ class: klass, person: who }) => ({ class: klass, person: who }))
  const teaching = pairs.filter(({ role }) => role !== 'student')
  await enrolAll(db, enrolled, now)
  await inBatches(teaching, atOnce, (part) =>
    db.run('INSERT IGNORE INTO class_teacher (class_id, person_id, may) VALUES ?', [
      part.map((each) => [each.class, each.person, each.role === 'help' ? 'help' : 'teach']),
    ]),
  )
  const out = leave ? plan.left.map(({ class: klass, person: who }) => ({ class: klass, person: who })) : []
  await mapInOrder([...grouped(out, (each) => each.class)], ([klass, each]) =>
    takeOut(
      db,
      person,
      klass,
      each.map((one) => one.person),
      now,
    ),
  )
  return {
    made: made.map(({ id }) => id),
    changed,
    classes: newClasses.map(({ id }) => id),
    terms: newTerms.map(({ id }) => id),
    enrolled,
    teaching: teaching.map(({ class: klass, person: who }) => ({ class: klass, person: who })),
    out,
  }
}

/** Puts people into classes; who left one is back. */
export async function enrolAll(
  db: Db,
  pairs: readonly { class: string; person: string }[],
  now: Instant,
): Promise<void> {
  await inBatches(pairs, atOnce, async (part) => {
    const rows = part.map((each) => [each.class, each.person])
    await db.run('INSERT INTO enrolment (class_id, person_id, since) VALUES ? ON DUPLICATE KEY UPDATE by_id = NULL', [
      rows.map((row) => [...row, toSql(now)]),
    ])
    await db.run('DELETE FROM left_class WHERE (class_id, person_id) IN (?)', [rows])
  })
}

async function changePeople(db: Db, plan: RosterPlan): Promise<RosterDone['changed']> {
  const wanted = plan.people.flatMap(({ person: each, fate }) => (fate.is === 'changed' ? [{ each, id: fate.id }] : []))
  const before = new Map<string, Kept>()
  await inBatches(wanted, atOnce, async (part) => {
    const rows = await db.rows<Kept & { id: string }>(
      'SELECT id, name, email, outside_id AS outsideId, state FROM person WHERE id IN (?)',
      [part.map(({ id }) => id)],
    )
    for (const { id, ...was } of rows) before.set(id, was)
  })
  const changed = wanted.map(({ each, id }) => {
    const was = before.get(id)!
    const now: Kept = {
      name: each.name,
      email: each.email ?? was.email,
      outsideId: each.outsideId ?? was.outsideId,
      state: 'here',
    }
    return { id, was, now }
  })
  await writePeople(
    db,
    changed.map(({ id, now }) => ({ id, kept: now })),
  )
  return changed
}

/** Writes names, addresses and ids of people; all of them let go of theirs first, as some change hands. */
export async function writePeople(db: Db, people: readonly { id: string; kept: Kept }[]): Promise<void> {
  await inBatches(people, atOnce, (part) =>
    db.run('UPDATE person SET email = NULL, outside_id = NULL WHERE id IN (?)', [part.map(({ id }) => id)]),
  )
  await inBatches(people, 100, async (part) => {
    const column = (pick: (kept: Kept) => string | null) =>
      byKey(
        'id',
        part.map(({ id, kept }) => [id, pick(kept)] as const),
      )
    const [name, email, outside, state] = [
      column((kept) => kept.name),
      column((kept) => kept.email),
      column((kept) => kept.outsideId),
      column((kept) => kept.state),
    ]
    await db.run(
      `UPDATE person SET name = ${name.sql}, email = ${email.sql}, outside_id = ${outside.sql}, state = ${state.sql} WHERE id IN (?)`,
      [...name.values, ...email.values, ...outside.values, ...state.values, part.map(({ id }) => id)],
    )
  })
}
