import { z } from 'zod'
import type { QuizRow } from '../../database/tables'
import { beforeAll, type Instant } from '../../../core/kit/time'
import { count } from '../../../core/kit/phrases'
import { id } from '../../../core/question'
import type { QuizState } from '../../../core/quiz'
import { audienceOf, takenUntil, type Audience } from '../../../core/schedule'
import { fromJson, fromSql, toSql } from '../../database/codec'
import type { Db, Value } from '../../database/database'
import type { Person } from '../../people/people'
import { like, under } from '../bank/finding/search-query'
import { audienceNames } from '../classes/classes'
import { endsNow, rosterOf } from './ends-now'
import { filingColumns, readFiling, type Filing } from './filing'
import { quizDocuments } from './known-documents'
import { currentState } from './quizzes'

const meantWords = ({ classes, groups, students }: Audience, names: ReadonlyMap<string, string>): string[] => [
  ...[...classes, ...groups].flatMap((each) => names.get(each) ?? []),
  ...(students.length ? [count(students.length, 'student')] : []),
]

export interface QuizListRow extends Filing {
  id: string
  title: string
  state: QuizState
  ownerName: string
  mine: boolean
  /** What the teacher may do: work in it, or look at it and copy it. Of the latter nothing is told of its classes. */
  may: 'read' | 'write'
  opens: Instant | null
  closes: Instant | null
  /** For whom it is: classes, groups, and how many single students. */
  meant: string[]
  sitting: number
  handedIn: number
  changedAt: Instant
}

/** So many come at once; what was changed before those, and what is filed, comes with the next. */
export const mostListed = 500

/** What quizzes are found by. */
export const quizQuery = z.object({
  after: z.coerce.number().int().min(0).max(1_000_000).default(0),
  /** In titles, descriptions, terms and tags; each word has to stand somewhere. */
  words: z.string().max(200, 'Search for at most 200 characters.').default(''),
  /** One's own with those that were shared by name; or those of the school that one may look at. */
  whose: z.enum(['mine', 'school', 'all']).default('mine'),
  folder: z.union([z.literal(''), id]).default(''),
  term: z.string().max(60).default(''),
  tag: z.string().max(40).default(''),
})
export type QuizQuery = z.infer<typeof quizQuery>

const named =
  'q.id IN (SELECT id FROM quiz WHERE owner_id = ? UNION SELECT quiz_id FROM quiz_teacher WHERE person_id = ?)'
const ofSchool = "q.school_id = ? AND q.sharing = 'school'"

/** The quizzes that are asked for, of those that a teacher may look at. */
async function where(db: Db, person: Person, query: QuizQuery): Promise<{ sql: string; values: Value[] }> {
  const folders = await under(db, 'folder', person.school, query.folder ? [query.folder] : [])
  const parts: { sql: string; values: Value[] }[] = [
    query.whose === 'mine'
      ? { sql: named, values: [person.id, person.id] }
      : query.whose === 'school'
        ? { sql: `${ofSchool} AND NOT ${named}`, values: [person.school, person.id, person.id] }
        : { sql: `(${named} OR (${ofSchool}))`, values: [person.id, person.id, person.school] },
    ...query.words
      .split(/\s+/)
      .filter(Boolean)
      .slice(0, 8)
      .map((word) => ({
        sql: "CONCAT_WS(' ', q.title, q.description, q.term, q.tags) LIKE ?",
        values: [`%${like(word)}`],
      })),
    ...(query.folder ? [{ sql: 'q.folder_id IN (?)', values: [folders.length ? folders : ['-']] }] : []),
    ...(query.term ? [{ sql: 'q.term = ?', values: [query.term] }] : []),
    ...(query.tag ? [{ sql: 'JSON_CONTAINS(q.tags, JSON_QUOTE(?))', values: [query.tag] }] : []),
  ]
  return { sql: parts.map((part) => part.sql).join(' AND '), values: parts.flatMap((part) => part.values) }
}

/** Quizzes that a teacher may look at whose title or filing has some words: those that were changed last first. */
export async function quizzesNamed(
  db: Db,
  person: Person,
  words: string,
  most: number,
): Promise<{ id: string; title: string; mayWrite: boolean }[]> {
  const asked = await where(db, person, quizQuery.parse({ words, whose: 'all' }))
  const rows = await db.rows<Pick<QuizRow, 'id' | 'title'> & { writes: number }>(
    `SELECT q.id, q.title, (q.owner_id = ? OR EXISTS (SELECT 1 FROM quiz_teacher t WHERE t.quiz_id = q.id AND t.person_id = ? AND t.may = 'write')) AS writes
    FROM quiz q WHERE ${asked.sql} ORDER BY q.state = 'filed', q.changed_at DESC, q.id LIMIT ?`,
    [person.id, person.id, ...asked.values, most],
  )
  return rows.map(({ id, title, writes }) => ({ id, title, mayWrite: Boolean(writes) }))
}

type Row = Pick<
  QuizRow,
  'id' | 'owner_id' | 'state' | 'revision' | 'changed_at' | 'description' | 'term' | 'tags' | 'folder_id' | 'sharing'
> & { owner: string; may: 'read' | 'write'; sitting: number; total: number }

/** Quizzes that a teacher may look at, those that were changed last first, filed ones at the end. */
export async function listQuizzes(
  db: Db,
  person: Person,
  now: Instant,
  query: QuizQuery = quizQuery.parse({}),
): Promise<{ quizzes: QuizListRow[]; more: boolean }> {
  const asked = await where(db, person, query)
  const found = await db.rows<Row>(
    `SELECT q.id, q.owner_id, q.state, q.revision, q.changed_at, ${filingColumns}, p.name AS owner,
      IF(q.owner_id = ?, 'write', COALESCE((SELECT t.may FROM quiz_teacher t WHERE t.quiz_id = q.id AND t.person_id = ?), 'read')) AS may,
      (SELECT COUNT(*) FROM attempt a WHERE a.quiz_id = q.id AND a.state = 'open' AND a.hard_stop >= ?) AS sitting,
      (SELECT COUNT(*) FROM attempt a WHERE a.quiz_id = q.id) AS total
    FROM quiz q JOIN person p ON p.id = q.owner_id
    WHERE ${asked.sql}
    ORDER BY q.state = 'filed', q.changed_at DESC, q.id LIMIT ? OFFSET ?`,
    [person.id, person.id, toSql(now), ...asked.values, mostListed + 1, query.after],
  )
  const rows = found.slice(0, mostListed)
  const [documents, names, roster] = await Promise.all([
    quizDocuments(db, rows),
    audienceNames(db, person.school, []),
    rosterOf(db, person.school),
  ])
  const known = rows.flatMap((row) => {
    const quiz = documents.get(row.id)
    return quiz ? [{ row, quiz }] : []
  })
  const ends = await endsNow(
    db,
    known.filter(({ row }) => row.state === 'published'),
    roster,
    now,
  )
  return {
    more: found.length > mostListed,
    quizzes: known.map(({ row, quiz }): QuizListRow => {
      const works = row.may === 'write'
      const closes = quiz.rules.windows.map((window) => takenUntil(window, quiz.rules))
      return {
        id: row.id,
        title: quiz.content.title,
        state: currentState({ stored: row.state, quiz }, ends.get(row.id) ?? nobody, now),
        ownerName: row.owner,
        mine: row.owner_id === person.id,
        may: row.may,
        ...readFiling(row),
        opens: !works ? null : (quiz.rules.windows.map((window) => window.opens).sort()[0] ?? null),
        closes: works && closes.length && !closes.includes(null) ? closes.sort().at(-1)! : null,
        meant: works ? meantWords(audienceOf(quiz.rules), names) : [],
        sitting: works ? Number(row.sitting) : 0,
        handedIn: works ? Number(row.total) - Number(row.sitting) : 0,
        changedAt: fromSql(row.changed_at),
      }
    }),
  }
}

/** Of a quiz that is not published the ends make no difference. */
const nobody = { everyone: beforeAll }

/** Terms and tags that are in use among the quizzes a teacher may look at. */
export async function quizWords(db: Db, person: Person): Promise<{ terms: string[]; tags: string[] }> {
  const asked = await where(db, person, quizQuery.parse({ whose: 'all' }))
  const rows = await db.rows<Pick<QuizRow, 'term' | 'tags'>>(
    `SELECT DISTINCT q.term, q.tags FROM quiz q WHERE ${asked.sql} LIMIT 5000`,
    asked.values,
  )
  const sorted = (words: string[]) => [...new Set(words)].filter(Boolean).sort()
  return {
    terms: sorted(rows.map(({ term }) => term)),
    tags: sorted(rows.flatMap(({ tags }) => fromJson<string[]>(tags))),
  }
}
