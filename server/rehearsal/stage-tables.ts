import type { Instant } from '../../core/kit/time'
import { toSql } from '../database/codec'
import type { StageTable } from '../database/database'
import { attemptColumns } from '../domain/sittings/attempts'

/** Tables that hold something of an attempt, by attempt_id. */
export const tablesOfAttempts = [
  'answer',
  'answer_aside',
  'answer_check',
  'attempt_away',
  'attempt_break',
  'attempt_section',
  'hand_mark',
  'mark',
  'viewed',
] as const

/** What a rehearsal is about, as far as tables are concerned. */
export interface StageScope {
  school: string
  quiz: string
  /** Null for somebody made up. */
  student: string | null
  /** The student has sat nothing of the quiz yet, and has seen and said nothing of it. */
  fresh: boolean
  /** Papers have no names: then nobody has sat it, so that nothing tells who did. */
  nameless: boolean
  /** The instant that is rehearsed. */
  at: Instant
}

/** Of an attempt: it is under way, and is ended in the rehearsal. */
const endsThere = "a.state = 'open' AND a.hard_stop < ?"

const empty = (table: string): StageTable => ({ table, rows: [] })
const where = (table: string, condition: string, values: StageTable['rows'][number]['values']): StageTable => ({
  table,
  rows: [{ sql: `SELECT * FROM ${table} WHERE ${condition}`, values }],
})

/**
 * Every table that a rehearsal writes, with the rows of the real one that it begins with. Of other students there are
 * the facts of their attempts, for class figures, places and ends; of those that are under way and end before the instant
 * that is rehearsed also papers and answers, since they are marked there. What the student has written for themself is
 * left out.
 */
export function stageTables({ school, quiz, student, fresh, nameless, at }: StageScope): StageTable[] {
  const own = student !== null && !fresh && !nameless ? student : ''
  const sat = nameless ? '' : quiz
  const facts = attemptColumns.join(', ')
  return [
    where('school', 'id = ?', [school]),
    where('quiz', 'id = ?', [quiz]),
    {
      table: 'attempt',
      rows: [
        {
          sql: `SELECT a.* FROM attempt a WHERE quiz_id = ? AND (student_id = ? OR (${endsThere} AND student_id <> ?))`,
          values: [sat, own, toSql(at), student ?? ''],
        },
        {
          into: `${facts}, paper`,
          sql: `SELECT ${facts}, '' FROM attempt a WHERE quiz_id = ? AND NOT (${endsThere}) AND student_id <> ?`,
          values: [sat, toSql(at), student ?? ''],
        },
      ],
    },
    ...tablesOfAttempts.map((table) => ({
      table,
      rows: [
        {
          sql: `SELECT w.* FROM ${table} w JOIN stage_attempt a ON a.id = w.attempt_id WHERE a.student_id = ? OR (${endsThere})`,
          values: [own, toSql(at)],
        },
      ],
    })),
    where('quiz_notice', 'quiz_id = ? AND person_id = ?', [quiz, own]),
    ...['attempt_note', 'password_try', 'quiz_turn', 'record', 'start_guard'].map(empty),
    // Somebody made up comes into a class: then who is there is of the stage too.
    ...(student === null
      ? [
          where('person', 'school_id = ?', [school]),
          where('enrolment', 'class_id IN (SELECT id FROM class WHERE school_id = ?)', [school]),
        ]
      : []),
  ]
}
