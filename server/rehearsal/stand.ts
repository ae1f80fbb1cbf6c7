import { createHash } from 'node:crypto'
import type { StimulusRow } from '../database/tables'
import { frozenLists, questionsUsed, withHeld, type Edition } from '../../core/quiz'
import type { Instant } from '../../core/kit/time'
import { mapInOrder } from '../database/batches'
import { Remembered } from '../database/remembered'
import { documentKey } from '../domain/quizzes/known-documents'
import { freeze, loadEdition, rememberEdition, secretOf } from '../domain/quizzes/edition'
import { keepEdition, nextEdition } from '../domain/quizzes/open'
import { heldNow, stampOf } from '../domain/quizzes/held'
import { loadQuiz, type LoadedQuiz } from '../domain/quizzes/quizzes'
import { rosterChanged } from '../domain/classes/roster-stamp'
import { newId } from '../domain/ids'
import { ofSchool } from '../domain/of-school'
import { notFound } from '../domain/problem'
import type { Db } from '../database/database'
import { findPerson, type Person } from '../people/people'
import type { Rehearsal } from './schema'

/** Editions that were frozen for rehearsals lately, by all that they were frozen from. */
const frozen = new Remembered<Edition>(30, true)

/** The versions of all that a quiz is made of, as text. */
async function versionsIn(db: Db, questions: readonly string[]): Promise<string> {
  if (!questions.length) return ''
  const rows = await db.rows<{ id: string; version: number; stimulus: StimulusRow['version'] | null }>(
    'SELECT q.id, q.version, s.version AS stimulus FROM question q LEFT JOIN stimulus s ON s.id = q.stimulus_id WHERE q.id IN (?) ORDER BY q.id',
    [questions],
  )
  return rows.map(({ id, version, stimulus }) => `${id}:${version}:${stimulus ?? ''}`).join(' ')
}

/** The edition that the quiz would get if it were opened now, its checks not asked: a rehearsal is there to find out. */
async function asWritten(db: Db, teacher: Person, row: LoadedQuiz, secret: string): Promise<Edition> {
  const held = await heldNow(db, row)
  const quiz = { ...row.quiz, content: frozenLists(withHeld(row.quiz.content, held)) }
  const number = await nextEdition(db, row.id)
  const versions = await versionsIn(db, questionsUsed(quiz.content))
  const key = `${documentKey(row.row)} ${number} ${stampOf(held)} ${versions}`
  const known = frozen.get(key)
  if (known) return known
  // Its id is made of what it was frozen from: any thread that plays it has the same.
  const id = createHash('sha256').update(key).digest('hex').slice(0, 40)
  const edition = { ...(await freeze(db, teacher.school, quiz, number, secret)), id }
  frozen.set(key, edition)
  return edition
}

/** The edition that is played: of the quiz as students have it, or as it would be opened now. */
export async function editionPlayed(
  db: Db,
  teacher: Person,
  row: LoadedQuiz,
  content: Rehearsal['content'],
  secret: string,
): Promise<{ edition: Edition; isKept: boolean }> {
  const isKept = content === 'open' && row.edition !== null && row.stored !== 'draft'
  return { edition: isKept ? await loadEdition(db, row.edition!) : await asWritten(db, teacher, row, secret), isKept }
}

/** The quiz is open, with the edition that is played, or with another draw of it. */
async function layOutEdition(
  db: Db,
  teacher: Person,
  row: LoadedQuiz,
  { content, draw }: Pick<Rehearsal, 'content' | 'draw'>,
  secret: string,
  now: Instant,
): Promise<void> {
  const { edition, isKept } = await editionPlayed(db, teacher, row, content, secret)
  const number = (await nextEdition(db, row.id)) + 1
  const played = draw > 0 ? { ...edition, id: newId(), number, secret: secretOf(secret, `draw ${draw}`) } : edition
  if (!isKept || draw > 0) await keepEdition(db, row.id, played, teacher.id, now)
  rememberEdition(played)
  if (isKept && draw === 0 && row.stored === 'published') return
  // Its time of change stays: whatever was worked out of its document holds.
  await db.run("UPDATE quiz SET state = 'published', edition_id = ?, edition_revision = revision WHERE id = ?", [
    played.id,
    row.id,
  ])
}

/** Tables that hold something of an attempt: the same as long as a process runs. */
let ofAttempts: readonly { table: string; column: string }[] | undefined
async function tablesOfAttempts(db: Db): Promise<readonly { table: string; column: string }[]> {
  ofAttempts ??= await db.rows<{ table: string; column: string }>(
    "SELECT TABLE_NAME AS `table`, COLUMN_NAME AS `column` FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME = 'attempt'",
  )
  return ofAttempts
}

/** The student has sat nothing of the quiz, and has seen and said nothing of it. */
async function forgetSat(db: Db, quiz: string, student: string): Promise<void> {
  await db.run('DELETE FROM quiz_notice WHERE quiz_id = ? AND person_id = ?', [quiz, student])
  const attempts = (
    await db.rows<{ id: string }>('SELECT id FROM attempt WHERE quiz_id = ? AND student_id = ?', [quiz, student])
  ).map(({ id }) => id)
  if (!attempts.length) return
  await mapInOrder(await tablesOfAttempts(db), ({ table, column }) =>
    db.run(`DELETE FROM \`${table}\` WHERE \`${column}\` IN (?)`, [attempts]),
  )
  await db.run('DELETE FROM attempt WHERE id IN (?)', [attempts])
}

/** Somebody made up, in a class and with nothing of their own. */
async function comeIn(db: Db, school: string, classId: string): Promise<string> {
  if (!(await ofSchool(db, 'class', [classId], school)).size) throw notFound('This class')
  const id = newId()
  await db.run(
    "INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES (?, ?, 'student', ?, NULL, '')",
    [id, school, 'Somebody made up'],
  )
  await db.run('INSERT INTO enrolment (class_id, person_id) VALUES (?, ?)', [classId, id])
  await rosterChanged(db, school)
  return id
}

/**
 * Sets a stage: the quiz is open, and whoever sits it is there.
 * @param secret what the papers of the quiz are drawn from
 * @returns who sits it
 */
export async function setStage(
  db: Db,
  teacher: Person,
  quizId: string,
  rehearsal: Omit<Rehearsal, 'acts'>,
  secret: string,
): Promise<Person> {
  // Whoever is made up comes first: their id hangs on nothing that is remembered or not.
  const { who } = rehearsal
  const id = 'student' in who ? who.student : await comeIn(db, teacher.school, who.inClass)
  const row = await loadQuiz(db, quizId)
  await layOutEdition(db, teacher, row, rehearsal, secret, rehearsal.at)
  const student = await findPerson(db, id)
  if (!student || student.school !== teacher.school || student.role !== 'student') throw notFound('This student')
  // Whose an anonymous paper is, nobody is told: not by looking at it with their eyes either.
  if (rehearsal.fresh || row.quiz.rules.anonymous) await forgetSat(db, quizId, student.id)
  // What a student has written for themself stays theirs.
  await db.run(
    'DELETE n FROM attempt_note n JOIN attempt a ON a.id = n.attempt_id WHERE a.quiz_id = ? AND a.student_id = ?',
    [quizId, student.id],
  )
  return student
}
