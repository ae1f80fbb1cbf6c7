import type { QuizEditRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import {
  applyEdit,
  changesInWords,
  changesRules,
  EditConflict,
  EditError,
  hasConditions,
  questionsNamed,
  questionsUsed,
  type Edit,
  type Quiz,
} from '../../../core/quiz'
import { toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { QuestionRow } from '../../database/tables'
import { readEdit } from '../../documents/read'
import { seenAmong } from '../bank/finding/visible'
import { audienceOf, namedIn } from '../../../core/schedule'
import { mapInOrder } from '../../database/batches'
import { audienceNames } from '../classes/classes'
import { ofSchool, type OfSchool } from '../of-school'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { rewriteOpenSittings } from '../sittings/timing'
import { cleanEdit } from './clean-edit'
import { loadEdition } from './edition'
import { editsSince, keepEdit, lastChange, revisionOf, type KeptEdit } from './history'
import { ensureTeaches, indexQuizzes, loadQuiz, type LoadedQuiz } from './quizzes'
import { guardQuiz } from './start-guard'

export interface EditReply {
  revision: number
  /** All edits since the revision that the page had, its own among them; null where `quiz` says it all. */
  since: KeptEdit[] | null
  quiz: Quiz | null
}

/** What others did since a revision: edit by edit, or the whole quiz for a page that is far behind. */
export async function changesSince(db: Db, quizId: string, revision: number): Promise<EditReply> {
  const since = await editsSince(db, quizId, revision)
  if (since) return { revision: since.at(-1)?.revision ?? revision, since, quiz: null }
  const row = await loadQuiz(db, quizId)
  return { revision: row.revision, since: null, quiz: row.quiz }
}

/** Says who changed what an edit does not find as it expects. */
async function conflictProblem(db: Db, person: Person, quizId: string, conflict: EditConflict): Promise<Problem> {
  const last = await lastChange(db, quizId, conflict.paths)
  const who = !last ? 'Somebody' : last.by === person.id ? 'You yourself, on another page,' : last.byName
  const has = last?.by === person.id ? 'have' : 'has'
  return new Problem(
    409,
    'edit-conflict',
    conflict.gone
      ? `${who} ${has} taken this out in the meantime. ${conflict.message}`
      : `${who} ${has} changed the same thing in the meantime.`,
    { by: last?.byName ?? null, at: last?.at ?? null, gone: conflict.gone },
  )
}

async function applied(db: Db, person: Person, row: LoadedQuiz, edit: Edit): Promise<Quiz> {
  try {
    return applyEdit(row.quiz, edit).quiz
  } catch (error) {
    if (error instanceof EditConflict) throw await conflictProblem(db, person, row.id, error)
    if (error instanceof EditError) throw new Problem(422, 'edit', error.message)
    throw error
  }
}

/** Questions that the history of a quiz has had in it: undoing brings them back, whoever may see them by now. */
async function hadBefore(db: Db, quizId: string, ids: readonly string[]): Promise<Set<string>> {
  // The text finds candidates; what counts is what an edit did with them.
  const rows = await db.rows<Pick<QuizEditRow, 'body'>>(
    `SELECT e.body FROM quiz_edit e WHERE e.quiz_id = ? AND (${ids.map(() => 'e.body LIKE ?').join(' OR ')})`,
    [quizId, ...ids.map((id) => `%"${id}"%`)],
  )
  return new Set(rows.flatMap(({ body }) => questionsNamed(readEdit(body) ?? { do: 'all', edits: [] })))
}

/** Classes, groups and students for whom a quiz comes to be are the school's own. */
async function ensureOwnPeople(db: Db, person: Person, quizId: string, quiz: Quiz, before: Quiz): Promise<void> {
  const came = (of: (rules: Quiz['rules']) => string[]) => {
    const known = new Set(of(before.rules))
    return [...new Set(of(quiz.rules))].filter((id) => !known.has(id))
  }
  const kinds: [OfSchool, string[]][] = [
    ['class', came((rules) => audienceOf(rules).classes)],
    ['group', came((rules) => [...audienceOf(rules).groups, ...rules.needs.flatMap((need) => need.groups)])],
    ['student', came(namedIn)],
  ]
  await mapInOrder(kinds, async ([kind, ids]) => {
    if ((await ofSchool(db, kind, ids, person.school)).size < ids.length)
      throw new Problem(422, 'audience', `Whom this names (a ${kind}) is not in this school, or not any more.`)
  })
  await ensureOwnLink(db, quizId, quiz, before)
}

/** Those who come by a link are the audience of its quiz alone. */
async function ensureOwnLink(db: Db, quizId: string, { rules }: Quiz, before: Quiz): Promise<void> {
  const named = ({ link, windows }: Quiz['rules']) => [
    ...(link ? [link.audience] : []),
    ...windows.flatMap(({ classes }) => classes),
  ]
  const known = new Set(named(before.rules))
  const came = [...new Set(named(rules))].filter((id) => !known.has(id))
  const rows = came.length
    ? await db.rows<{ id: string; link_of: string | null }>('SELECT id, link_of FROM class WHERE id IN (?)', [came])
    : []
  const wrongLink =
    rules.link && rules.link.audience !== before.rules.link?.audience
      ? !rows.some(({ id, link_of: of }) => id === rules.link!.audience && of === quizId)
      : false
  if (wrongLink || rows.some(({ link_of: of }) => of !== null && of !== quizId))
    throw new Problem(422, 'audience', 'This link is not the link of this quiz.')
}

/** Students were told that nobody sees whose papers are: that stands once somebody has begun. */
async function ensureStaysNameless(db: Db, row: LoadedQuiz, quiz: Quiz): Promise<void> {
  if (!row.quiz.rules.anonymous || quiz.rules.anonymous) return
  if (await isBegun(db, row.id))
    throw new Problem(
      422,
      'anonymous',
      'Somebody has begun it, and was told that it is without names: that cannot be lifted. Copy the quiz to ask with names.',
    )
}

/** Questions that come into a quiz are those that the person may see, or that were in it before. */
async function ensureOwnThings(
  db: Db,
  person: Person,
  quizId: string,
  quiz: Quiz,
  before: Quiz,
  now: Instant,
): Promise<void> {
  const known = new Set(questionsUsed(before.content))
  const added = questionsUsed(quiz.content).filter((id) => !known.has(id))
  if (!added.length) return
  const rows = await db.rows<Pick<QuestionRow, 'id'>>(
    "SELECT id FROM question WHERE id IN (?) AND school_id = ? AND sharing <> 'staged'",
    [added, person.school],
  )
  // Those of outside banks that are granted may stand in a draft; the checks ask that they are taken first.
  const seen = await seenAmong(db, person, added, now)
  const closed = rows.filter((row) => !seen.has(row.id)).map((row) => row.id)
  const had = closed.length ? await hadBefore(db, quizId, closed) : new Set()
  if (rows.length < added.length || closed.some((id) => !had.has(id)))
    throw new Problem(422, 'question', 'One of the questions is not in this school’s bank.')
}

/**
 * Replays an edit on the newest revision and keeps it (architecture, Data). Sending the same token again is the same
 * save. An edit that does not find what it expects was made beside a colleague's: then nothing is changed.
 * @param on the revision that the page had
 */
export async function makeEdit(
  database: Database,
  person: Person,
  quizId: string,
  on: number,
  token: string,
  sent: Edit,
  now: Instant,
): Promise<EditReply> {
  const edit = cleanEdit(sent)
  return database.transaction(async (db) => {
    await db.one('SELECT id FROM quiz WHERE id = ? FOR UPDATE', [quizId])
    await ensureTeaches(db, person, quizId)
    const row = await loadQuiz(db, quizId)
    if ((await revisionOf(db, quizId, token)) === undefined) {
      const quiz = await applied(db, person, row, edit)
      await ensureOwnThings(db, person, quizId, quiz, row.quiz, now)
      await ensureOwnPeople(db, person, quizId, quiz, row.quiz)
      await keepChange(db, person, row, quiz, token, edit, now)
    }
    return changesSince(db, quizId, on)
  })
}

/** Keeps what an edit has made of a quiz, with the edit, and what follows from a change of rules. */
export async function keepChange(
  db: Db,
  person: Person,
  row: LoadedQuiz,
  quiz: Quiz,
  token: string,
  edit: Edit,
  now: Instant,
): Promise<void> {
  const revision = row.revision + 1
  await keepQuiz(db, person, row, quiz, revision, now)
  await keepEdit(db, person, row.id, revision, token, edit, applyEdit(row.quiz, edit).inverse, now)
  if (!changesRules(edit)) return
  await keepRules(db, person, row, quiz, revision, now)
  // From here on nobody starts on the rules as they were.
  await guardQuiz(db, row.id)
  await ensureStaysSurvey(db, row, quiz)
  await ensureStaysNameless(db, row, quiz)
  if (row.stored !== 'draft') await rewriteOpenSittings(db, { quiz: row.id, rules: quiz.rules }, now)
}

/** Whether somebody has begun a quiz by now, also while this transaction was under way. */
const isBegun = async (db: Db, quiz: string): Promise<boolean> =>
  (await db.one('SELECT 1 AS yes FROM attempt WHERE quiz_id = ? LIMIT 1 LOCK IN SHARE MODE', [quiz])) !== undefined

/** What was sat as a survey was not marked, and what was sat to be marked was: neither becomes the other. */
async function ensureStaysSurvey(db: Db, row: LoadedQuiz, quiz: Quiz): Promise<void> {
  if ((row.quiz.rules.counts === 'survey') === (quiz.rules.counts === 'survey')) return
  if (await isBegun(db, row.id))
    throw new Problem(
      422,
      'survey',
      'Somebody has sat it already: a survey stays a survey, and what is marked stays marked. Copy the quiz to change that.',
    )
}

/** Compare-and-set on the revision: on a cluster a row lock alone lets two nodes win. */
async function keepQuiz(
  db: Db,
  person: Person,
  row: LoadedQuiz,
  quiz: Quiz,
  revision: number,
  now: Instant,
): Promise<void> {
  // An edition stays up to date when only rules have changed beside it.
  const sameContent = toJson(quiz.content) === toJson(row.quiz.content)
  const edition = sameContent && row.editionRevision === row.revision ? revision : row.editionRevision
  const changed = await db.run(
    'UPDATE quiz SET body = ?, title = ?, revision = ?, edition_revision = ?, changed_at = ? WHERE id = ? AND revision = ?',
    [toJson(quiz), quiz.content.title, revision, edition, toSql(now), row.id, row.revision],
  )
  if (changed === 0) throw new Problem(409, 'moved-on', 'The quiz changed at the same moment. Try again.')
  const found =
    row.edition !== null && hasConditions(quiz.content)
      ? questionsUsed((await loadEdition(db, row.edition)).content)
      : []
  await indexQuizzes(db, [{ id: row.id, quiz, found }], person.school)
}

/** A change to living rules is versioned and recorded in words. */
async function keepRules(
  db: Db,
  person: Person,
  row: LoadedQuiz,
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
  const named = [row.quiz.rules, quiz.rules].flatMap(namedIn)
  const reading = { zone: person.zone, names: await audienceNames(db, person.school, named), scales: [] }
  await recordLine(db, now, person.id, 'rules changed', row.id, {
    version: revision,
    changes: changesInWords(row.quiz.rules, quiz.rules, reading, quiz),
  })
}
