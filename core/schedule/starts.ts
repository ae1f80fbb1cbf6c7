import { latest, never, endAt, plus, minute, type End, type Instant } from '../kit/time'
import type { Window } from '../quiz/schema'
import { furthest, lastStartOf } from './clock'
import { windowEnd, type Schedule } from './schedule'

/** Whether somebody may still start in a window at an instant, its opening aside. */
export function startsBefore(schedule: Schedule, window: Window, at: Instant): boolean {
  const last = lastStartOf(schedule, window)
  return last === null || at < last
}

/** Later than every instant, as text. */
const endless = '~'

/**
 * The window in which somebody starts at an instant: of those that are open the one that ends latest for them, by the
 * latest hard stop that a start in it can have; of those that reach as far, the one that closes last (semantics §5). Whenever
 * they start in it, no other would give them longer. Undefined where none is open.
 */
export function windowAt(schedule: Schedule, at: Instant): Window | undefined {
  const open = schedule.windows.filter((window) => window.opens <= at && startsBefore(schedule, window, at))
  if (open.length < 2) return open[0]
  const reach = (window: Window): Instant => {
    const last = lastStartOf(schedule, window)
    return (last && furthest(schedule, last, window).hardStop) ?? endless
  }
  return open
    .map((window) => ({ window, reach: reach(window), end: windowEnd(schedule, window) ?? endless }))
    .reduce((best, each) =>
      each.reach > best.reach || (each.reach === best.reach && each.end > best.end) ? each : best,
    ).window
}
/** A stretch of time in which somebody can start, always in the same window. */
export interface Starts {
  window: Window
  from: Instant
  /** Null for no end. */
  before: Instant | null
}

/** When somebody can start, in order. Windows in which nobody can start, or that another always wins against, are not in it. */
export function startsOf(schedule: Schedule): Starts[] {
  const turns = [
    ...new Set(schedule.windows.flatMap((window) => [window.opens, lastStartOf(schedule, window) ?? window.opens])),
  ].sort()
  return turns.flatMap((from, i): Starts[] => {
    const window = windowAt(schedule, from)
    return window ? [{ window, from, before: turns[i + 1] ?? null }] : []
  })
}

/** The first instant from `at` on at which somebody can start, or null. */
export function nextStart(starts: readonly Starts[], at: Instant): Instant | null {
  for (const { from, before } of starts) {
    const start = from > at ? from : at
    if (before === null || start < before) return start
  }
  return null
}

/** The latest possible hard stop of a start from `at` on; before all where none is possible. */
export function latestEndFrom(schedule: Schedule, starts: readonly Starts[], at: Instant): End {
  return latest(
    starts
      .filter(({ before }) => before === null || at < before)
      .map(({ window, before }) =>
        // Without an end somebody can always start later.
        before === null ? never : endAt(furthest(schedule, before, window).hardStop),
      ),
  )
}

/** end(student) of semantics §7: the latest possible hard stop. A student without a window has none to wait for. */
export function latestEnd(schedule: Schedule): End {
  return latestEndFrom(schedule, startsOf(schedule), '')
}

/**
 * Attempts of no length, as soon as windows and waits allow: at most so many, and those that can be.
 * @param from the first is no earlier
 */
export function quickest(schedule: Schedule, starts: readonly Starts[], from: Instant, most: number): Instant[] {
  const { wait } = schedule.attempts
  const row: Instant[] = []
  for (let at = nextStart(starts, from); at !== null && row.length < most;) {
    row.push(at)
    at = nextStart(starts, plus(at, wait * minute))
  }
  return row
}

/**
 * When somebody who begins an attempt at an instant can have used all up at the earliest: by it, where passing ends them;
 * else by as many as there are, before and after it. Null where that cannot be.
 */
export function earliestUsedUp(
  schedule: Schedule,
  starts: readonly Starts[],
  passingEnds: boolean,
  at: Instant,
): Instant | null {
  const { count, wait } = schedule.attempts
  if (passingEnds) return at
  if (count === null) return null
  const before = quickest(schedule, starts, '', count - 1).filter((each) => plus(each, wait * minute) <= at).length
  const left = count - 1 - before
  const after = quickest(schedule, starts, plus(at, wait * minute), left)
  return after.length < left ? null : (after.at(-1) ?? at)
}
