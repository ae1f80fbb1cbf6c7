import type { BlueprintRow, PersonRow } from '../../database/tables'
import { blueprint, type Blueprint } from '../../../core/blueprint'
import type { Instant } from '../../../core/kit/time'
import { fromJson, fromSql, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'

export interface KeptBlueprint {
  id: string
  title: string
  owner: string
  mine: boolean
  shared: boolean
  changedAt: Instant
  blueprint: Blueprint
}

/** So many a teacher may keep, and so many are listed. */
export const mostKept = 200

/** One's own blueprints, and those that colleagues share with the school; those that were changed last first. */
export async function listBlueprints(db: Db, person: Person): Promise<KeptBlueprint[]> {
  const rows = await db.rows<BlueprintRow & { owner: PersonRow['name'] }>(
    'SELECT b.*, p.name AS owner FROM blueprint b JOIN person p ON p.id = b.owner_id WHERE b.school_id = ? AND (b.owner_id = ? OR b.shared = 1) ORDER BY b.owner_id <> ?, b.changed_at DESC, b.id LIMIT ?',
    [person.school, person.id, person.id, mostKept],
  )
  return rows.flatMap((row) => {
    const read = blueprint.safeParse(fromJson(row.body))
    return read.success
      ? [
          {
            id: row.id,
            title: row.title,
            owner: row.owner,
            mine: row.owner_id === person.id,
            shared: Boolean(row.shared),
            changedAt: fromSql(row.changed_at),
            blueprint: read.data,
          },
        ]
      : []
  })
}

/** Keeps a new blueprint. @throws Problem 422 where there are too many */
export async function keepBlueprint(
  database: Database,
  person: Person,
  { blueprint: kept, shared }: { blueprint: Blueprint; shared: boolean },
  now: Instant,
): Promise<{ id: string }> {
  const id = newId()
  const added = await database.run(
    'INSERT INTO blueprint (id, school_id, owner_id, title, shared, body, changed_at) SELECT ?, ?, ?, ?, ?, ?, ? FROM DUAL WHERE (SELECT COUNT(*) FROM blueprint WHERE owner_id = ?) < ?',
    [id, person.school, person.id, kept.title, shared, toJson(kept), toSql(now), person.id, mostKept],
  )
  if (!added)
    throw new Problem(422, 'too-many', `You keep ${mostKept} blueprints already. Take one away that you need no more.`)
  return { id }
}

/** Changes one's own blueprint. @throws Problem 404 for one that is somebody else's */
export async function changeBlueprint(
  database: Database,
  person: Person,
  id: string,
  { blueprint: kept, shared }: { blueprint: Blueprint; shared: boolean },
  now: Instant,
): Promise<{ id: string }> {
  const changed = await database.run(
    'UPDATE blueprint SET title = ?, shared = ?, body = ?, changed_at = ? WHERE id = ? AND owner_id = ?',
    [kept.title, shared, toJson(kept), toSql(now), id, person.id],
  )
  if (!changed) throw notFound('This blueprint')
  return { id }
}

/** Takes one's own blueprint away; what it held is given back, so that it can be kept again. @throws Problem 404 */
export async function dropBlueprint(
  database: Database,
  person: Person,
  id: string,
): Promise<{ blueprint: Blueprint; shared: boolean }> {
  return database.transaction(async (db) => {
    const row = await db.one<Pick<BlueprintRow, 'body' | 'shared'>>(
      'SELECT body, shared FROM blueprint WHERE id = ? AND owner_id = ? FOR UPDATE',
      [id, person.id],
    )
    if (!row || !(await db.run('DELETE FROM blueprint WHERE id = ? AND owner_id = ?', [id, person.id])))
      throw notFound('This blueprint')
    return { blueprint: blueprint.parse(fromJson(row.body)), shared: Boolean(row.shared) }
  })
}
