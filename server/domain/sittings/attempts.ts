import type { AnswerRow, AttemptRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { SectionScores } from '../../../core/marking'
import type { Paper } from '../../../core/paper'
import type { Limits } from '../../../core/schedule'
import { fromJson, fromSql, fromSqlOrNever } from '../../database/codec'
import type { Db, Value } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { readPaper, readResponse } from '../../documents/read'
import { notFound } from '../problem'

export interface Attempt {
  id: string
  quiz: string
  edition: string
  student: string
  number: number
  window: string
  state: 'open' | 'handed' | 'unsent'
  startedAt: Instant
  limits: Limits
  handedInAt: Instant | null
  endedBy: 'student' | 'clock' | 'teacher' | null
  lease: number
  device: string
  page: number
  /** When it was last heard of, where it is sat in one go; null lets its student in. */
  seenAt: Instant | null
  /** In which the student reads; null is as each question was written. */
  language: string | null
  score: string | null
  possible: string | null
  markedAt: Instant | null
  /** What each section earned; null before marking. */
  sections: SectionScores | null
  daysLate: number
  minutesOver: number
}

type Row = Pick<AttemptRow, (typeof attemptColumns)[number]>

/** The facts of an attempt: all but its paper. */
export const attemptColumns = [
  'id',
  'quiz_id',
  'edition_id',
  'student_id',
  'number',
  'window_id',
  'state',
  'started_at',
  'deadline',
  'on_time_until',
  'hard_stop',
  'handed_in_at',
  'ended_by',
  'lease',
  'device',
  'page',
  'seen_at',
  'language',
  'score',
  'possible',
  'section_scores',
  'marked_at',
  'days_late',
  'minutes_over',
] as const
const columns = attemptColumns.join(', ')

function read(row: Row): Attempt {
  return {
    id: row.id,
    quiz: row.quiz_id,
    edition: row.edition_id,
    student: row.student_id,
    number: row.number,
    window: row.window_id,
    state: row.state,
    startedAt: fromSql(row.started_at),
    limits: {
      deadline: fromSqlOrNever(row.deadline),
      onTimeUntil: fromSqlOrNever(row.on_time_until),
      hardStop: fromSqlOrNever(row.hard_stop),
    },
    handedInAt: row.handed_in_at && fromSql(row.handed_in_at),
    endedBy: row.ended_by,
    lease: row.lease,
    device: row.device,
    page: row.page,
    seenAt: row.seen_at && fromSql(row.seen_at),
    language: row.language,
    score: row.score,
    possible: row.possible,
    markedAt: row.marked_at && fromSql(row.marked_at),
    sections: row.section_scores === null ? null : fromJson<SectionScores>(row.section_scores),
    daysLate: row.days_late,
    minutesOver: row.minutes_over,
  }
}

/** Whose attempts: each that is named narrows it. */
export interface WhichAttempts {
  ids?: readonly string[]
  quizzes?: readonly string[]
  student?: string
  number?: number
  /** Whose students are in this class now. */
  classId?: string
}

/** Attempts by student and number. An empty list of ids or quizzes has none. */
export async function loadAttempts(db: Db, which: WhichAttempts): Promise<Attempt[]> {
  if (which.ids?.length === 0 || which.quizzes?.length === 0) return []
  const conditions: [sql: string, value: Value | undefined][] = [
    ['id IN (?)', which.ids],
    ['quiz_id IN (?)', which.quizzes],
    ['student_id = ?', which.student],
    ['number = ?', which.number],
    ['student_id IN (SELECT person_id FROM enrolment WHERE class_id = ?)', which.classId],
  ]
  const given = conditions.filter((each): each is [string, Value] => each[1] !== undefined)
  const rows = await db.rows<Row>(
    `SELECT ${columns} FROM attempt WHERE ${given.map(([sql]) => sql).join(' AND ')} ORDER BY student_id, number`,
    given.map(([, value]) => value),
  )
  return rows.map(read)
}

/** An attempt by its id. Refuses an unknown one; whose it is, is for the caller to ask. */
export async function loadAttempt(db: Db, id: string): Promise<Attempt> {
  const [attempt] = await loadAttempts(db, { ids: [id] })
  if (!attempt) throw notFound('This attempt')
  return attempt
}

/** Papers never change, so a process may remember some. */
const remembered = new Remembered<Paper>(2000)

/** The paper of an attempt. Refuses an unknown attempt; whose it is, is for the caller to ask. */
export async function loadPaper(db: Db, attempt: string): Promise<Paper> {
  const known = remembered.get(attempt)
  if (known) return known
  const row = await db.one<Pick<AttemptRow, 'paper'>>('SELECT paper FROM attempt WHERE id = ?', [attempt])
  if (!row) throw notFound('This attempt')
  const paper = readPaper(row.paper)
  remembered.set(attempt, paper)
  return paper
}

export interface KeptAnswer {
  item: string
  response: unknown
  flagged: boolean
  lease: number
  seq: number
  keptAt: Instant | null
}

/**
 * The answers kept for an attempt, one an item.
 * @param lock holds them against changes until the transaction ends
 */
export async function loadAnswers(db: Db, attempt: string, lock = false): Promise<KeptAnswer[]> {
  const rows = await db.rows<Pick<AnswerRow, 'item' | 'response' | 'flagged' | 'lease' | 'seq' | 'kept_at'>>(
    `SELECT item, response, flagged, lease, seq, kept_at FROM answer WHERE attempt_id = ?${lock ? ' FOR UPDATE' : ''}`,
    [attempt],
  )
  return rows.map((row) => ({
    item: row.item,
    response: readResponse(row.response),
    flagged: Boolean(row.flagged),
    lease: row.lease,
    seq: row.seq,
    keptAt: row.kept_at && fromSql(row.kept_at),
  }))
}
