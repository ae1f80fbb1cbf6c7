import type { AttemptRow } from '../../database/tables'
import { minute, plus, type Instant } from '../../../core/kit/time'
import { lateness } from '../../../core/marking'
import type { Rules } from '../../../core/quiz'
import { datedByClock, datedByStudent, dueFor } from '../../../core/schedule'
import { DatabaseAway } from '../../database/away'
import { mapInOrder } from '../../database/batches'
import { studentsByIds } from '../classes/students'
import { toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { keepMarks } from '../marks/keep'
import { loadQuiz } from '../quizzes/quizzes'
import { recordLine } from '../record'
import { loadAnswers, loadAttempt, type Attempt } from './attempts'

export type Ending =
  /** The student hands in from the device that has the lease. */
  | { by: 'student'; lease: number }
  /** The hard stop has passed. */
  | { by: 'clock' }

interface Dated {
  state: 'handed' | 'unsent'
  by: 'student' | 'clock' | 'teacher'
  at: Instant
  daysLate: number
  minutesOver: number
}

function dated(
  attempt: Attempt,
  rules: Rules,
  due: Instant | null,
  ending: Ending,
  lastKept: Instant | null,
  now: Instant,
): Dated {
  // A teacher has closed it: it ends at that instant, whatever the rule at the deadline.
  const closed = ending.by === 'clock' && attempt.endedBy === 'teacher' ? attempt.limits.hardStop : null
  const at =
    closed ??
    (ending.by === 'student'
      ? datedByStudent(rules.atDeadline, attempt.limits, now)
      : datedByClock(rules.atDeadline, attempt.limits, lastKept, now))
  return {
    state: ending.by === 'clock' && rules.atDeadline === 'unsent' && closed === null ? 'unsent' : 'handed',
    by: closed === null ? ending.by : 'teacher',
    at,
    ...lateness(at, due, attempt.limits.onTimeUntil),
  }
}

/** When an attempt is due for its student; most windows have no due time, and then nobody is asked for. */
async function dueOf(db: Db, { student, window }: Attempt, rules: Rules): Promise<Instant | null> {
  if (!rules.windows.find((each) => each.id === window)?.due) return null
  const known = (await studentsByIds(db, [student])).get(student)!
  return dueFor(rules, known, window)
}

/**
 * Ends a sitting once: a compare-and-set on its state, so that no two of student, other devices and sweeps in any
 * number of processes can both do it; then marks exactly the answers that were kept, in the same transaction.
 * @returns false when it had ended before, or the ending does not apply (the lease is gone, time is not up)
 */
export async function endSitting(
  database: Database,
  attemptId: string,
  ending: Ending,
  now: Instant,
): Promise<boolean> {
  return database.transaction((db) => endIn(db, attemptId, ending, now))
}

/** The same in a transaction that has begun: with answers that come with it. */
export async function endIn(db: Db, attemptId: string, ending: Ending, now: Instant): Promise<boolean> {
  // The first statement writes: what is read after it sees every answer that was acknowledged.
  const guard = ending.by === 'student' ? 'hard_stop >= ? AND lease = ?' : 'hard_stop < ?'
  const won = await db.run(
    `UPDATE attempt SET state = 'handed', touched = touched + 1 WHERE id = ? AND state = 'open' AND ${guard}`,
    [attemptId, toSql(now), ...(ending.by === 'student' ? [ending.lease] : [])],
  )
  if (won === 0) return false
  const attempt = await loadAttempt(db, attemptId)
  const [{ quiz }, answers] = [await loadQuiz(db, attempt.quiz), await loadAnswers(db, attemptId, true)]
  const lastKept =
    answers
      .map((answer) => answer.keptAt)
      .filter((at): at is Instant => at !== null)
      .sort()
      .at(-1) ?? null
  const end = dated(attempt, quiz.rules, await dueOf(db, attempt, quiz.rules), ending, lastKept, now)
  await db.run(
    'UPDATE attempt SET state = ?, handed_in_at = ?, ended_by = ?, days_late = ?, minutes_over = ? WHERE id = ?',
    [end.state, toSql(end.at), end.by, end.daysLate, end.minutesOver, attemptId],
  )
  await keepMarks(db, attempt, quiz.rules, end.at)
  await recordLine(
    db,
    now,
    ending.by === 'student' ? attempt.student : null,
    end.state === 'handed' ? 'handed in' : 'left unsent',
    attemptId,
    { at: end.at },
  )
  return true
}

/** What to look at when settling: everything, or one quiz, student or attempt. */
export type Settled = { quiz: string } | { student: string } | { attempt: string } | Record<string, never>

/**
 * Ends sittings whose hard stop has passed, in a small batch. Every read calls it for what it reads, so nothing
 * depends on when the sweep runs.
 * @returns how many it ended
 */
export async function settle(database: Database, what: Settled, now: Instant, batch = 50): Promise<number> {
  const [column, value] =
    'quiz' in what
      ? ['quiz_id', what.quiz]
      : 'student' in what
        ? ['student_id', what.student]
        : 'attempt' in what
          ? ['id', what.attempt]
          : [null, null]
  const waiting = [...stuck].filter(([, from]) => from > now).map(([id]) => id)
  const rows = await database.rows<Pick<AttemptRow, 'id'>>(
    `SELECT id FROM attempt WHERE state = 'open' AND hard_stop < ?${column ? ` AND ${column} = ?` : ''}${waiting.length ? ' AND id NOT IN (?)' : ''} ORDER BY hard_stop LIMIT ?`,
    [toSql(now), ...(value ? [value] : []), ...(waiting.length ? [waiting] : []), batch],
  )
  // One transaction a sitting: one that cannot be ended holds up neither the others nor who reads its quiz.
  const done = await mapInOrder(rows, ({ id }) => endOrNote(database, id, now))
  return done.filter(Boolean).length
}

/** Sittings that this process could not end, with the instant from which they are tried again. */
const stuck = new Map<string, Instant>()
const tryAgainAfter = 5 * minute

async function endOrNote(database: Database, id: string, now: Instant): Promise<boolean> {
  if ((stuck.get(id) ?? '') > now) return false
  try {
    const ended = await endSitting(database, id, { by: 'clock' }, now)
    stuck.delete(id)
    return ended
  } catch (error) {
    if (error instanceof DatabaseAway) throw error
    console.error(`The sitting ${id} could not be ended.`, error)
    stuck.set(id, plus(now, tryAgainAfter))
    return false
  }
}
