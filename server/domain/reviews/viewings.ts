import type { ViewedRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { FacetName } from '../../../core/release'
import { toSql } from '../../database/codec'
import type { Db } from '../../database/database'

/** Facets that have been viewed, by attempt. */
export type Viewings = ReadonlyMap<string, FacetName[]>

/** Which facets have been viewed; an attempt without any is not in the map. */
export async function loadViewings(db: Db, attempts: readonly string[]): Promise<Viewings> {
  if (!attempts.length) return new Map()
  const rows = await db.rows<Pick<ViewedRow, 'attempt_id' | 'facet'>>(
    'SELECT attempt_id, facet FROM viewed WHERE attempt_id IN (?)',
    [attempts],
  )
  const result = new Map<string, FacetName[]>()
  for (const row of rows) result.set(row.attempt_id, [...(result.get(row.attempt_id) ?? []), row.facet])
  return result
}

/** Logs first sights: who has seen the key already, and "one viewing". What was viewed before is not written again. */
export async function noteViewings(
  db: Db,
  known: Viewings,
  seen: readonly { attempt: string; facet: FacetName }[],
  now: Instant,
): Promise<void> {
  const first = seen.filter(({ attempt, facet }) => !known.get(attempt)?.includes(facet))
  if (first.length)
    await db.run('INSERT IGNORE INTO viewed (attempt_id, facet, at) VALUES ?', [
      first.map(({ attempt, facet }) => [attempt, facet, toSql(now)]),
    ])
}
