import { z } from 'zod'
import type { RuleSetRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { cleanName } from '../../../core/people'
import { completedSet, setRules, type RuleSet } from '../../../core/rules/sets'
import { fromJson, toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'

/** A set that a teacher keeps. */
export interface KeptSet extends RuleSet {
  mine: boolean
  /** The name of who keeps it. */
  by: string
  shared: boolean
  /** One's new quizzes begin with it. */
  usual: boolean
}

const text = (most: number, sentence: string) => z.string().transform(cleanName).pipe(z.string().max(most, sentence))
export const ruleSetSpec = z.strictObject({
  name: text(80, 'The name of a set has at most 80 characters.').pipe(z.string().min(1, 'Give the set a name.')),
  words: text(300, 'What it is for has at most 300 characters.'),
  rules: setRules,
  shared: z.boolean(),
  usual: z.boolean(),
})
const mostSets = 100

/** Sets that a teacher may start from: their own, and those shared in the school. */
export async function listSets(db: Db, person: Pick<Person, 'id' | 'school'>): Promise<KeptSet[]> {
  const rows = await db.rows<Omit<RuleSetRow, 'school_id'> & { owner: string }>(
    `SELECT r.id, r.owner_id, r.name, r.words, r.body, r.shared, r.usual, p.name AS owner FROM rule_set r JOIN person p ON p.id = r.owner_id
    WHERE r.owner_id = ? OR (r.shared = 1 AND r.school_id = ?) ORDER BY r.owner_id <> ?, r.name LIMIT 500`,
    [person.id, person.school, person.id],
  )
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    words: row.words,
    rules: completedSet(fromJson<Record<string, unknown>>(row.body)),
    mine: row.owner_id === person.id,
    by: row.owner,
    shared: Boolean(row.shared),
    usual: row.owner_id === person.id && Boolean(row.usual),
  }))
}

/** The rules with which a teacher's new quizzes begin; null for the usual ones. */
export async function usualSet(db: Db, person: Pick<Person, 'id' | 'school'>): Promise<RuleSet | null> {
  return (await listSets(db, person)).find((each) => each.mine && each.usual) ?? null
}

/** Keeps a set of one's own, or changes the one that is named. */
export async function keepSet(
  database: Database,
  person: Person,
  { name, words, rules, shared, usual }: z.infer<typeof ruleSetSpec>,
  now: Instant,
  set: string | null = null,
): Promise<KeptSet[]> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM person WHERE id = ? FOR UPDATE', [person.id])
    const mine = (await listSets(db, person)).filter((each) => each.mine)
    if (set !== null && !mine.some(({ id }) => id === set)) throw notFound('This set')
    const other = await db.one('SELECT 1 AS yes FROM rule_set WHERE owner_id = ? AND name = ? AND id <> ?', [
      person.id,
      name,
      set ?? '',
    ])
    if (other) throw new Problem(422, 'name', 'Another set of yours has this name. Give it another one.')
    if (set === null && mine.length >= mostSets)
      throw new Problem(422, 'too-many', `A teacher keeps at most ${mostSets} sets.`)
    const kept = set ?? newId()
    if (usual) await db.run('UPDATE rule_set SET usual = 0 WHERE owner_id = ?', [person.id])
    await db.run(
      `INSERT INTO rule_set (id, school_id, owner_id, name, words, body, shared, usual) VALUES (?, ?, ?, ?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE name = VALUES(name), words = VALUES(words), body = VALUES(body), shared = VALUES(shared), usual = VALUES(usual)`,
      [kept, person.school, person.id, name, words, toJson(rules), shared ? 1 : 0, usual ? 1 : 0],
    )
    await recordLine(db, now, person.id, set ? 'rule set changed' : 'rule set kept', kept, { name, shared })
    return listSets(db, person)
  })
}

/** Takes out a set of one's own. Quizzes that began with it stay as they are. */
export async function dropSet(database: Database, person: Person, set: string, now: Instant): Promise<KeptSet[]> {
  return database.transaction(async (db) => {
    if (!(await db.run('DELETE FROM rule_set WHERE id = ? AND owner_id = ?', [set, person.id])))
      throw notFound('This set')
    await recordLine(db, now, person.id, 'rule set taken out', set)
    return listSets(db, person)
  })
}
