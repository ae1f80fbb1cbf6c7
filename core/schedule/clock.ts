import { earlier, later, minute, ms, plus, type Instant } from '../kit/time'
import type { Window } from '../quiz/schema'
import { isClosed, lateUntil, windowEnd, type Schedule } from './schedule'

/** An attempt as its clock needs it. Breaks are milliseconds. */
export interface Started {
  startedAt: Instant
  window: string | null
  breaks?: number
}

export interface Limits {
  /** When time is up; null for never. */
  deadline: Instant | null
  /** Until when handing in is on time: the deadline and grace. */
  onTimeUntil: Instant | null
  /** The last instant at which anything is taken. */
  hardStop: Instant | null
}

export interface Clock extends Limits {
  phase: 'running' | 'grace' | 'overrun' | 'ended'
  /** Milliseconds to the deadline, 0 after it; null when there is none. */
  remaining: number | null
}

const after = (at: Instant | null, minutes: number): Instant | null => (at === null ? null : plus(at, minutes * minute))

/** Until when the due time and the late rule let anything in; null for no bound by them. */
const lastTaken = ({ lateAccepted, lateDays }: Schedule, window: Window | undefined): Instant | null =>
  lateUntil(window?.due ?? null, lateAccepted, lateDays)

/** The deadline of a start, by semantics §5. */
function deadlineOf(schedule: Schedule, started: Started, window: Window | undefined): Instant | null {
  const end = window ? windowEnd(schedule, window) : null
  // Breaks stop the clock, whoever wins; past the end of a window that wins nothing goes.
  const run = schedule.limit === null ? null : plus(started.startedAt, schedule.limit * minute + (started.breaks ?? 0))
  const own = run === null ? end : schedule.atClosing === 'window' ? earlier(run, end) : run
  return earlier(own, lastTaken(schedule, window))
}

function hardStopOf(schedule: Schedule, window: Window | undefined, deadline: Instant | null): Instant | null {
  const withGrace = after(deadline, schedule.grace)
  if (schedule.atDeadline !== 'finish' || deadline === null) return withGrace
  const last =
    schedule.overrun !== null ? after(deadline, schedule.overrun) : window ? windowEnd(schedule, window) : null
  // Where nothing is taken late, finishing ends at the due time as well.
  const latest = after(lastTaken(schedule, window), schedule.grace)
  return earlier(later(withGrace, last), latest)
}

/** The limits of a sitting that is closed at an instant: nothing goes beyond it, and it is late by as much as it is then. */
export function limitsClosed(limits: Limits, now: Instant): Limits {
  return {
    deadline: earlier(limits.deadline, now),
    onTimeUntil: earlier(limits.onTimeUntil, now),
    hardStop: earlier(limits.hardStop, now),
  }
}

/** Deadline, on-time limit and hard stop of an attempt (semantics §5). */
export function limitsFor(schedule: Schedule, started: Started): Limits {
  const window = schedule.windows.find((each) => each.id === started.window)
  const deadline = deadlineOf(schedule, started, window)
  const limits = {
    deadline,
    onTimeUntil: after(deadline, schedule.grace),
    hardStop: hardStopOf(schedule, window, deadline),
  }
  return window && isClosed(window) ? limitsClosed(limits, window.closes) : limits
}

/** The furthest that an attempt begun at an instant can reach: with all the breaks that there are. */
export const furthest = (schedule: Schedule, startedAt: Instant, window: Window): Limits =>
  limitsFor(schedule, { startedAt, window: window.id, breaks: schedule.breaks * minute })

/** Where an attempt's clock stands. */
export function clockFor(schedule: Schedule, started: Started, now: Instant): Clock {
  return clockAt(limitsFor(schedule, started), now)
}

/** The same for limits that are stored with an open sitting. */
export function clockAt(limits: Limits, now: Instant): Clock {
  const { deadline, onTimeUntil, hardStop } = limits
  const past = (at: Instant | null) => at !== null && now > at
  const phase = past(hardStop) ? 'ended' : past(onTimeUntil) ? 'overrun' : past(deadline) ? 'grace' : 'running'
  return { ...limits, phase, remaining: deadline === null ? null : Math.max(0, ms(deadline) - ms(now)) }
}

/** Nothing but an explicit "close now" shortens a sitting under way (semantics §3). */
export function neverShorter(before: Limits, next: Limits): Limits {
  return {
    deadline: later(before.deadline, next.deadline),
    onTimeUntil: later(before.onTimeUntil, next.onTimeUntil),
    hardStop: later(before.hardStop, next.hardStop),
  }
}

/** The last instant at which somebody may start in a window, or null for no end. */
export function lastStartOf(schedule: Schedule, window: Window): Instant | null {
  return earlier(earlier(window.latestStart, windowEnd(schedule, window)), lastTaken(schedule, window))
}
