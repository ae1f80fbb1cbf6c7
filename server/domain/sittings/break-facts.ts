import type { AttemptBreakRow } from '../../database/tables'
import { minute, ms, type Instant } from '../../../core/kit/time'
import { limitsFor, neverShorter, type Limits, type Schedule } from '../../../core/schedule'
import { fromSql, fromSqlOrNever, toSqlOrNever } from '../../database/codec'
import type { Db } from '../../database/database'

/** A break of a sitting: over when it was ended, or at `until`, when there was none left. */
export interface Break {
  number: number
  beganAt: Instant
  until: Instant
  endedAt: Instant | null
  /** What the sitting had when it began. */
  limits: Limits
}

/**
 * Breaks of sittings, by attempt, in order.
 * @param lock reads what there is by now, in a transaction that has looked at something before
 */
export async function breaksOf(db: Db, attempts: readonly string[], lock = false): Promise<Map<string, Break[]>> {
  if (!attempts.length) return new Map()
  const rows = await db.rows<AttemptBreakRow>(
    `SELECT * FROM attempt_break WHERE attempt_id IN (?) ORDER BY attempt_id, number${lock ? ' FOR UPDATE' : ''}`,
    [[...attempts]],
  )
  const byAttempt = new Map<string, Break[]>()
  for (const row of rows) {
    const each: Break = {
      number: row.number,
      beganAt: fromSql(row.began_at),
      until: fromSql(row.until),
      endedAt: row.ended_at && fromSql(row.ended_at),
      limits: {
        deadline: fromSqlOrNever(row.deadline),
        onTimeUntil: fromSqlOrNever(row.on_time_until),
        hardStop: fromSqlOrNever(row.hard_stop),
      },
    }
    byAttempt.set(row.attempt_id, [...(byAttempt.get(row.attempt_id) ?? []), each])
  }
  return byAttempt
}

/** The break that is under way at an instant. */
export const breakAt = (breaks: readonly Break[], now: Instant): Break | undefined =>
  breaks.find(({ endedAt, until }) => endedAt === null && until > now)

/** When a break is over; of one under way, when it will be at the latest. */
export const endOf = ({ endedAt, until }: Break): Instant => endedAt ?? until

/** Milliseconds of a break; one under way counts whole, as the sitting's limits do until it is ended. */
export const lengthOf = ({ beganAt, until, endedAt }: Break): number =>
  Math.max(0, ms(endedAt !== null && endedAt < until ? endedAt : until) - ms(beganAt))

/** Milliseconds of breaks in all. */
export const taken = (breaks: readonly Break[]): number => breaks.reduce((sum, each) => sum + lengthOf(each), 0)

/** Milliseconds of breaks that a student still has. */
export const breakLeft = (schedule: Pick<Schedule, 'breaks' | 'limit'>, breaks: readonly Break[]): number =>
  schedule.limit === null ? 0 : Math.max(0, schedule.breaks * minute - taken(breaks))

/**
 * New rules, or another accommodation, reach the limits that a sitting goes back to when its break ends; nothing is shortened.
 * @returns milliseconds of breaks that count for the limits now
 */
export async function rewriteBreak(
  db: Db,
  attempt: { id: string; startedAt: Instant; window: string | null },
  breaks: readonly Break[],
  schedule: Schedule,
  now: Instant,
): Promise<number> {
  const under = breakAt(breaks, now)
  if (under && schedule.windows.some(({ id }) => id === attempt.window)) {
    const before = taken(breaks.filter((each) => each !== under))
    const next = neverShorter(under.limits, limitsFor(schedule, { ...attempt, breaks: before }))
    await db.run(
      'UPDATE attempt_break SET deadline = ?, on_time_until = ?, hard_stop = ? WHERE attempt_id = ? AND number = ?',
      [
        toSqlOrNever(next.deadline),
        toSqlOrNever(next.onTimeUntil),
        toSqlOrNever(next.hardStop),
        attempt.id,
        under.number,
      ],
    )
  }
  return taken(breaks)
}
