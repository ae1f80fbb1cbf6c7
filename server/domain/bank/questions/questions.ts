import { z } from 'zod'
import type { PersonRow, QuestionRow, QuestionShareRow, QuestionVersionRow } from '../../../database/tables'
import type { Instant } from '../../../../core/kit/time'
import { id as questionId, mapEveryHtml, type Question } from '../../../../core/question'
import { fromSql, toSql } from '../../../database/codec'
import { readQuestion } from '../../../documents/read'
import type { Database, Db } from '../../../database/database'
import { newId } from '../../ids'
import { notFound, Problem } from '../../problem'
import type { Person } from '../../../people/people'
import { ensureFolder } from '../describing/folders'
import { ensureSeen } from '../finding/visible'
import { ensureWritable, writable } from './access'
import { cleanHtml, renderMaths } from '../material/clean-html'
import { insertQuestions, insertVersions, stateOf, usualKeeping, type Keeping, type QuestionState } from './rows'

export interface QuestionDetail {
  id: string
  version: number
  state: QuestionState
  question: Question
  ownerName: string
  mine: boolean
  mayWrite: boolean
  folder: string | null
  sharing: Keeping['sharing']
  shares: { email: string; name: string; may: 'read' | 'write' }[]
  versions: { version: number; madeBy: string; madeAt: Instant }[]
  /** Of a bank that somebody else keeps: whose, how many schools have chosen it, and the school's own copy. */
  origin: { bank: string; chosen: number; copy: string | null } | null
  /** Of a copy: from where, and whether its keeper has corrected it since. */
  takenFrom: { bank: string; corrected: boolean } | null
}

interface OwnRow {
  version: number
  state: QuestionState
  owner_id: string
  owner: string
  folder_id: string | null
  sharing: Keeping['sharing']
  bank: string | null
  chosen: number
  copy: string | null
  taken_from: string | null
  corrected: number | null
}

/** The question as people see it: cleaned HTML with maths rendered. */
export function shown(question: Question): Question {
  return mapEveryHtml(question, renderMaths)
}

/** Cleaned, with its maths tried. @throws Problem when it cannot be read */
export function prepared(question: Question): Question {
  const clean = mapEveryHtml(question, cleanHtml)
  shown(clean)
  return clean
}

/** Where a new question is kept, and who may see it. */
export const newKeeping = z.object({
  folder: z.union([z.literal(''), questionId]).default(''),
  sharing: z.enum(['school', 'private']).default('school'),
})

/** Keeps a new question. One that cannot be marked yet is kept as "in work". */
export async function addQuestion(
  database: Database,
  person: Pick<Person, 'id' | 'school'>,
  question: Question,
  now: Instant,
  id = newId(),
  keeping = usualKeeping,
): Promise<{ id: string; version: number; state: QuestionState }> {
  const clean = prepared(question)
  await ensureFolder(database, person, keeping.folder)
  const [kept] = await database.transaction((db) =>
    insertQuestions(db, person, [{ id, question: clean, keeping }], now),
  )
  return { id, version: 1, state: kept!.state }
}

/**
 * Keeps a change as a new version; versions never change.
 * @param onVersion the version that was being edited: another one in between is a conflict, and nothing is lost
 */
export async function reviseQuestion(
  database: Database,
  person: Person,
  id: string,
  onVersion: number,
  question: Question,
  now: Instant,
): Promise<{ id: string; version: number; state: QuestionState }> {
  const clean = prepared(question)
  await database.transaction(async (db) => {
    await ensureWritable(db, person, id)
    if ((await insertVersions(db, person, [{ id, on: onVersion, question: clean }], now)).size) return
    const newest = await db.one<Pick<QuestionVersionRow, 'version'> & Pick<PersonRow, 'name'>>(
      'SELECT v.version, p.name FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version JOIN person p ON p.id = v.made_by WHERE q.id = ?',
      [id],
    )
    throw new Problem(
      409,
      'newer-version',
      `${newest?.name ?? 'Somebody'} has made version ${newest?.version ?? '?'} since you opened this question. Copy what you wrote, load the newest version and put it in.`,
      { version: newest?.version },
    )
  })
  return { id, version: onVersion + 1, state: stateOf(clean) }
}

/** Retires a question or brings it back. */
export async function setQuestionState(
  database: Database,
  person: Person,
  id: string,
  retired: boolean,
  now: Instant,
): Promise<void> {
  const { question } = await loadQuestion(database, person, id)
  await ensureWritable(database, person, id)
  const state: QuestionState = retired ? 'retired' : stateOf(question)
  await database.run('UPDATE question SET state = ?, changed_at = ? WHERE id = ? AND school_id = ?', [
    state,
    toSql(now),
    id,
    person.school,
  ])
}

/** So many of the newest versions are listed; older ones are there by their number. */
const mostVersions = 200

/** @param now with it, questions of outside banks that are granted then are found as well */
export async function loadQuestion(
  db: Db,
  person: Person,
  id: string,
  version?: number,
  now: Instant | null = null,
): Promise<QuestionDetail> {
  await ensureSeen(db, person, id, now)
  const row = await db.one<OwnRow>(
    `SELECT q.version, q.state, q.owner_id, p.name AS owner, q.folder_id, q.sharing, b.name AS bank, q.chosen, mine.question_id AS copy, ob.name AS taken_from, o.version > c.of_version AS corrected
    FROM question q JOIN person p ON p.id = q.owner_id LEFT JOIN outside_bank b ON b.id = q.origin_bank LEFT JOIN question_copy mine ON mine.of_id = q.id
    LEFT JOIN question_copy c ON c.question_id = q.id LEFT JOIN question o ON o.id = c.of_id LEFT JOIN outside_bank ob ON ob.id = o.origin_bank WHERE q.id = ?`,
    [id],
  )
  if (!row) throw notFound('This question')
  const [rows, shares, may] = await Promise.all([
    db.rows<Pick<QuestionVersionRow, 'version' | 'made_at'> & Pick<PersonRow, 'name'> & { body: string | null }>(
      'SELECT v.version, p.name, v.made_at, IF(v.version = ?, v.body, NULL) AS body FROM question_version v JOIN person p ON p.id = v.made_by WHERE v.question_id = ? AND (v.version > ? OR v.version = ?) ORDER BY v.version DESC',
      [version ?? row.version, id, row.version - mostVersions, version ?? row.version],
    ),
    db.rows<Pick<PersonRow, 'name'> & { email: string } & Pick<QuestionShareRow, 'may'>>(
      `SELECT COALESCE(p.email, '') AS email, p.name, s.may FROM question_share s JOIN person p ON p.id = s.person_id WHERE s.question_id = ? ORDER BY p.name`,
      [id],
    ),
    writable(db, person, [id]),
  ])
  const body = rows.find((each) => each.body !== null)?.body
  if (!body) throw notFound('This version')
  return {
    id,
    version: row.version,
    state: row.state,
    question: readQuestion(body),
    ownerName: row.owner,
    mine: row.owner_id === person.id,
    mayWrite: may.has(id),
    folder: row.folder_id,
    sharing: row.sharing,
    shares,
    origin: row.bank === null ? null : { bank: row.bank, chosen: row.chosen, copy: row.copy },
    takenFrom: row.taken_from === null ? null : { bank: row.taken_from, corrected: Boolean(row.corrected) },
    versions: rows.map((each) => ({ version: each.version, madeBy: each.name, madeAt: fromSql(each.made_at) })),
  }
}

/** Newest versions of many questions at once, by id. Those that are not there are left out. */
export async function loadQuestions(
  db: Db,
  school: string,
  ids: readonly string[],
): Promise<Map<string, { version: number; state: QuestionState; question: Question }>> {
  if (!ids.length) return new Map()
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'version' | 'state'> & Pick<QuestionVersionRow, 'body'>>(
    'SELECT q.id, q.version, q.state, v.body FROM question q JOIN question_version v ON v.question_id = q.id AND v.version = q.version WHERE q.id IN (?) AND q.school_id = ?',
    [ids, school],
  )
  return new Map(
    rows.map((row) => [row.id, { version: row.version, state: row.state, question: readQuestion(row.body) }]),
  )
}
