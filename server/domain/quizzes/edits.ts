import type { Instant } from '../../../core/kit/time'
import { applyEdit, changesRules, conflict, EditError, questionsUsed, type Edit, type Quiz } from '../../../core/quiz'
import { fromJson, fromSql, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { visibleTo } from '../bank/access'
import type { Person } from '../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { rewriteOpenSittings } from '../sittings/timing'
import { indexQuiz, loadQuiz, type QuizRow } from './quizzes'

export interface KeptEdit {
  revision: number
  token: string
  edit: Edit
  by: string
  byName: string
  at: Instant
}

export interface EditReply {
  revision: number
  /** All edits since the revision that the page had, its own among them. */
  since: KeptEdit[]
}

/** Edits after a revision, with who made them. */
export async function editsSince(db: Db, quizId: string, revision: number): Promise<KeptEdit[]> {
  const rows = await db.rows<{
    revision: number
    token: string
    body: string
    made_by: string
    name: string
    made_at: string
  }>(
    'SELECT e.revision, e.token, e.body, e.made_by, p.name, e.made_at FROM quiz_edit e JOIN person p ON p.id = e.made_by WHERE e.quiz_id = ? AND e.revision > ? ORDER BY e.revision LIMIT 500',
    [quizId, revision],
  )
  return rows.map((row) => ({
    revision: row.revision,
    token: row.token,
    edit: fromJson<Edit>(row.body),
    by: row.made_by,
    byName: row.name,
    at: fromSql(row.made_at),
  }))
}

function ensureNoConflict(edit: Edit, others: KeptEdit[]): void {
  const clash = others.find((other) => conflict(edit, other.edit))
  if (clash)
    throw new Problem(
      409,
      'edit-conflict',
      `${clash.byName} has changed the same thing in the meantime. Look at it, then change it again if you still want to.`,
      { by: clash.byName, revision: clash.revision },
    )
}

function applied(quiz: Quiz, edit: Edit): Quiz {
  try {
    return applyEdit(quiz, edit).quiz
  } catch (error) {
    if (error instanceof EditError) throw new Problem(422, 'edit', error.message)
    throw error
  }
}

/** Questions that come into a quiz are those that the person may see, or that were in it before: undoing brings them back. */
async function ensureOwnThings(db: Db, person: Person, quizId: string, quiz: Quiz, before: Quiz): Promise<void> {
  const known = new Set(questionsUsed(before.content))
  const added = questionsUsed(quiz.content).filter((id) => !known.has(id))
  if (!added.length) return
  const visible = visibleTo(person)
  const rows = await db.rows<{ id: string }>(
    `SELECT q.id FROM question q WHERE q.id IN (?) AND q.school_id = ? AND q.sharing <> 'staged' AND ((${visible.sql})
    OR EXISTS (SELECT 1 FROM quiz_edit e WHERE e.quiz_id = ? AND e.body LIKE CONCAT('%"', q.id, '"%')) OR q.sharing = 'outside')`,
    [added, person.school, ...visible.values, quizId],
  )
  if (rows.length < added.length)
    throw new Problem(422, 'question', 'One of the questions is not in this school’s bank.')
}

/**
 * Replays an edit on the newest revision and keeps it (architecture, Data). Sending the same token again is the same
 * save. Two teachers' edits clash only when they write to the same thing: then nothing is changed.
 * @param on the revision that the page had
 */
export async function makeEdit(
  database: Database,
  person: Person,
  quizId: string,
  on: number,
  token: string,
  edit: Edit,
  now: Instant,
): Promise<EditReply> {
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM quiz WHERE id = ? FOR UPDATE', [quizId])
    const row = await loadQuiz(db, quizId)
    const since = await editsSince(db, quizId, on)
    if (since.some((each) => each.token === token)) return { revision: row.revision, since }
    const page = token.split('.')[0]
    ensureNoConflict(
      edit,
      since.filter((each) => each.token.split('.')[0] !== page),
    )
    const quiz = applied(row.quiz, edit)
    await ensureOwnThings(db, person, quizId, quiz, row.quiz)
    const revision = row.revision + 1
    await keep(db, person, row, quiz, revision, now)
    await db.run('INSERT INTO quiz_edit (quiz_id, revision, token, made_by, made_at, body) VALUES (?, ?, ?, ?, ?, ?)', [
      quizId,
      revision,
      token,
      person.id,
      toSql(now),
      toJson(edit),
    ])
    if (changesRules(edit)) await keepRules(db, person, row, quiz, revision, now)
    return { revision, since: [...since, { revision, token, edit, by: person.id, byName: person.name, at: now }] }
  })
}

/** Compare-and-set on the revision: on a cluster a row lock alone lets two nodes win. */
async function keep(db: Db, person: Person, row: QuizRow, quiz: Quiz, revision: number, now: Instant): Promise<void> {
  // An edition stays up to date when only rules have changed beside it.
  const sameContent = toJson(quiz.content) === toJson(row.quiz.content)
  const edition = sameContent && row.editionRevision === row.revision ? revision : row.editionRevision
  const changed = await db.run(
    'UPDATE quiz SET body = ?, title = ?, revision = ?, edition_revision = ?, changed_at = ? WHERE id = ? AND revision = ?',
    [toJson(quiz), quiz.content.title, revision, edition, toSql(now), row.id, row.revision],
  )
  if (changed === 0) throw new Problem(409, 'moved-on', 'The quiz changed at the same moment. Try again.')
  await indexQuiz(db, row.id, quiz, questionsUsed(quiz.content), person.school)
}

/** A change to living rules is versioned and recorded, and reaches open sittings in the same transaction. */
async function keepRules(
  db: Db,
  person: Person,
  row: QuizRow,
  quiz: Quiz,
  revision: number,
  now: Instant,
): Promise<void> {
  await db.run('INSERT INTO rules_version (quiz_id, version, body, made_by, made_at) VALUES (?, ?, ?, ?, ?)', [
    row.id,
    revision,
    toJson(quiz.rules),
    person.id,
    toSql(now),
  ])
  if (row.stored === 'draft') return
  await recordLine(db, now, person.id, 'rules changed', row.id, { version: revision })
  await rewriteOpenSittings(db, { quiz: row.id, rules: quiz.rules }, now)
}
