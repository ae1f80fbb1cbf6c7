import { z } from 'zod'
import { facilityOf, unknownFacts } from '../../../core/figures'
import { sortsOf, type Candidate, type Sort } from '../../../core/blueprint'
import type { Instant } from '../../../core/kit/time'
import type { KindName } from '../../../core/question'
import { fromJson } from '../../database/codec'
import type { Db } from '../../database/database'
import type { ObjectiveRow, QuestionRow } from '../../database/tables'
import type { Person } from '../../people/people'
import { facilitiesOf } from '../bank/finding/facilities'
import { conditionsOf, joined, searchQuery } from '../bank/finding/search-query'

/** The part of the bank out of which questions are chosen. */
export const scope = searchQuery
  .pick({ folder: true, tag: true, owner: true, origin: true, words: true })
  .extend({ unusedSince: searchQuery.shape.unusedSince })
export type Scope = z.infer<typeof scope>

/** More candidates than this are not read: those that were used longest ago come first. */
export const mostCandidates = 100_000

type Row = Pick<QuestionRow, 'id' | 'difficulty' | 'points' | 'seconds' | 'near_key' | 'facets' | 'last_used_at'> & {
  kind: KindName
}

/** Each objective with all above it: whoever asks for one asks for all that lie under it. */
async function ancestors(db: Db, school: string): Promise<(objective: string) => string[]> {
  const rows = await db.rows<Pick<ObjectiveRow, 'id' | 'parent_id'>>(
    'SELECT id, parent_id FROM objective WHERE school_id = ?',
    [school],
  )
  const parent = new Map(rows.map((row) => [row.id, row.parent_id]))
  const known = new Map<string, string[]>()
  return (objective) => {
    const found = known.get(objective)
    if (found) return found
    const up: string[] = []
    for (let at: string | null | undefined = objective; at && !up.includes(at); at = parent.get(at)) up.push(at)
    known.set(objective, up)
    return up
  }
}

/** Objectives with all above them, and thinking levels. Rows of earlier releases have no levels. */
function facetsOf(facets: string, above: (objective: string) => string[]): Pick<Candidate, 'objectives' | 'levels'> {
  const { o = [], l = [] } = fromJson<{ o?: string[]; l?: string[] }>(facets)
  return { objectives: [...new Set(o.flatMap(above))], levels: l }
}

/** What a part of the bank holds, counted by the database; the sorts that hold most first. @param without what is left out */
export async function sortsFor(
  db: Db,
  person: Person,
  within: Scope,
  without: readonly string[],
  now: Instant,
): Promise<Sort[]> {
  const { plain, entries } = await conditionsOf(db, person, searchQuery.parse({ ...within, state: 'usable' }), now)
  const { sql, values } = joined(plain, entries)
  const rows = await db.rows<Pick<QuestionRow, 'difficulty' | 'facets'> & { kind: KindName; n: number }>(
    `SELECT q.kind, q.difficulty, q.facets, COUNT(*) AS n FROM question q WHERE ${sql}${without.length ? ' AND q.id NOT IN (?)' : ''} GROUP BY q.kind, q.difficulty, q.facets`,
    [...values, ...(without.length ? [[...without]] : [])],
  )
  const above = await ancestors(db, person.school)
  return sortsOf(
    rows.map(({ kind, difficulty, facets, n }) => ({ kind, difficulty, ...facetsOf(facets, above), n: Number(n) })),
  )
}

/** A number that hangs on a text and a seed alone: who asks again with another seed draws anew. */
function shuffledRank(id: string, seed: number): number {
  let hash = seed | 0
  for (let i = 0; i < id.length; i++) hash = Math.imul(hash ^ id.charCodeAt(i), 0x5bd1e995)
  hash ^= hash >>> 15
  return hash >>> 0
}

/**
 * Questions that a person may see and use, within a part of the bank, as a blueprint reads them.
 * @param seed changes which of alike ones come first; null takes those that were used longest ago
 */
export async function candidatesFor(
  db: Db,
  person: Person,
  within: Scope,
  seed: number | null,
  now: Instant,
): Promise<Candidate[]> {
  const query = searchQuery.parse({ ...within, state: 'usable' })
  const { plain, entries } = await conditionsOf(db, person, query, now)
  const { sql, values } = joined(plain, entries)
  const rows = await db.rows<Row>(
    `SELECT q.id, q.kind, q.difficulty, q.points, q.seconds, q.near_key, q.facets, q.last_used_at FROM question q WHERE ${sql} ORDER BY q.last_used_at IS NOT NULL, q.last_used_at, q.id LIMIT ?`,
    [...values, mostCandidates],
  )
  const [above, right] = await Promise.all([
    ancestors(db, person.school),
    facilitiesOf(
      db,
      rows.map(({ id }) => id),
    ),
  ])
  return rows.map((row, i) => {
    return {
      id: row.id,
      kind: row.kind,
      difficulty: row.difficulty,
      ...facetsOf(row.facets, above),
      points: Number(row.points),
      seconds: row.seconds,
      facility: facilityOf({
        ...unknownFacts,
        difficulty: row.difficulty,
        right: right.get(row.id) ?? null,
      }),
      near: row.near_key,
      rank: seed === null ? i : shuffledRank(row.id, seed),
    }
  })
}
