import { createHash } from 'node:crypto'
import type { StimulusRow } from '../database/tables'
import { frozenLists, questionsUsed, withHeld, type Edition } from '../../core/quiz'
import { Remembered } from '../database/remembered'
import { documentKey } from '../domain/quizzes/known-documents'
import { freeze, loadEdition, rememberEdition, secretOf } from '../domain/quizzes/edition'
import { nextEdition } from '../domain/quizzes/open'
import { heldNow, stampOf } from '../domain/quizzes/held'
import { loadQuiz, type LoadedQuiz } from '../domain/quizzes/quizzes'
import { rosterChanged } from '../domain/classes/roster-stamp'
import { newId } from '../domain/ids'
import { ofSchool } from '../domain/of-school'
import { notFound } from '../domain/problem'
import type { Db } from '../database/database'
import { findPerson, type Person } from '../people/people'
import type { Rehearsal } from './schema'
import type { StageScope } from './stage-tables'

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
  quiz: string,
  { edition, isKept, nextNumber }: Pick<Played, 'edition' | 'isKept' | 'nextNumber'>,
  draw: number,
  secret: string,
): Promise<void> {
  const played =
    draw > 0 ? { ...edition, id: newId(), number: nextNumber + 1, secret: secretOf(secret, `draw ${draw}`) } : edition
  // It is found where it is remembered: there is no row of it.
  rememberEdition(played)
  if (isKept && draw === 0) return
  // Its time of change stays: whatever was worked out of its document holds.
  await db.run("UPDATE quiz SET state = 'published', edition_id = ?, edition_revision = revision WHERE id = ?", [
    played.id,
    quiz,
  ])
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

/** What is read of the real quiz before a stage is laid. */
export interface Played {
  edition: Edition
  /** Students have it so: the quiz is open with it. */
  isKept: boolean
  /** Of the edition that would come next. */
  nextNumber: number
  scope: StageScope
}

/** Looks up what a rehearsal plays. @param secret what the papers of the quiz are drawn from */
export async function lookUpPlayed(
  db: Db,
  teacher: Person,
  quizId: string,
  { who, content, fresh, at }: Pick<Rehearsal, 'who' | 'content' | 'fresh' | 'at'>,
  secret: string,
): Promise<Played> {
  const row = await loadQuiz(db, quizId)
  const { edition, isKept } = await editionPlayed(db, teacher, row, content, secret)
  return {
    edition,
    isKept: isKept && row.stored === 'published',
    nextNumber: await nextEdition(db, quizId),
    scope: {
      school: teacher.school,
      quiz: quizId,
      student: 'student' in who ? who.student : null,
      fresh,
      // Whose an anonymous paper is, nobody is told: not by looking at it with their eyes either.
      nameless: row.quiz.rules.anonymous,
      at,
    },
  }
}

/**
 * Sets a stage: the quiz is open, and whoever sits it is there.
 * @returns who sits it
 */
export async function setStage(
  db: Db,
  teacher: Person,
  quizId: string,
  played: Played,
  { who, draw }: Pick<Rehearsal, 'who' | 'draw'>,
  secret: string,
): Promise<Person> {
  const id = 'student' in who ? who.student : await comeIn(db, teacher.school, who.inClass)
  await layOutEdition(db, quizId, played, draw, secret)
  const student = await findPerson(db, id)
  if (!student || student.school !== teacher.school || student.role !== 'student') throw notFound('This student')
  return student
}
