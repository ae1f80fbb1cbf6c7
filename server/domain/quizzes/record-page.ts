import { z } from 'zod'
import type { PersonRow, RecordRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { fromSql } from '../../database/codec'
import type { Db, Value } from '../../database/database'
import { readOwn } from '../../documents/read'
import type { Person } from '../../people/people'
import { audienceNames } from '../classes/classes'
import { loadQuiz } from './quizzes'
import { recordWords } from './record-words'

/** A line of the record, as it is read. */
export interface RecordLine {
  id: string
  at: Instant
  /** Null for the clock. */
  who: string | null
  what: string
  /** Why, where somebody said so; and what else belongs to it. */
  more: string[]
  /** Whose paper it is about. */
  student: string | null
}

export const recordQuery = z.object({
  after: z.coerce.number().int().min(0).max(1_000_000).default(0),
  /** What teachers did with the quiz; or all that happened with its papers as well. */
  about: z.enum(['quiz', 'papers']).default('quiz'),
})

const atOnce = 100

/** Acts of teachers on a single paper: they belong to the record of the quiz itself. */
const teachersActs = ['marked by hand', 'hand mark taken back', 'let back in']

/** Everything that was written down of a quiz, the newest first: who, when, what, why. Of an anonymous one nothing of its papers. */
export async function quizRecord(
  db: Db,
  person: Person,
  quizId: string,
  { after, about }: z.infer<typeof recordQuery>,
): Promise<{ lines: RecordLine[]; more: boolean; anonymous: boolean }> {
  const { quiz } = await loadQuiz(db, quizId)
  const { anonymous } = quiz.rules
  const ofPapers: { sql: string; values: Value[] } = anonymous
    ? { sql: '', values: [] }
    : {
        sql: ` UNION ALL SELECT r.id, r.at, r.who, r.what, r.detail, a.student_id AS student FROM attempt a JOIN record r ON r.subject = a.id
          WHERE a.quiz_id = ?${about === 'papers' ? '' : ' AND r.what IN (?)'}`,
        values: about === 'papers' ? [quizId] : [quizId, teachersActs],
      }
  const rows = await db.rows<
    Pick<RecordRow, 'id' | 'at' | 'who' | 'what' | 'detail'> & {
      name: PersonRow['name'] | null
      of_name: PersonRow['name'] | null
    }
  >(
    `SELECT l.id, l.at, l.who, l.what, l.detail, p.name, s.name AS of_name FROM (
      SELECT r.id, r.at, r.who, r.what, r.detail, NULL AS student FROM record r WHERE r.subject = ?${ofPapers.sql}
    ) l LEFT JOIN person p ON p.id = l.who LEFT JOIN person s ON s.id = l.student
    ORDER BY l.at DESC, l.id LIMIT ? OFFSET ?`,
    [quizId, ...ofPapers.values, atOnce + 1, after],
  )
  const details = rows.map((row) => readOwn<Record<string, unknown>>(row.detail))
  const people = details.flatMap(({ with: other, student, students }) =>
    [other, student, ...(Array.isArray(students) ? (students as unknown[]) : [])].filter(
      (id) => typeof id === 'string',
    ),
  )
  const names = await audienceNames(db, person.school, people as string[])
  return {
    anonymous,
    more: rows.length > atOnce,
    lines: rows.slice(0, atOnce).map((row, i) => ({
      id: row.id,
      at: fromSql(row.at),
      who: row.name,
      student: row.of_name,
      ...recordWords(row.what, details[i]!, names),
    })),
  }
}
