import { exact } from '../kit/exact'
import { earlier, minute, ms, plus, type Instant } from '../kit/time'
import type { Accommodation, Rules, Student, Window } from '../quiz/schema'

/** What the rules mean for one student: whole minutes and instants, accommodations applied. */
export interface Schedule {
  student: string
  windows: Window[]
  /** Minutes, with extra time; null for none. */
  limit: number | null
  /** The extra minutes in it, beside what everybody has. */
  extra: number
  stretchWindow: boolean
  /** The accommodation behind the extra time: for windows without a limit, whose own length is the time given. */
  factor: number
  extraMinutes: number
  grace: number
  atDeadline: Rules['atDeadline']
  overrun: number | null
  atClosing: Rules['atClosing']
  lateAccepted: boolean
  attempts: Rules['attempts']
  /** In which papers begin where they are offered in it; null for as each is set. */
  language: string | null
  largerType: boolean
}

/** For each quantity the most generous wins (semantics §5). */
export function mostGenerous(accommodations: readonly Accommodation[]): Accommodation {
  return {
    factor: Math.max(1, ...accommodations.map((each) => each.factor)),
    extraMinutes: Math.max(0, ...accommodations.map((each) => each.extraMinutes)),
    stretchWindow: accommodations.some((each) => each.stretchWindow),
    language: accommodations.find((each) => each.language !== null)?.language ?? null,
    largerType: accommodations.some((each) => each.largerType),
  }
}

/** The rules as they are for one student. Windows are in the order in which they open. */
export function scheduleFor(rules: Rules, student: Student): Schedule {
  const own = mostGenerous(student.accommodations)
  const limit =
    rules.limit === null ? null : exact(rules.limit).mul(exact(own.factor)).add(exact(own.extraMinutes)).valueOf()
  return {
    student: student.id,
    windows: rules.windows
      .filter((window) => window.classes.some((each) => student.classes.includes(each)))
      .sort((a, b) => (a.opens < b.opens ? -1 : a.opens > b.opens ? 1 : 0)),
    limit,
    extra: limit === null ? 0 : limit - rules.limit!,
    stretchWindow: own.stretchWindow,
    factor: own.factor,
    extraMinutes: own.extraMinutes,
    grace: rules.grace,
    atDeadline: rules.atDeadline,
    overrun: rules.overrun,
    atClosing: rules.atClosing,
    lateAccepted: rules.late.accepted,
    attempts: rules.attempts,
    language: own.language,
    largerType: own.largerType,
  }
}

/** Whether a teacher has closed a window at once: it ends for everybody, and with it what was begun in it. */
export function isClosed(window: Window): window is Window & { closes: Instant } {
  return window.closes !== null && window.closedAt === window.closes
}

/**
 * The end of a window for this student: stretched by their extra time only when the accommodation says so. Where there is
 * no limit the window itself is the time given, and its length grows by the same measure. One that a teacher has closed
 * at once is closed for everybody.
 */
export function windowEnd(schedule: Schedule, window: Window): Instant | null {
  if (window.closes === null || !schedule.stretchWindow || isClosed(window)) return window.closes
  if (schedule.limit !== null) return plus(window.closes, schedule.extra * minute)
  const length = Math.max(0, ms(window.closes) - ms(window.opens))
  return plus(window.closes, Math.round(length * (schedule.factor - 1)) + schedule.extraMinutes * minute)
}

/** Until when a window takes anything by the rules for everybody: its close, or its due time where nothing is taken late. */
export function takenUntil(window: Window, { late }: Pick<Rules, 'late'>): Instant | null {
  return earlier(window.closes, late.accepted ? null : window.due)
}
