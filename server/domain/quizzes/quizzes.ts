import type { PersonRow, QuizRow, QuizTeacherRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { newQuiz, questionsUsed, stateOf, type Quiz, type QuizState, type StoredState } from '../../../core/quiz'
import type { LatestEnds } from '../../../core/release'
import { audienceOf, type Audience } from '../../../core/schedule'
import { mapInOrder } from '../../database/batches'
import { ofSchool, type OfSchool } from '../of-school'
import { usualSet } from './rule-sets'
import { fromSql, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { readQuiz } from '../../documents/read'
import { newId } from '../ids'
import type { Person } from '../../people/people'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import { endsNow, rosterOf } from './ends-now'
import type { DocumentKey } from './known-documents'

/** A quiz with its document, as every use case needs it. */
export interface LoadedQuiz {
  id: string
  school: string
  owner: string
  stored: StoredState
  revision: number
  quiz: Quiz
  edition: string | null
  editionRevision: number | null
  changedAt: Instant
  /** Which document it is. */
  row: DocumentKey
}

type RawQuiz = Pick<
  QuizRow,
  'id' | 'school_id' | 'owner_id' | 'state' | 'revision' | 'body' | 'edition_id' | 'edition_revision' | 'changed_at'
>
const columns =
  'q.id, q.school_id, q.owner_id, q.state, q.revision, q.body, q.edition_id, q.edition_revision, q.changed_at'

function read(row: RawQuiz): LoadedQuiz {
  return {
    id: row.id,
    school: row.school_id,
    owner: row.owner_id,
    stored: row.state,
    revision: row.revision,
    quiz: readQuiz(row.body),
    edition: row.edition_id,
    editionRevision: row.edition_revision,
    changedAt: fromSql(row.changed_at),
    row: { id: row.id, revision: row.revision, changed_at: row.changed_at },
  }
}

/** A quiz with its document in today’s form. Refuses an unknown one; rights are for the caller to ask. */
export async function loadQuiz(db: Db, id: string): Promise<LoadedQuiz> {
  const row = await db.one<RawQuiz>(`SELECT ${columns} FROM quiz q WHERE q.id = ?`, [id])
  if (!row) throw notFound('This quiz')
  return read(row)
}

/** When a quiz ends for everybody and each class, as things are now. */
export async function quizEndsNow(db: Db, { row, quiz, school }: LoadedQuiz): Promise<LatestEnds> {
  return (await endsNow(db, [{ row, quiz }], await rosterOf(db, school))).get(row.id)!
}

/** Whether a person owns a quiz or works in it; false where there is no such quiz, or they may only look at it. */
export async function mayTeach(db: Db, person: string, quiz: string): Promise<boolean> {
  return Boolean(
    await db.one(
      "SELECT 1 AS yes FROM quiz q LEFT JOIN quiz_teacher t ON t.quiz_id = q.id AND t.person_id = ? AND t.may = 'write' WHERE q.id = ? AND (q.owner_id = ? OR t.person_id IS NOT NULL)",
      [person, quiz, person],
    ),
  )
}

/** Whether a person may look at what a quiz holds, and copy it: who works in it, who was let in to read, and the school where it is shared with it. */
export async function mayLook(db: Db, person: Pick<Person, 'id' | 'school'>, quiz: string): Promise<boolean> {
  return Boolean(
    await db.one(
      "SELECT 1 AS yes FROM quiz q LEFT JOIN quiz_teacher t ON t.quiz_id = q.id AND t.person_id = ? WHERE q.id = ? AND q.school_id = ? AND (q.owner_id = ? OR q.sharing = 'school' OR t.person_id IS NOT NULL)",
      [person.id, quiz, person.school, person.id],
    ),
  )
}

/**
 * Asks for the right again, in the transaction that writes: between the door and here a request may have waited for
 * others of its person. @throws Problem 404
 */
export async function ensureTeaches(db: Db, person: Person, quiz: string): Promise<void> {
  if (!(await mayTeach(db, person.id, quiz))) throw notFound('This quiz')
}

/**
 * Keeps what is looked up by other tables: classes and questions of quizzes, in place of what was there.
 * `found` are questions that conditions had found when the quiz was opened last: students have them.
 */
export async function indexQuizzes(
  db: Db,
  quizzes: readonly { id: string; quiz: Quiz; found?: readonly string[] }[],
  school: string,
): Promise<void> {
  const ids = quizzes.map(({ id }) => id)
  if (!ids.length) return
  await mapInOrder(['quiz_class', 'quiz_group', 'quiz_student'], (table) =>
    db.run(`DELETE FROM ${table} WHERE quiz_id IN (?)`, [ids]),
  )
  await db.run('DELETE FROM quiz_question WHERE quiz_id IN (?)', [ids])
  // Only what the school has: an id that is gone stays in the document, where the checks find it.
  const meant = (name: keyof Audience) =>
    quizzes.flatMap(({ id, quiz }) => audienceOf(quiz.rules)[name].map((each) => [id, each]))
  const questions = quizzes.flatMap(({ id, quiz, found = [] }) =>
    [...new Set([...questionsUsed(quiz.content), ...found])].map((each) => [id, each]),
  )
  const keep = async (table: string, column: string, wanted: string[][], kind: OfSchool) => {
    const known = await ofSchool(
      db,
      kind,
      wanted.map(([, each]) => each!),
      school,
    )
    const kept = wanted.filter(([, each]) => known.has(each!))
    if (kept.length) await db.run(`INSERT IGNORE INTO ${table} (quiz_id, ${column}) VALUES ?`, [kept])
  }
  await keep('quiz_class', 'class_id', meant('classes'), 'class')
  await keep('quiz_group', 'group_id', meant('groups'), 'group')
  await keep('quiz_student', 'person_id', meant('students'), 'student')
  await keep('quiz_question', 'question_id', questions, 'question')
}

/** A blank quiz of a teacher's: with the rules of the set that their new quizzes begin with, where they keep one. */
async function blankQuiz(db: Db, person: Person, title: string): Promise<Quiz> {
  const [blank, set] = [newQuiz(title, newId()), await usualSet(db, person)]
  return set ? { ...blank, rules: { ...blank.rules, ...set.rules } } : blank
}

/** @param quiz what it begins with; a blank one when not said */
export async function createQuiz(
  db: Db,
  person: Person,
  title: string,
  now: Instant,
  id = newId(),
  quiz?: Quiz,
): Promise<string> {
  await createQuizzes(db, person, [{ id, title, quiz: quiz ?? (await blankQuiz(db, person, title)) }], now)
  return id
}

/** Makes several quizzes, in draft. */
export async function createQuizzes(
  db: Db,
  person: Person,
  quizzes: readonly { id: string; title: string; quiz: Quiz }[],
  now: Instant,
): Promise<void> {
  if (!quizzes.length) return
  await db.run('INSERT INTO quiz (id, school_id, owner_id, title, state, revision, body, changed_at) VALUES ?', [
    quizzes.map(({ id, title, quiz }) => [id, person.school, person.id, title, 'draft', 0, toJson(quiz), toSql(now)]),
  ])
  await indexQuizzes(db, quizzes, person.school)
}

/**
 * The state of a quiz now. Every page asks this one.
 * @param ends of everybody assigned and of the sittings under way (ends-now.ts)
 */
export function currentState(
  row: Pick<LoadedQuiz, 'stored' | 'quiz'>,
  ends: Pick<LatestEnds, 'everyone'>,
  now: Instant,
): QuizState {
  return stateOf(row.stored, row.quiz.rules, ends.everyone, now)
}

/** Who lets others in and out: the owner alone. Whoever shares in a quiz may leave it themself. */
async function ensureOwner(db: Db, person: Person, quizId: string): Promise<void> {
  const { owner } = await loadQuiz(db, quizId)
  if (owner !== person.id)
    throw new Problem(403, 'not-owner', 'Only the owner of this quiz decides who works in it. Ask them.')
}

/** Ends that a colleague works in the quiz. @throws Problem 403 where neither the owner nor the colleague asks for it */
export async function unshareQuiz(
  database: Database,
  person: Person,
  quizId: string,
  other: string,
  now: Instant,
): Promise<void> {
  if (other !== person.id) await ensureOwner(database, person, quizId)
  await database.transaction(async (db) => {
    const gone = await db.run('DELETE FROM quiz_teacher WHERE quiz_id = ? AND person_id = ?', [quizId, other])
    if (gone) await recordLine(db, now, person.id, 'quiz no longer shared', quizId, { with: other })
  })
}

/** Whoever shares in the quiz lets others in only where its owner allows it, and allows nobody else to. */
async function ensureMayShare(db: Db, person: Person, quizId: string, mayShare: boolean): Promise<void> {
  const own = await db.one<Pick<QuizTeacherRow, 'may_share'>>(
    'SELECT may_share FROM quiz_teacher WHERE quiz_id = ? AND person_id = ?',
    [quizId, person.id],
  )
  if (!own?.may_share || mayShare) await ensureOwner(db, person, quizId)
}

/** Lets a colleague work in the quiz. @param mayShare they may let others in as well; only the owner allows that */
export async function shareQuiz(
  database: Database,
  person: Person,
  quizId: string,
  { email, mayShare = false, may = 'write' }: { email: string; mayShare?: boolean; may?: 'read' | 'write' },
  now: Instant,
): Promise<{ name: string }> {
  await ensureMayShare(database, person, quizId, mayShare)
  const other = await database.one<Pick<PersonRow, 'id' | 'name'>>(
    "SELECT id, name FROM person WHERE email = ? AND school_id = ? AND role = 'teacher'",
    [email.trim().toLowerCase(), person.school],
  )
  const owns = (await loadQuiz(database, quizId)).owner === person.id
  if (!other) throw new Problem(422, 'no-teacher', 'No teacher of this school has that e-mail address.')
  await database.transaction(async (db) => {
    await db.run(
      `INSERT INTO quiz_teacher (quiz_id, person_id, may_share, may) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE ${owns ? 'may_share = VALUES(may_share), may = VALUES(may)' : "may = IF(may = 'write', may, VALUES(may))"}`,
      [quizId, other.id, mayShare && may === 'write', may],
    )
    await recordLine(db, now, person.id, 'quiz shared', quizId, { with: other.id, mayShare, may })
  })
  return { name: other.name }
}
