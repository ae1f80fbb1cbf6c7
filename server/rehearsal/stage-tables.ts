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
}

const empty = (table: string): StageTable => ({ table, rows: [] })
const where = (table: string, condition: string, values: StageTable['rows'][number]['values']): StageTable => ({
  table,
  rows: [{ sql: `SELECT * FROM ${table} WHERE ${condition}`, values }],
})

/**
 * Every table that a rehearsal writes, with the rows of the real one that it begins with. Of other students there are
 * the facts of their attempts, for class figures, places and ends; their papers and answers only while those are under
 * way, since one that ends in the rehearsal is marked there. What the student has written for themself is left out.
 */
export function stageTables({ school, quiz, student, fresh, nameless }: StageScope): StageTable[] {
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
          sql: "SELECT * FROM attempt WHERE quiz_id = ? AND (student_id = ? OR (state = 'open' AND student_id <> ?))",
          values: [sat, own, student ?? ''],
        },
        {
          into: `${facts}, paper`,
          sql: `SELECT ${facts}, '' FROM attempt WHERE quiz_id = ? AND state <> 'open' AND student_id <> ?`,
          values: [sat, student ?? ''],
        },
      ],
    },
    ...tablesOfAttempts.map((table) => ({
      table,
      rows: [
        {
          sql: `SELECT w.* FROM ${table} w JOIN stage_attempt a ON a.id = w.attempt_id WHERE a.student_id = ? OR a.state = 'open'`,
          values: [own],
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
