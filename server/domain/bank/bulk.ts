import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import { id, points, type Question } from '../../../core/question'
import { fromJson, toJson, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { newId } from '../ids'
import type { Person } from '../people/people'
import { notFound, Problem } from '../problem'
import { writable } from './access'
import { putInto } from './folders'
import { insertVersion, loadQuestions, type QuestionState } from './questions'

const tag = z.string().trim().min(1).max(40)
const change = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('move'), folder: id.nullable() }),
  z.strictObject({ do: z.literal('tag'), add: z.array(tag).max(10), remove: z.array(tag).max(10) }),
  z.strictObject({ do: z.literal('objective'), add: z.array(id).max(10), remove: z.array(id).max(10) }),
  z.strictObject({ do: z.literal('points'), points }),
  z.strictObject({ do: z.literal('difficulty'), difficulty: z.int().min(1).max(5) }),
  z.strictObject({ do: z.literal('state'), retired: z.boolean() }),
])
type Change = z.infer<typeof change>
export const bulkRequest = z.strictObject({
  questions: z.array(id).min(1).max(500, 'Change at most 500 questions at once.'),
  change,
})

/** What stood before, for undoing: where it lay, its state, or the version that the change was made on. */
interface Before {
  id: string
  folder?: string | null
  state?: QuestionState
  on?: number
}

export interface BulkResult {
  change: string
  changed: number
  /** Those that the person may not change. */ refused: number
}

/** The question with a change of many, or null where it changes nothing. */
function changed(question: Question, by: Change): Question | null {
  const list = (present: string[], { add, remove }: { add: string[]; remove: string[] }) => [
    ...new Set([...present.filter((each) => !remove.includes(each)), ...add]),
  ]
  const next: Question =
    by.do === 'tag'
      ? { ...question, tags: list(question.tags, by).slice(0, 20) }
      : by.do === 'objective'
        ? { ...question, objectives: list(question.objectives, by).slice(0, 10) }
        : by.do === 'points'
          ? { ...question, points: by.points }
          : by.do === 'difficulty'
            ? { ...question, difficulty: by.difficulty }
            : question
  return JSON.stringify(next) === JSON.stringify(question) ? null : next
}

async function moveAll(db: Db, person: Person, ids: string[], folder: string | null): Promise<Before[]> {
  if (folder && !(await db.one('SELECT 1 AS yes FROM folder WHERE id = ? AND school_id = ?', [folder, person.school])))
    throw notFound('This folder')
  const rows = await db.rows<{ id: string; folder_id: string | null }>(
    'SELECT id, folder_id FROM question WHERE id IN (?)',
    [ids],
  )
  await putInto(db, ids, folder)
  return rows.map((row) => ({ id: row.id, folder: row.folder_id }))
}

async function setStates(db: Db, ids: string[], retired: boolean): Promise<Before[]> {
  const rows = await db.rows<{ id: string; state: QuestionState }>(
    `SELECT id, state FROM question WHERE id IN (?) AND state ${retired ? '<>' : '='} 'retired'`,
    [ids],
  )
  const found = await loadQuestionsState(
    db,
    rows.map((row) => row.id),
    retired,
  )
  for (const state of ['usable', 'work', 'retired'] as const) {
    const those = found.filter((each) => each.state === state).map((each) => each.id)
    if (those.length) await db.run('UPDATE question SET state = ? WHERE id IN (?)', [state, those])
  }
  return rows
}

/** A question that comes back is "in work" while it has no key yet; its newest version says. */
async function loadQuestionsState(
  db: Db,
  ids: string[],
  retired: boolean,
): Promise<{ id: string; state: QuestionState }[]> {
  if (retired || !ids.length) return ids.map((each) => ({ id: each, state: 'retired' }))
  const rows = await db.rows<{ id: string; key_text: string }>('SELECT id, key_text FROM question WHERE id IN (?)', [
    ids,
  ])
  return rows.map((row) => ({ id: row.id, state: row.key_text ? 'usable' : 'work' }))
}

async function reviseAll(db: Db, person: Person, ids: string[], by: Change, now: Instant): Promise<Before[]> {
  const questions = await loadQuestions(db, person.school, ids)
  const done: Before[] = []
  for (const [each, { version, state, question }] of questions) {
    const next = changed(question, by)
    if (next && (await insertVersion(db, person, each, version, next, now, state))) done.push({ id: each, on: version })
  }
  return done
}

/** Changes many questions in one go, or none; what it did can be taken back. */
export async function changeMany(
  database: Database,
  person: Person,
  request: z.infer<typeof bulkRequest>,
  now: Instant,
): Promise<BulkResult> {
  return database.transaction(async (db) => {
    const may = await writable(db, person, request.questions)
    const ids = [...new Set(request.questions)].filter((each) => may.has(each))
    const by = request.change
    const before = !ids.length
      ? []
      : by.do === 'move'
        ? await moveAll(db, person, ids, by.folder)
        : by.do === 'state'
          ? await setStates(db, ids, by.retired)
          : await reviseAll(db, person, ids, by, now)
    const made = newId()
    await db.run('INSERT INTO bulk_change (id, person_id, made_at, body) VALUES (?, ?, ?, ?)', [
      made,
      person.id,
      toSql(now),
      toJson(before),
    ])
    return { change: made, changed: before.length, refused: request.questions.length - ids.length }
  })
}

/**
 * Takes a change of many back. A question that somebody has changed since keeps that: only what still stands as this
 * change left it goes back.
 */
export async function undoMany(
  database: Database,
  person: Person,
  changeId: string,
  now: Instant,
): Promise<{ undone: number; kept: number }> {
  return database.transaction(async (db) => {
    const won = await db.run(
      'UPDATE bulk_change SET undone_at = ? WHERE id = ? AND person_id = ? AND undone_at IS NULL',
      [toSql(now), changeId, person.id],
    )
    const row = await db.one<{ body: string }>('SELECT body FROM bulk_change WHERE id = ? AND person_id = ?', [
      changeId,
      person.id,
    ])
    if (!row) throw notFound('This change')
    if (!won) throw new Problem(409, 'undone', 'This change has been taken back already.')
    const before = fromJson<Before[]>(row.body)
    let undone = 0
    for (const each of before) undone += (await putBack(db, person, each, now)) ? 1 : 0
    return { undone, kept: before.length - undone }
  })
}

async function putBack(db: Db, person: Person, before: Before, now: Instant): Promise<boolean> {
  if (before.folder !== undefined) {
    await putInto(db, [before.id], before.folder)
    return true
  }
  if (before.state) return (await db.run('UPDATE question SET state = ? WHERE id = ?', [before.state, before.id])) > 0
  const row = await db.one<{ body: string; state: QuestionState }>(
    'SELECT v.body, q.state FROM question_version v JOIN question q ON q.id = v.question_id WHERE v.question_id = ? AND v.version = ?',
    [before.id, before.on!],
  )
  return row
    ? insertVersion(db, person, before.id, before.on! + 1, fromJson<Question>(row.body), now, row.state)
    : false
}
