import type { BulkChangeRow, QuestionRow } from '../../../database/tables'
import { z } from 'zod'
import type { Instant } from '../../../../core/kit/time'
import { id, points, type Question } from '../../../../core/question'
import { withAnswersShuffled } from '../../../../core/question/shuffle-answers'
import { toJson, toSql } from '../../../database/codec'
import { readOwn } from '../../../documents/read'
import type { Database, Db } from '../../../database/database'
import { byKey } from '../../../database/by-key'
import { newId } from '../../ids'
import type { Person } from '../../../people/people'
import { notFound, Problem } from '../../problem'
import { writable } from './access'
import { ensureFolder, putInto } from '../describing/folders'
import { insertVersions, loadVersions, stateOf, type QuestionState } from './rows'
import { loadQuestions } from './questions'

const tag = z.string().trim().min(1).max(40)
const change = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('move'), folder: id.nullable() }),
  z.strictObject({ do: z.literal('tag'), add: z.array(tag).max(10), remove: z.array(tag).max(10) }),
  z.strictObject({ do: z.literal('objective'), add: z.array(id).max(10), remove: z.array(id).max(10) }),
  z.strictObject({ do: z.literal('points'), points }),
  z.strictObject({ do: z.literal('difficulty'), difficulty: z.int().min(1).max(5) }),
  z.strictObject({ do: z.literal('state'), retired: z.boolean() }),
  /** Options in another order for good. */
  z.strictObject({ do: z.literal('shuffleAnswers'), seed: z.int().min(0).max(4_294_967_295) }),
])
type Change = z.infer<typeof change>
export const bulkRequest = z.strictObject({
  questions: z.array(id).min(1).max(500, 'Change at most 500 questions at once.'),
  change,
})

/** What stood before and what this change made of it: only what still stands so is taken back. */
type Before =
  | { id: string; folder: string | null; to: string | null }
  | { id: string; state: QuestionState; to: QuestionState }
  /** The version that the change was made on; it made the next. */
  | { id: string; on: number }

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
            : by.do === 'shuffleAnswers'
              ? withAnswersShuffled(question, by.seed)
              : question
  return JSON.stringify(next) === JSON.stringify(question) ? null : next
}

async function moveAll(db: Db, person: Person, ids: string[], folder: string | null): Promise<Before[]> {
  await ensureFolder(db, person, folder)
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'folder_id'>>(
    'SELECT id, folder_id FROM question WHERE id IN (?) FOR UPDATE',
    [ids],
  )
  await putInto(
    db,
    ids.map((question) => ({ question, folder })),
  )
  return rows.map((row) => ({ id: row.id, folder: row.folder_id, to: folder }))
}

async function setStates(db: Db, person: Person, ids: string[], retired: boolean): Promise<Before[]> {
  const found = [...(await loadQuestions(db, person.school, ids))].filter(
    ([, each]) => (each.state === 'retired') !== retired,
  )
  const next = found.map(([each, { state, question }]) => ({
    id: each,
    state,
    to: retired ? ('retired' as const) : stateOf(question),
  }))
  await setStateOf(db, next)
  return next
}

/** Gives questions the states that they get. */
async function setStateOf(db: Db, questions: readonly { id: string; to: QuestionState }[]): Promise<void> {
  if (!questions.length) return
  const state = byKey(
    'id',
    questions.map((each) => [each.id, each.to] as const),
  )
  await db.run(`UPDATE question SET state = ${state.sql} WHERE id IN (?)`, [
    ...state.values,
    questions.map((each) => each.id),
  ])
}

async function reviseAll(db: Db, person: Person, ids: string[], by: Change, now: Instant): Promise<Before[]> {
  const revisions = [...(await loadQuestions(db, person.school, ids))].flatMap(([each, { version, question }]) => {
    const next = changed(question, by)
    return next ? [{ id: each, on: version, question: next }] : []
  })
  const kept = await insertVersions(db, person, revisions, now)
  return revisions.filter((each) => kept.has(each.id)).map((each) => ({ id: each.id, on: each.on }))
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
          ? await setStates(db, person, ids, by.retired)
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
    const row = await db.one<Pick<BulkChangeRow, 'body'>>(
      'SELECT body FROM bulk_change WHERE id = ? AND person_id = ?',
      [changeId, person.id],
    )
    if (!row) throw notFound('This change')
    if (!won) throw new Problem(409, 'undone', 'This change has been taken back already.')
    const before = readOwn<Before[]>(row.body)
    // What has been taken from them since is no more theirs to put back.
    const may = await writable(
      db,
      person,
      before.map((each) => each.id),
    )
    const undone = await putBack(
      db,
      person,
      before.filter((each) => may.has(each.id)),
      now,
    )
    return { undone, kept: before.length - undone }
  })
}

/** Only what still stands as the change left it. @returns how many went back */
async function putBack(db: Db, person: Person, before: readonly Before[], now: Instant): Promise<number> {
  const moved = before.filter((each) => 'folder' in each)
  const turned = before.filter((each) => 'state' in each)
  const revised = before.filter((each) => 'on' in each)
  return (await moveBack(db, moved)) + (await turnBack(db, turned)) + (await reviseBack(db, person, revised, now))
}

async function moveBack(db: Db, moved: readonly Extract<Before, { folder: unknown }>[]): Promise<number> {
  if (!moved.length) return 0
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'folder_id'>>(
    'SELECT id, folder_id FROM question WHERE id IN (?) FOR UPDATE',
    [moved.map((each) => each.id)],
  )
  const liesIn = new Map(rows.map((row) => [row.id, row.folder_id]))
  const left = moved.filter((each) => liesIn.get(each.id) === each.to)
  await putInto(
    db,
    left.map((each) => ({ question: each.id, folder: each.folder })),
  )
  return left.length
}

async function turnBack(db: Db, turned: readonly Extract<Before, { state: unknown }>[]): Promise<number> {
  if (!turned.length) return 0
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'state'>>(
    'SELECT id, state FROM question WHERE id IN (?) FOR UPDATE',
    [turned.map((each) => each.id)],
  )
  const standsAt = new Map(rows.map((row) => [row.id, row.state]))
  const left = turned.filter((each) => standsAt.get(each.id) === each.to)
  await setStateOf(
    db,
    left.map((each) => ({ id: each.id, to: each.state })),
  )
  return left.length
}

async function reviseBack(
  db: Db,
  person: Person,
  revised: readonly Extract<Before, { on: unknown }>[],
  now: Instant,
): Promise<number> {
  const bodies = await loadVersions(
    db,
    revised.map((each) => ({ id: each.id, version: each.on })),
  )
  const revisions = revised.flatMap(({ id: each, on }) => {
    const question = bodies.get(each)
    return question ? [{ id: each, on: on + 1, question }] : []
  })
  return (await insertVersions(db, person, revisions, now)).size
}
