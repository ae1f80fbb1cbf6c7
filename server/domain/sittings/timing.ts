import type { AttemptRow, QuizRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Rules } from '../../../core/quiz'
import { limitsClosed, limitsFor, neverShorter, scheduleFor, type Limits } from '../../../core/schedule'
import { inBatches, mapInOrder } from '../../database/batches'
import { byKey } from '../../database/by-key'
import { fromSql, fromSqlOrNever, toSql, toSqlOrNever } from '../../database/codec'
import { readQuiz } from '../../documents/read'
import type { Db } from '../../database/database'
import { studentsByIds } from '../classes/students'
import { breaksOf, rewriteBreak } from './break-facts'
import { rewriteSections } from './section-clocks'

type OpenRow = Pick<
  AttemptRow,
  'id' | 'quiz_id' | 'student_id' | 'window_id' | 'started_at' | 'deadline' | 'on_time_until' | 'hard_stop'
>

export type Scope = { quiz: string; rules: Rules } | { students: readonly string[] }

/** Sittings that are written at once: each statement compares every row with every key. */
const atOnce = 200

/** All new limits, in a few statements whatever their number. */
async function write(db: Db, limits: readonly [string, Limits][]): Promise<void> {
  await inBatches(limits, atOnce, async (part) => {
    const column = (pick: (each: Limits) => Instant | null) =>
      byKey(
        'id',
        part.map(([id, each]) => [id, toSqlOrNever(pick(each))] as const),
      )
    const deadline = column((each) => each.deadline)
    const onTime = column((each) => each.onTimeUntil)
    const hardStop = column((each) => each.hardStop)
    await db.run(
      `UPDATE attempt SET deadline = ${deadline.sql}, on_time_until = ${onTime.sql}, hard_stop = ${hardStop.sql}, touched = touched + 1 WHERE id IN (?) AND state = 'open'`,
      [...deadline.values, ...onTime.values, ...hardStop.values, part.map(([id]) => id)],
    )
  })
}

/** Rules as they are by now: a change of them and a change of what students need come one after the other. */
async function rulesOfQuizzes(db: Db, ids: readonly string[]): Promise<Map<string, Rules>> {
  const rows = await db.rows<Pick<QuizRow, 'id' | 'body'>>(
    'SELECT id, body FROM quiz WHERE id IN (?) LOCK IN SHARE MODE',
    [[...ids]],
  )
  return new Map(rows.map(({ id, body }) => [id, readQuiz(body).rules]))
}

/**
 * Gives open sittings the hard stop that the rules mean now (semantics §3): of a quiz whose rules changed, or of
 * students whose accommodation did. Nothing is shortened, and what has ended is not revived.
 */
export async function rewriteOpenSittings(db: Db, scope: Scope, now: Instant): Promise<void> {
  const rows = await db.rows<OpenRow>(
    `SELECT a.id, a.quiz_id, a.student_id, a.window_id, a.started_at, a.deadline, a.on_time_until, a.hard_stop
    FROM attempt a WHERE ${'quiz' in scope ? 'a.quiz_id = ?' : 'a.student_id IN (?)'} AND a.state = 'open' AND a.ended_by IS NULL AND a.hard_stop >= ? FOR UPDATE`,
    ['quiz' in scope ? scope.quiz : [...scope.students], toSql(now)],
  )
  if (!rows.length) return
  const students = await studentsByIds(db, [...new Set(rows.map((row) => row.student_id))])
  const rulesOf =
    'quiz' in scope
      ? new Map([[scope.quiz, scope.rules]])
      : await rulesOfQuizzes(db, [...new Set(rows.map((row) => row.quiz_id))])
  const schedules = new Map(
    rows.map((row) => [row.id, scheduleFor(rulesOf.get(row.quiz_id)!, students.get(row.student_id)!)]),
  )
  const breaks = await breaksOf(
    db,
    rows.map((row) => row.id),
    true,
  )
  const limits = await mapInOrder(rows, async (row): Promise<[string, Limits]> => {
    const schedule = schedules.get(row.id)!
    const before = limitsOf(row)
    const attempt = { id: row.id, startedAt: fromSql(row.started_at), window: row.window_id }
    const taken = await rewriteBreak(db, attempt, breaks.get(row.id) ?? [], schedule, now)
    // A window that was taken out of the rules leaves the sittings that began in it as they were.
    const kept = schedule.windows.some((window) => window.id === row.window_id)
    return [row.id, neverShorter(before, kept ? limitsFor(schedule, { ...attempt, breaks: taken }) : before)]
  })
  await write(db, limits)
  await rewriteSections(db, schedules, breaks, now)
}

/**
 * Closes open sittings of a quiz at an instant, every one or those of some students: what is there is handed in whatever the rule at the deadline, and
 * marked when it is settled. @returns how many there were
 */
export async function closeOpenSittings(
  db: Db,
  quiz: string,
  now: Instant,
  students: readonly string[] | null = null,
): Promise<number> {
  if (students?.length === 0) return 0
  const rows = await db.rows<Pick<AttemptRow, 'id' | 'deadline' | 'on_time_until' | 'hard_stop'>>(
    `SELECT id, deadline, on_time_until, hard_stop FROM attempt WHERE quiz_id = ? AND state = 'open' AND ended_by IS NULL AND hard_stop >= ?${students ? ' AND student_id IN (?)' : ''} FOR UPDATE`,
    [quiz, toSql(now), ...(students ? [students] : [])],
  )
  await write(
    db,
    rows.map((row) => [row.id, limitsClosed(limitsOf(row), now)]),
  )
  // Who ends it is known before it has ended: the sweep finds it there.
  if (rows.length)
    await db.run("UPDATE attempt SET ended_by = 'teacher' WHERE id IN (?) AND state = 'open'", [
      rows.map((row) => row.id),
    ])
  return rows.length
}

const limitsOf = (row: Pick<AttemptRow, 'deadline' | 'on_time_until' | 'hard_stop'>): Limits => ({
  deadline: fromSqlOrNever(row.deadline),
  onTimeUntil: fromSqlOrNever(row.on_time_until),
  hardStop: fromSqlOrNever(row.hard_stop),
})
