import { earlier, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import type { Limits } from './clock'

/**
 * The instant at which an attempt counts as handed in by its student. Where time up means handing in, nothing
 * written after the deadline is in it, so it is dated at the deadline at the latest.
 */
export function datedByStudent(atDeadline: Rules['atDeadline'], limits: Limits, now: Instant): Instant {
  return atDeadline === 'finish' ? now : earlier(now, limits.deadline)!
}

/**
 * The instant at which an attempt counts as handed in by the clock: the deadline (semantics §5). Where students may
 * finish and one has written on after it, the last answer kept, so that lateness says what happened.
 */
export function datedByClock(
  atDeadline: Rules['atDeadline'],
  limits: Limits,
  lastKept: Instant | null,
  now: Instant,
): Instant {
  const deadline = limits.deadline ?? limits.hardStop ?? now
  const wroteOn =
    atDeadline === 'finish' && lastKept !== null && limits.onTimeUntil !== null && lastKept > limits.onTimeUntil
  return wroteOn ? lastKept : deadline
}
