import type { PersonRow, QuizEditRow } from '../../database/tables'
import { applyEdit, changed, type Edit, type Path, type Quiz } from '../../../core/quiz'
import type { Instant } from '../../../core/kit/time'
import { fromSql, toJson, toSql } from '../../database/codec'
import type { Db } from '../../database/database'
import { readEdit } from '../../documents/read'
import type { Person } from '../../people/people'
import { Problem } from '../problem'

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

/** An edit as it is read; none where it was written by a release that wrote edits otherwise. */
function kept(row: EditRow): KeptEdit[] {
  const edit = readEdit(row.body)
  if (!edit) return []
  return [
    { revision: row.revision, token: row.token, edit, by: row.made_by, byName: row.name, at: fromSql(row.made_at) },
  ]
}

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
  const edits = rows.flatMap(kept)
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
  inverse: Edit,
  now: Instant,
): Promise<void> {
  await db.run(
    'INSERT INTO quiz_edit (quiz_id, revision, token, made_by, made_at, body, inverse) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [quizId, revision, token, person.id, toSql(now), toJson(edit), toJson(inverse)],
  )
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

/** So many edits are listed at once. */
const listed = 60

/** Edits of a quiz before a revision, the newest first. @param before null for the newest there are */
export async function editsBefore(
  db: Db,
  quizId: string,
  before: number | null,
): Promise<{ edits: KeptEdit[]; more: boolean }> {
  const rows = await db.rows<EditRow>(`${select} AND e.revision < ? ORDER BY e.revision DESC LIMIT ?`, [
    quizId,
    before ?? 2 ** 31 - 1,
    listed + 1,
  ])
  return { edits: rows.slice(0, listed).flatMap(kept), more: rows.length > listed }
}

/** Edits that are taken back, one after another, to look at an earlier state. */
const mostTakenBack = 2000

/**
 * A quiz as it was at a revision: what was done since is taken back, the newest first.
 * @param now what the quiz is, at its own revision
 * @throws Problem 422 where that cannot be done: edits of an earlier release do not say how
 */
export async function quizAt(
  db: Db,
  quizId: string,
  now: { quiz: Quiz; revision: number },
  revision: number,
): Promise<Quiz> {
  const rows = await db.rows<Pick<QuizEditRow, 'inverse'>>(
    'SELECT inverse FROM quiz_edit WHERE quiz_id = ? AND revision > ? AND revision <= ? ORDER BY revision DESC LIMIT ?',
    [quizId, revision, now.revision, mostTakenBack + 1],
  )
  const inverses = rows.map((row) => (row.inverse === null ? null : readEdit(row.inverse)))
  if (rows.length > mostTakenBack || inverses.includes(null) || rows.length !== now.revision - revision)
    throw new Problem(422, 'too-long-ago', 'This state is too long ago to be put together again.')
  return inverses.reduce((quiz, inverse) => applyEdit(quiz, inverse!).quiz, now.quiz)
}
