import type { Instant } from '../../../core/kit/time'
import { completed, isBlank, kindOf, mapQuestionHtml, plainText, questionFaults, type Question } from '../../../core/question'
import { fromJson, fromSql, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { newId } from '../ids'
import { notFound, Problem } from '../problem'
import { recordLine } from '../record'
import type { Person } from '../people/people'
import { cleanHtml, renderMaths } from './html'
import { searchable, wordsOf } from './words'

export type QuestionState = 'work' | 'usable' | 'retired'

export interface QuestionDetail {
  id: string, version: number, state: QuestionState, question: Question, ownerName: string
  versions: { version: number, madeBy: string, madeAt: Instant }[]
}

const readQuestion = (body: string): Question => completed(fromJson<Question>(body))

/** The question as people see it: cleaned HTML with maths rendered. */
export function shown(question: Question): Question {
  return mapQuestionHtml(question, renderMaths)
}

function prepared(question: Question): Question {
  const clean = mapQuestionHtml(question, cleanHtml)
  shown(clean)
  return clean
}

/** Title, words and filters of a question, from its newest version. */
async function index(db: Db, id: string, question: Question): Promise<void> {
  const objectives = question.objectives.length
    ? await db.rows<{ id: string, title: string }>('SELECT id, title FROM objective WHERE id IN (?)', [question.objectives])
    : []
  if (objectives.length < question.objectives.length) throw new Problem(422, 'objective', 'One of the objectives is no longer there. Choose it anew.')
  await db.run('DELETE FROM question_objective WHERE question_id = ?', [id])
  await db.run('DELETE FROM question_word WHERE question_id = ?', [id])
  if (question.objectives.length) {
    await db.run('INSERT INTO question_objective (question_id, objective_id, position) VALUES ?', [question.objectives.map((objective, position) => [id, objective, position])])
  }
  const words = wordsOf(searchable(question, objectives.map(({ title }) => title).join(' ')))
  if (words.length) await db.run('INSERT IGNORE INTO question_word (word, question_id) VALUES ?', [words.map((word) => [word, id])])
}

function listed(question: Question) {
  const title = plainText(question.stem).slice(0, 400) || (isBlank(question.stem) ? 'Untitled question' : 'A picture')
  return { title, key: kindOf(question.kind).keyText(question.body).slice(0, 400) }
}

/** Keeps a new question. One that cannot be marked yet is kept as "in work". */
export async function addQuestion(database: Database, person: Person, question: Question, now: Instant, id = newId()): Promise<{ id: string, version: number, state: QuestionState }> {
  const clean = prepared(question)
  const state: QuestionState = questionFaults(clean).length ? 'work' : 'usable'
  const { title, key } = listed(clean)
  await database.transaction(async (db) => {
    await db.run(`INSERT INTO question (id, school_id, owner_id, state, version, changed_at, kind, title, internal_name, key_text, points, seconds, difficulty)
      VALUES (?, ?, ?, ?, 1, ?, ?, ?, ?, ?, ?, ?, ?)`, [id, person.school, person.id, state, toSql(now), clean.kind, title, clean.internalName, key, clean.points, clean.seconds, clean.difficulty])
    await db.run('INSERT INTO question_version (question_id, version, made_by, made_at, body) VALUES (?, 1, ?, ?, ?)', [id, person.id, toSql(now), toJson(clean)])
    await index(db, id, clean)
  })
  return { id, version: 1, state }
}

/**
 * Keeps a change as a new version; versions never change.
 * @param onVersion the version that was being edited: another one in between is a conflict, and nothing is lost
 */
export async function reviseQuestion(database: Database, person: Person, id: string, onVersion: number, question: Question, now: Instant): Promise<{ id: string, version: number, state: QuestionState }> {
  const clean = prepared(question)
  const state: QuestionState = questionFaults(clean).length ? 'work' : 'usable'
  const { title, key } = listed(clean)
  const version = onVersion + 1
  await database.transaction(async (db) => {
    const changed = await db.run(`UPDATE question SET version = ?, state = ?, changed_at = ?, kind = ?, title = ?, internal_name = ?, key_text = ?, points = ?, seconds = ?, difficulty = ?
      WHERE id = ? AND school_id = ? AND version = ?`, [version, state, toSql(now), clean.kind, title, clean.internalName, key, clean.points, clean.seconds, clean.difficulty, id, person.school, onVersion])
    if (changed === 0) {
      const newest = await db.one<{ version: number, name: string }>('SELECT v.version, p.name FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version JOIN person p ON p.id = v.made_by WHERE q.id = ? AND q.school_id = ?', [id, person.school])
      if (!newest) throw notFound('This question')
      throw new Problem(409, 'newer-version', `${newest.name} has made version ${newest.version} since you opened this question. Copy what you wrote, load the newest version and put it in.`, { version: newest.version })
    }
    await db.run('INSERT INTO question_version (question_id, version, made_by, made_at, body) VALUES (?, ?, ?, ?, ?)', [id, version, person.id, toSql(now), toJson(clean)])
    await index(db, id, clean)
    await recordLine(db, now, person.id, 'question revised', id, { version })
  })
  return { id, version, state }
}

/** Retires a question or brings it back. */
export async function setQuestionState(database: Database, person: Person, id: string, retired: boolean, now: Instant): Promise<void> {
  const { question } = await loadQuestion(database, person, id)
  const state: QuestionState = retired ? 'retired' : questionFaults(question).length ? 'work' : 'usable'
  await database.run('UPDATE question SET state = ?, changed_at = ? WHERE id = ? AND school_id = ?', [state, toSql(now), id, person.school])
}

export async function loadQuestion(db: Db, person: Person, id: string, version?: number): Promise<QuestionDetail> {
  const row = await db.one<{ version: number, state: QuestionState, owner: string }>('SELECT q.version, q.state, p.name AS owner FROM question q JOIN person p ON p.id = q.owner_id WHERE q.id = ? AND q.school_id = ?', [id, person.school])
  if (!row) throw notFound('This question')
  const rows = await db.rows<{ version: number, name: string, made_at: string, body: string | null }>(
    'SELECT v.version, p.name, v.made_at, IF(v.version = ?, v.body, NULL) AS body FROM question_version v JOIN person p ON p.id = v.made_by WHERE v.question_id = ? ORDER BY v.version DESC', [version ?? row.version, id])
  const body = rows.find((each) => each.body !== null)?.body
  if (!body) throw notFound('This version')
  return {
    id, version: row.version, state: row.state, question: readQuestion(body), ownerName: row.owner,
    versions: rows.map((each) => ({ version: each.version, madeBy: each.name, madeAt: fromSql(each.made_at) })),
  }
}

/** Newest versions of many questions at once, by id. Those that are not there are left out. */
export async function loadQuestions(db: Db, school: string, ids: readonly string[]): Promise<Map<string, { version: number, state: QuestionState, question: Question }>> {
  if (!ids.length) return new Map()
  const rows = await db.rows<{ id: string, version: number, state: QuestionState, body: string }>(
    'SELECT q.id, q.version, q.state, v.body FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version WHERE q.id IN (?) AND q.school_id = ?', [ids, school])
  return new Map(rows.map((row) => [row.id, { version: row.version, state: row.state, question: readQuestion(row.body) }]))
}
