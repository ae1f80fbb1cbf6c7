import { z } from 'zod'
import type { Instant } from '../../../core/kit/time'
import { id, kindNames, type KindName } from '../../../core/question'
import { fromSql } from '../../database/codec'
import type { Db, Value } from '../../database/database'
import type { Person } from '../people/people'
import type { QuestionState } from './questions'
import { wordsOf } from './words'

const many = <T extends z.ZodType>(member: T) => z.preprocess((value) => (value === undefined || value === '' ? [] : Array.isArray(value) ? value : String(value).split(',')), z.array(member).max(40))

export const searchQuery = z.object({
  words: z.string().max(200, 'Search for at most 200 characters.').default(''),
  kind: many(z.enum(kindNames)),
  objective: many(id),
  difficulty: many(z.coerce.number().int().min(1).max(5)),
  state: z.enum(['usable', 'work', 'retired', 'all']).default('all'),
  from: z.coerce.number().int().min(0).max(100_000).default(0),
  take: z.coerce.number().int().min(1).max(200).default(60),
})
export type SearchQuery = z.infer<typeof searchQuery>

export interface Hit {
  id: string, version: number, state: QuestionState, kind: KindName, title: string, internalName: string, key: string
  points: number, seconds: number, difficulty: number, objectives: string[], changedAt: Instant
  /** Share of answers that were right, with how many there were; null before anybody has answered. */
  right: { share: number, n: number } | null
  /** Quizzes that hold it. */
  used: number
}

export interface SearchResult {
  total: number
  hits: Hit[]
  counts: { kind: Record<string, number>, objective: Record<string, number>, difficulty: Record<string, number> }
}

interface Clause { name: 'words' | 'kind' | 'objective' | 'difficulty', sql: string, values: Value[] }

function clauses(query: SearchQuery): Clause[] {
  const all: Clause[] = wordsOf(query.words).slice(0, 8).map((word) => ({
    name: 'words', sql: 'EXISTS (SELECT 1 FROM question_word w WHERE w.question_id = q.id AND w.word LIKE ?)', values: [word.replace(/[%_\\]/g, '\\$&') + '%'],
  }))
  if (query.kind.length) all.push({ name: 'kind', sql: 'q.kind IN (?)', values: [query.kind] })
  if (query.difficulty.length) all.push({ name: 'difficulty', sql: 'q.difficulty IN (?)', values: [query.difficulty] })
  if (query.objective.length) {
    // An objective stands for all that lie under it.
    all.push({ name: 'objective', sql: `EXISTS (SELECT 1 FROM question_objective o WHERE o.question_id = q.id AND o.objective_id IN (
      WITH RECURSIVE under AS (SELECT id FROM objective WHERE id IN (?) UNION SELECT c.id FROM objective c JOIN under u ON c.parent_id = u.id) SELECT id FROM under))`, values: [query.objective] })
  }
  return all
}

function where(person: Person, query: SearchQuery, without?: Clause['name']): { sql: string, values: Value[] } {
  const used = clauses(query).filter((clause) => clause.name !== without)
  const state = query.state === 'all' ? 'q.state <> \'retired\'' : 'q.state = ?'
  return {
    sql: ['q.school_id = ?', state, ...used.map((clause) => clause.sql)].join(' AND '),
    values: [person.school, ...(query.state === 'all' ? [] : [query.state]), ...used.flatMap((clause) => clause.values)],
  }
}

/** Counts of one filter's values, with the other filters applied. */
async function countsOf(db: Db, person: Person, query: SearchQuery, name: 'kind' | 'objective' | 'difficulty'): Promise<Record<string, number>> {
  const { sql, values } = where(person, query, name)
  const column = name === 'objective' ? 'o.objective_id' : `q.${name}`
  const join = name === 'objective' ? 'JOIN question_objective o ON o.question_id = q.id' : ''
  const rows = await db.rows<{ value: string | number, n: number }>(`SELECT ${column} AS value, COUNT(*) AS n FROM question q ${join} WHERE ${sql} GROUP BY ${column}`, values)
  return Object.fromEntries(rows.map(({ value, n }) => [String(value), Number(n)]))
}

interface HitRow { id: string, version: number, state: QuestionState, kind: KindName, title: string, internal_name: string, key_text: string, points: string, seconds: number, difficulty: number, changed_at: string }

/** Searches by beginnings of words (all of them) and filters; newest first. */
export async function searchQuestions(db: Db, person: Person, query: SearchQuery): Promise<SearchResult> {
  const { sql, values } = where(person, query)
  const [total, rows, kind, objective, difficulty] = await Promise.all([
    db.one<{ n: number }>(`SELECT COUNT(*) AS n FROM question q WHERE ${sql}`, values),
    db.rows<HitRow>(`SELECT q.id, q.version, q.state, q.kind, q.title, q.internal_name, q.key_text, q.points, q.seconds, q.difficulty, q.changed_at
      FROM question q WHERE ${sql} ORDER BY q.changed_at DESC, q.id LIMIT ? OFFSET ?`, [...values, query.take, query.from]),
    countsOf(db, person, query, 'kind'), countsOf(db, person, query, 'objective'), countsOf(db, person, query, 'difficulty'),
  ])
  return { total: Number(total?.n ?? 0), hits: await withUse(db, rows), counts: { kind, objective, difficulty } }
}

/** Rows of given questions, as hits: for a running order that shows what it holds. */
export async function hitsFor(db: Db, person: Person, ids: readonly string[]): Promise<Hit[]> {
  if (!ids.length) return []
  return withUse(db, await db.rows<HitRow>('SELECT id, version, state, kind, title, internal_name, key_text, points, seconds, difficulty, changed_at FROM question WHERE id IN (?) AND school_id = ?', [ids, person.school]))
}

async function withUse(db: Db, rows: HitRow[]): Promise<Hit[]> {
  if (!rows.length) return []
  const ids = rows.map((row) => row.id)
  const [objectives, right, used] = await Promise.all([
    db.rows<{ question_id: string, objective_id: string }>('SELECT question_id, objective_id FROM question_objective WHERE question_id IN (?) ORDER BY position', [ids]),
    db.rows<{ question_id: string, n: number, share: string }>('SELECT question_id, COUNT(fraction_rounded) AS n, AVG(GREATEST(fraction_rounded, 0)) AS share FROM mark WHERE question_id IN (?) AND fraction_rounded IS NOT NULL GROUP BY question_id', [ids]),
    db.rows<{ question_id: string, n: number }>('SELECT question_id, COUNT(*) AS n FROM quiz_question WHERE question_id IN (?) GROUP BY question_id', [ids]),
  ])
  const rightOf = new Map(right.map((each) => [each.question_id, { share: Number(each.share), n: Number(each.n) }]))
  const usedIn = new Map(used.map((each) => [each.question_id, Number(each.n)]))
  return rows.map((row) => ({
    id: row.id, version: row.version, state: row.state, kind: row.kind, title: row.title, internalName: row.internal_name, key: row.key_text,
    points: Number(row.points), seconds: row.seconds, difficulty: row.difficulty, changedAt: fromSql(row.changed_at),
    objectives: objectives.filter((each) => each.question_id === row.id).map((each) => each.objective_id),
    right: rightOf.get(row.id) ?? null, used: usedIn.get(row.id) ?? 0,
  }))
}

export interface Objective { id: string, parent: string | null, code: string, title: string }

/** The school's objectives in the order of their codes. */
export async function objectives(db: Db, person: Person): Promise<Objective[]> {
  return db.rows<Objective>('SELECT id, parent_id AS parent, code, title FROM objective WHERE school_id = ? ORDER BY LENGTH(code), code', [person.school])
}
