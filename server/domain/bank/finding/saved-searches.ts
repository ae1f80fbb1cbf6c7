import type { SavedSearchRow } from '../../../database/tables'
import { z } from 'zod'
import { toJson } from '../../../database/codec'
import { readOwn } from '../../../documents/read'
import type { Db } from '../../../database/database'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { searchQuery, type SearchQuery } from './search-query'

export const newSavedSearch = z.strictObject({
  name: z.string().trim().min(1, 'Give the search a name.').max(80),
  query: searchQuery,
})
export interface SavedSearch {
  id: string
  name: string
  query: SearchQuery
}

const mostSearches = 100

/** The person’s own kept searches by name; nobody else’s. */
export async function savedSearches(db: Db, person: Person): Promise<SavedSearch[]> {
  const rows = await db.rows<Pick<SavedSearchRow, 'id' | 'name' | 'body'>>(
    'SELECT id, name, body FROM saved_search WHERE person_id = ? ORDER BY name',
    [person.id],
  )
  return rows.map((row) => ({ id: row.id, name: row.name, query: searchQuery.parse(readOwn(row.body)) }))
}

/** Keeps a search; one of the same name is replaced. */
export async function saveSearch(
  db: Db,
  person: Person,
  search: z.infer<typeof newSavedSearch>,
): Promise<{ id: string }> {
  const id = newId()
  const others = await db.one<{ n: number }>(
    'SELECT COUNT(*) AS n FROM saved_search WHERE person_id = ? AND name <> ?',
    [person.id, search.name],
  )
  if (Number(others?.n) >= mostSearches)
    throw new Problem(
      422,
      'searches',
      `You keep ${mostSearches} searches already. Take one away that you need no more.`,
    )
  await db.run(
    'INSERT INTO saved_search (id, person_id, name, body) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE body = VALUES(body)',
    [id, person.id, search.name, toJson({ ...search.query, from: 0 })],
  )
  return {
    id: (await db.one<Pick<SavedSearchRow, 'id'>>('SELECT id FROM saved_search WHERE person_id = ? AND name = ?', [
      person.id,
      search.name,
    ]))!.id,
  }
}

/** Takes a kept search away. Refuses one that is not the person’s own. */
export async function dropSearch(db: Db, person: Person, id: string): Promise<void> {
  if (!(await db.run('DELETE FROM saved_search WHERE id = ? AND person_id = ?', [id, person.id])))
    throw notFound('This search')
}
