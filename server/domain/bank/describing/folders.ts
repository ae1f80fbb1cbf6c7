import type { FolderRow, QuestionRow } from '../../../database/tables'
import { z } from 'zod'
import { id } from '../../../../core/question'
import { inBatches } from '../../../database/batches'
import { byKey } from '../../../database/by-key'
import type { Database, Db } from '../../../database/database'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { entryFor } from '../finding/search-query'

export const folderName = z
  .string()
  .trim()
  .min(1, 'Give the folder a name.')
  .max(120, 'A folder’s name has at most 120 characters.')
export const newFolder = z.strictObject({ name: folderName, parent: id.nullable() })
export const folderChange = z.strictObject({ name: folderName.optional(), parent: id.nullable().optional() })

const mostFolders = 2000

export interface Folder {
  id: string
  parent: string | null
  name: string
  questions: number
}

/**
 * All folders of the person’s school by name, each with its parent and how many questions lie in it, retired ones left
 * out.
 */
export async function listFolders(db: Db, person: Person): Promise<Folder[]> {
  const rows = await db.rows<Folder>(
    "SELECT f.id, f.parent_id AS parent, f.name, (SELECT COUNT(*) FROM question q WHERE q.folder_id = f.id AND q.state <> 'retired') AS questions FROM folder f WHERE f.school_id = ? ORDER BY f.name",
    [person.school],
  )
  return rows.map((row) => ({ ...row, questions: Number(row.questions) }))
}

/** @throws Problem 404 where the school has no such folder */
export async function ensureFolder(db: Db, person: Pick<Person, 'school'>, folder: string | null): Promise<void> {
  if (
    folder !== null &&
    !(await db.one('SELECT 1 AS yes FROM folder WHERE id = ? AND school_id = ?', [folder, person.school]))
  )
    throw notFound('This folder')
}

/** Makes a folder. Refuses a parent that the school does not have. */
export async function addFolder(
  db: Db,
  person: Pick<Person, 'school'> & Person,
  folder: z.infer<typeof newFolder>,
  made = newId(),
): Promise<{ id: string }> {
  await ensureFolder(db, person, folder.parent)
  const there = await db.one<{ n: number }>('SELECT COUNT(*) AS n FROM folder WHERE school_id = ?', [person.school])
  if (Number(there?.n) >= mostFolders)
    throw new Problem(
      422,
      'folders',
      `The bank has ${mostFolders} folders already. Use tags, or take empty folders away.`,
    )
  await db.run('INSERT INTO folder (id, school_id, parent_id, name) VALUES (?, ?, ?, ?)', [
    made,
    person.school,
    folder.parent,
    folder.name,
  ])
  return { id: made }
}

/** Renames a folder or puts it into another; never into itself or what lies under it. */
export async function changeFolder(
  database: Database,
  person: Person,
  folder: string,
  change: z.infer<typeof folderChange>,
): Promise<void> {
  await database.transaction(async (db) => {
    await ensureFolder(db, person, folder)
    if (change.name !== undefined) await db.run('UPDATE folder SET name = ? WHERE id = ?', [change.name, folder])
    if (change.parent === undefined) return
    await ensureFolder(db, person, change.parent)
    const rows = await db.rows<Pick<FolderRow, 'id' | 'parent_id'>>(
      'SELECT id, parent_id FROM folder WHERE school_id = ? FOR UPDATE',
      [person.school],
    )
    const parents = new Map(rows.map((row) => [row.id, row.parent_id]))
    for (let at: string | null = change.parent; at !== null; at = parents.get(at) ?? null)
      if (at === folder) throw new Problem(422, 'folder', 'A folder cannot lie within itself.')
    await db.run('UPDATE folder SET parent_id = ? WHERE id = ?', [change.parent, folder])
  })
}

/** Takes a folder away. What was in it goes to the folder above; no question and no quiz is lost. */
export async function removeFolder(database: Database, person: Person, folder: string): Promise<void> {
  await database.transaction(async (db) => {
    const row = await db.one<Pick<FolderRow, 'parent_id'>>(
      'SELECT parent_id FROM folder WHERE id = ? AND school_id = ?',
      [folder, person.school],
    )
    if (!row) throw notFound('This folder')
    const held = await db.rows<Pick<QuestionRow, 'id'>>('SELECT id FROM question WHERE folder_id = ?', [folder])
    await putInto(
      db,
      held.map(({ id: question }) => ({ question, folder: row.parent_id })),
    )
    await db.run('UPDATE quiz SET folder_id = ? WHERE folder_id = ?', [row.parent_id, folder])
    await db.run('UPDATE folder SET parent_id = ? WHERE parent_id = ?', [row.parent_id, folder])
    await db.run('DELETE FROM folder WHERE id = ?', [folder])
  })
}

/** Puts each question into a folder, or into none, with its entry for searching. */
export async function putInto(db: Db, placed: readonly { question: string; folder: string | null }[]): Promise<void> {
  await inBatches(placed, 2000, async (part) => {
    const ids = part.map(({ question }) => question)
    const folder = byKey(
      'id',
      part.map((each) => [each.question, each.folder] as const),
    )
    await db.run(`UPDATE question SET folder_id = ${folder.sql} WHERE id IN (?)`, [...folder.values, ids])
    await db.run("DELETE FROM question_word WHERE question_id IN (?) AND word LIKE 'f:%'", [ids])
    await db.run(
      'INSERT IGNORE INTO question_word (word, question_id, kind, difficulty) SELECT CONCAT(?, folder_id), id, kind, difficulty FROM question WHERE id IN (?) AND folder_id IS NOT NULL',
      [entryFor.folder(''), ids],
    )
  })
}
