import type { ImportBatchRow, QuestionRow, QuizRow } from '../../database/tables'
import { minute, plus, type Instant } from '../../../core/kit/time'
import { toSql } from '../../database/codec'
import { mapInOrder, inBatches } from '../../database/batches'
import type { Database, Db } from '../../database/database'
import { insertVersions, loadVersions } from '../bank/questions/rows'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { batchProgress, loadBatch } from './batch'

/** Taking back what an import has done, at its end or half way. */

/** Takes away stimuli that no question has any more. */
export async function dropStimuli(db: Db, ids: readonly string[]): Promise<void> {
  if (!ids.length) return
  const used = new Set(
    (
      await db.rows<Pick<QuestionRow, 'stimulus_id'>>(
        'SELECT DISTINCT stimulus_id FROM question WHERE stimulus_id IN (?)',
        [ids],
      )
    ).map((row) => row.stimulus_id),
  )
  const free = ids.filter((id) => !used.has(id))
  if (!free.length) return
  await db.run('DELETE FROM stimulus_version WHERE stimulus_id IN (?)', [free])
  await db.run('DELETE FROM stimulus WHERE id IN (?)', [free])
}

/** Quizzes that nobody has touched since the import made them. @returns those that stay */
async function dropQuizzes(db: Db, ids: readonly string[]): Promise<string[]> {
  if (!ids.length) return []
  const untouched = (
    await db.rows<Pick<QuizRow, 'id'>>(
      "SELECT id FROM quiz q WHERE id IN (?) AND state = 'draft' AND revision = 0 AND NOT EXISTS (SELECT 1 FROM quiz_link l WHERE l.quiz_id = q.id)",
      [ids],
    )
  ).map((row) => row.id)
  if (untouched.length) {
    const about = ['quiz_question', 'quiz_class', 'quiz_group', 'quiz_student', 'quiz_teacher', 'quiz_opening']
    await mapInOrder(about, (table) => db.run(`DELETE FROM ${table} WHERE quiz_id IN (?)`, [untouched]))
    await db.run('DELETE FROM quiz WHERE id IN (?)', [untouched])
  }
  return ids.filter((id) => !untouched.includes(id))
}

/** Folders that an import made and in which nothing lies: the deepest first, level by level. */
async function dropFolders(db: Db, ids: readonly string[]): Promise<void> {
  for (let left = ids.length; left > 0;) {
    // eslint-disable-next-line no-await-in-loop -- as often as folders lie within one another
    left = await db.run(
      `DELETE FROM folder WHERE id IN (?) AND id NOT IN (SELECT folder_id FROM question WHERE folder_id IN (?))
      AND id NOT IN (SELECT parent_id FROM (SELECT DISTINCT parent_id FROM folder WHERE parent_id IN (?)) above)`,
      [ids, ids, ids],
    )
  }
}

/** Takes away what imports have added unseen; they can be begun again. */
export async function drop(database: Database, batches: readonly string[]): Promise<void> {
  if (!batches.length) return
  const rows = await database.rows<Pick<QuestionRow, 'id'>>(
    "SELECT id FROM question WHERE import_id IN (?) AND sharing = 'staged'",
    [batches],
  )
  await inBatches(rows, 500, (part) =>
    database.transaction((db) =>
      remove(
        db,
        part.map(({ id }) => id),
      ),
    ),
  )
  await database.run("UPDATE import_batch SET state = 'staged', progress = 0 WHERE id IN (?)", [batches])
}

/** Everything that hangs on a question by its id. */
const ofQuestions = [
  'question_word',
  'question_tag',
  'question_objective',
  'question_outside',
  'question_version',
  'question_remark',
  'question_share',
]

async function remove(db: Db, ids: readonly string[]): Promise<void> {
  if (!ids.length) return
  await inBatches(ofQuestions, 1, ([table]) => db.run(`DELETE FROM ${table} WHERE question_id IN (?)`, [ids]))
  await db.run('DELETE FROM question WHERE id IN (?)', [ids])
}

/** Asks an import to stop: what it has added so far is taken away. */
export async function stopTaking(db: Db, person: Person, batchId: string): Promise<void> {
  await batchProgress(db, person, batchId)
  await db.run("UPDATE import_batch SET state = 'stopping' WHERE id = ? AND state = 'running'", [batchId])
}

/** Takes a finished import back. What a quiz holds by now, or somebody has changed since, stays. */
export async function undoImport(
  database: Database,
  person: Person,
  batchId: string,
  now: Instant,
): Promise<{ removed: number; kept: number; quizzes: number }> {
  return database.transaction(async (db) => {
    const batch = await loadBatch(db, person, batchId)
    const won = await db.run(
      "UPDATE import_batch SET state = 'undone' WHERE id = ? AND person_id = ? AND state = 'done'",
      [batchId, person.id],
    )
    if (!won || !batch.result) throw new Problem(409, 'import', 'Only an import that is done can be taken back.')
    const { added, changed, stimuli, folders, quizzes } = batch.result
    const staying = await dropQuizzes(
      db,
      quizzes.map(({ id }) => id),
    )
    const used = added.length
      ? await db.rows<Pick<QuestionRow, 'id'>>(
          'SELECT id FROM question q WHERE q.id IN (?) AND (q.version > 1 OR EXISTS (SELECT 1 FROM quiz_question u WHERE u.question_id = q.id) OR EXISTS (SELECT 1 FROM mark m WHERE m.question_id = q.id))',
          [added],
        )
      : []
    const kept = new Set(used.map(({ id }) => id))
    await remove(
      db,
      added.filter((id) => !kept.has(id)),
    )
    await dropStimuli(db, stimuli)
    await dropFolders(db, folders)
    const before = await loadVersions(db, changed)
    const revisions = changed.flatMap(({ id, version }) => {
      const question = before.get(id)
      return question ? [{ id, on: version + 1, question }] : []
    })
    const back = (await insertVersions(db, person, revisions, now)).size
    await recordLine(db, now, person.id, 'import taken back', batchId, { removed: added.length - kept.size + back })
    return {
      removed: added.length - kept.size + back,
      kept: kept.size + changed.length - back,
      quizzes: staying.length,
    }
  })
}

const abandonedAfter = 10 * minute

/** Imports whose process has ended under them: what they had added unseen is taken away, and they can be begun again. */
export async function dropAbandoned(database: Database, now: Instant): Promise<number> {
  const rows = await database.rows<Pick<ImportBatchRow, 'id'>>(
    "SELECT id FROM import_batch WHERE state IN ('running', 'stopping') AND touched_at < ? LIMIT 20",
    [toSql(plus(now, -abandonedAfter))],
  )
  await drop(
    database,
    rows.map(({ id }) => id),
  )
  return rows.length
}

const day = 24 * 60 * minute
/** A file that nobody has taken in after a day is read again when it is wanted. */
const stagedFor = day
/** What was taken in can be taken back for so long. */
const undoneFor = 90 * day

/** Forgets imports whose time is over, with all that was read from their files. */
export async function forgetImports(db: Db, now: Instant): Promise<void> {
  await db.run("DELETE FROM import_batch WHERE state = 'staged' AND touched_at < ? LIMIT 100", [
    toSql(plus(now, -stagedFor)),
  ])
  await db.run("DELETE FROM import_batch WHERE state IN ('done', 'undone') AND touched_at < ? LIMIT 100", [
    toSql(plus(now, -undoneFor)),
  ])
}
