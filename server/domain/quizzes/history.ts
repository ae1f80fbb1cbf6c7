import type { PersonRow, QuizEditRow } from '../../database/tables'
import { changed, type Edit, type Path } from '../../../core/quiz'
import type { Instant } from '../../../core/kit/time'
import { fromSql, toJson, toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { readEdit } from '../../documents/read'
import type { Person } from '../../people/people'

/** An edit as it is kept. */
export interface KeptEdit {
  revision: number
  token: string
  edit: Edit
  by: string
  byName: string
  at: Instant
}

type EditRow = Pick<QuizEditRow, 'revision' | 'token' | 'body' | 'made_by' | 'made_at'> & Pick<PersonRow, 'name'>

const select =
  'SELECT e.revision, e.token, e.body, e.made_by, p.name, e.made_at FROM quiz_edit e JOIN person p ON p.id = e.made_by WHERE e.quiz_id = ?'

/** Edits that a page can take one by one; further behind it takes the whole quiz. */
export const mostToReplay = 200

/**
 * Edits after a revision, with who made them; null where there are too many to replay, or one of them was written by a
 * release that wrote edits otherwise.
 */
export async function editsSince(db: Db, quizId: string, revision: number): Promise<KeptEdit[] | null> {
  const rows = await db.rows<EditRow>(`${select} AND e.revision > ? ORDER BY e.revision LIMIT ?`, [
    quizId,
    revision,
    mostToReplay + 1,
  ])
  const edits = rows.flatMap((row): KeptEdit[] => {
    const edit = readEdit(row.body)
    return edit
      ? [
          {
            revision: row.revision,
            token: row.token,
            edit,
            by: row.made_by,
            byName: row.name,
            at: fromSql(row.made_at),
          },
        ]
      : []
  })
  return rows.length > mostToReplay || edits.length < rows.length ? null : edits
}

/** The revision of an edit that has arrived before, by its token; undefined when it is new. */
export async function revisionOf(db: Db, quizId: string, token: string): Promise<number | undefined> {
  return (
    await db.one<Pick<QuizEditRow, 'revision'>>('SELECT revision FROM quiz_edit WHERE quiz_id = ? AND token = ?', [
      quizId,
      token,
    ])
  )?.revision
}

/**
 * Writes an edit down as the one that made a revision. A token or a revision that is taken already is refused by the
 * database.
 */
export async function keepEdit(
  db: Db,
  person: Person,
  quizId: string,
  revision: number,
  token: string,
  edit: Edit,
  now: Instant,
): Promise<void> {
  await db.run('INSERT INTO quiz_edit (quiz_id, revision, token, made_by, made_at, body) VALUES (?, ?, ?, ?, ?, ?)', [
    quizId,
    revision,
    token,
    person.id,
    toSql(now),
    toJson(edit),
  ])
}

const batch = 500

/** Who changed one of the things named last, however long ago; undefined where no kept edit says. */
export async function lastChange(
  db: Db,
  quizId: string,
  paths: readonly Path[],
): Promise<{ by: string; byName: string; at: Instant } | undefined> {
  // Batches of the history, newest first: nearly always the first one has it.
  for (let before = 2 ** 31 - 1; ;) {
    // eslint-disable-next-line no-await-in-loop -- each batch says whether there is another
    const rows = await db.rows<EditRow>(`${select} AND e.revision < ? ORDER BY e.revision DESC LIMIT ?`, [
      quizId,
      before,
      batch,
    ])
    const row = rows.find(({ body }) => {
      const edit = readEdit(body)
      return edit !== null && changed(edit, paths)
    })
    if (row) return { by: row.made_by, byName: row.name, at: fromSql(row.made_at) }
    if (rows.length < batch) return undefined
    before = rows.at(-1)!.revision
  }
}
