import type { QuestionRow } from '../../../database/tables'
import type { Db } from '../../../database/database'
import type { Person } from '../../../people/people'
import { visibleTo } from './visible'
import { hitsFor, type Hit } from './hits'

/** Groups of near-duplicates that a person sees: the same stem but for numbers and spacing. The largest first. */
export async function nearDuplicates(db: Db, person: Person, of?: string): Promise<Hit[][]> {
  const visible = visibleTo(person)
  const keys = of
    ? await db.rows<Pick<QuestionRow, 'near_key'>>(
        "SELECT near_key FROM question WHERE id = ? AND school_id = ? AND near_key <> ''",
        [of, person.school],
      )
    : await db.rows<Pick<QuestionRow, 'near_key'>>(
        `SELECT q.near_key FROM question q WHERE ${visible.sql} AND q.state <> 'retired' AND q.near_key <> '' GROUP BY q.near_key HAVING COUNT(*) > 1 ORDER BY COUNT(*) DESC LIMIT 50`,
        visible.values,
      )
  if (!keys.length) return []
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'near_key'>>(
    `SELECT q.id, q.near_key FROM question q WHERE ${visible.sql} AND q.state <> 'retired' AND q.near_key IN (?) LIMIT 500`,
    [...visible.values, keys.map((each) => each.near_key)],
  )
  const hits = new Map(
    (
      await hitsFor(
        db,
        person,
        rows.map((row) => row.id),
      )
    ).map((hit) => [hit.id, hit]),
  )
  return keys
    .map(({ near_key: key }) => rows.filter((row) => row.near_key === key).flatMap((row) => hits.get(row.id) ?? []))
    .filter((group) => group.length > 1)
}
