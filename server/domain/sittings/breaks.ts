import { minute, plus, type Instant } from '../../../core/kit/time'
import { limitsFor, neverShorter, type Limits, type Schedule } from '../../../core/schedule'
import { toSql, toSqlOrNever } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { Problem } from '../problem'
import { recordLine } from '../record'
import { loadAttempt, type Attempt } from './attempts'
import { breakAt, breakLeft, breaksOf, lengthOf, taken } from './break-facts'
import { scheduleOf, shiftSections } from './section-clocks'
import { ownAttempt, underWay } from './own-attempt'

const ended = (attempt: string) => new Problem(409, 'ended', 'This paper has been handed in.', { attempt })

async function setLimits(db: Db, attempt: string, { deadline, onTimeUntil, hardStop }: Limits): Promise<void> {
  await db.run(
    "UPDATE attempt SET deadline = ?, on_time_until = ?, hard_stop = ?, touched = touched + 1 WHERE id = ? AND state = 'open'",
    [toSqlOrNever(deadline), toSqlOrNever(onTimeUntil), toSqlOrNever(hardStop), attempt],
  )
}

/** Limits with breaks of a length. A window that is the student's no more leaves what the sitting had, longer by so much. */
function limitsWith(schedule: Schedule, attempt: Attempt, before: Limits, breaks: number, last: number): Limits {
  if (schedule.windows.some(({ id }) => id === attempt.window))
    return neverShorter(before, limitsFor(schedule, { startedAt: attempt.startedAt, window: attempt.window, breaks }))
  const move = (at: Instant | null) => (at === null ? null : plus(at, last))
  return { deadline: move(before.deadline), onTimeUntil: move(before.onTimeUntil), hardStop: move(before.hardStop) }
}

export interface Rest {
  /** When there is no break left, and the clock runs on by itself. */
  until: Instant
  now: Instant
  /** Of the quiz, for a page that has no paper. */
  title?: string
}

/**
 * A break begins: the clock stops, at most until there is no break left, and the device gives its lease back, so that
 * nothing is written meanwhile. What was written has to be kept before. Asked again, it says the same.
 * @throws Problem 422 where there is none to take; 409 where another device writes, or the paper is handed in
 */
export async function beginBreak(
  database: Database,
  student: string,
  id: string,
  lease: number,
  now: Instant,
): Promise<Rest> {
  await ownAttempt(database, student, id, now)
  return database.transaction(async (db) => {
    // The first statement writes: a change of rules or of what the student needs comes before and is read, or after.
    const held = await db.run(
      `UPDATE attempt SET lease = lease + 1, device = '', touched = touched + 1 WHERE ${underWay} AND lease = ?`,
      [id, toSql(now), lease],
    )
    const attempt = await loadAttempt(db, id)
    const breaks = (await breaksOf(db, [id])).get(id) ?? []
    const under = breakAt(breaks, now)
    if (under) return { until: under.until, now }
    if (!held) {
      throw attempt.state === 'open' && attempt.endedBy === null
        ? new Problem(409, 'lease', 'This paper is being written on another device. Take it back here first.')
        : ended(id)
    }
    const schedule = await scheduleOf(db, attempt)
    const left = breakLeft(schedule, breaks)
    if (left <= 0)
      throw new Problem(
        422,
        'break',
        schedule.breaks ? 'There is no break left to take.' : 'There are no breaks on this paper.',
      )
    const { limits } = attempt
    const until = plus(now, left)
    await db.run(
      'INSERT INTO attempt_break (attempt_id, number, began_at, until, deadline, on_time_until, hard_stop) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [
        id,
        breaks.length + 1,
        toSql(now),
        toSql(until),
        toSqlOrNever(limits.deadline),
        toSqlOrNever(limits.onTimeUntil),
        toSqlOrNever(limits.hardStop),
      ],
    )
    await setLimits(db, id, limitsWith(schedule, attempt, limits, taken(breaks) + left, left))
    await shiftSections(db, id, left, now)
    await recordLine(db, now, student, 'break begun', id, { until })
    return { until, now }
  })
}

/** Ends the break that is under way, once: the sitting has the limits that the breaks taken by now give it. None under way is no fault. */
export async function endBreak(database: Database, student: string, id: string, now: Instant): Promise<void> {
  if ((await ownAttempt(database, student, id, now)).state !== 'open') throw ended(id)
  await database.transaction(async (db) => {
    // The first statement writes: whoever closes the sitting or changes its rules meanwhile comes before or after.
    const open = await db.run(`UPDATE attempt SET touched = touched + 1 WHERE ${underWay}`, [id, toSql(now)])
    if (!open) throw ended(id)
    const attempt = await loadAttempt(db, id)
    const breaks = (await breaksOf(db, [id])).get(id) ?? []
    const under = breakAt(breaks, now)
    if (!under) return
    const won = await db.run(
      'UPDATE attempt_break SET ended_at = ? WHERE attempt_id = ? AND number = ? AND ended_at IS NULL',
      [toSql(now), id, under.number],
    )
    if (!won) return
    const schedule = await scheduleOf(db, attempt)
    const done = { ...under, endedAt: now }
    const all = [...breaks.filter((each) => each !== under), done]
    await setLimits(db, id, limitsWith(schedule, attempt, under.limits, taken(all), lengthOf(done)))
    await shiftSections(db, id, lengthOf(done) - lengthOf(under), under.beganAt)
    await recordLine(db, now, student, 'break ended', id, { minutes: Math.round(lengthOf(done) / minute) })
  })
}
