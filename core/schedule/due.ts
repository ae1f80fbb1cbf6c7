import type { Instant } from '../kit/time'
import type { Rules, Student } from '../quiz/schema'
import type { MaySit } from './may-sit'
import { scheduleFor, windowFor } from './schedule'

/** Where a student stands, as far as it says which window counts for them. */
export interface Standing {
  may: MaySit
  /** Their attempts in order, with the windows in which they began. */
  attempts: readonly { state: 'open' | 'handed' | 'unsent'; window: string }[]
}

/**
 * The window that counts for a student at an instant: that of the paper under way; else the one in which they would start
 * now; else the next one that opens; else that of their last paper (semantics §5: an attempt belongs to the window it
 * started in).
 * @returns its id, or null where none counts
 */
export function windowThatCounts(
  rules: Rules,
  student: Student,
  { may, attempts }: Standing,
  now: Instant,
): string | null {
  const running = attempts.find(({ state }) => state === 'open')
  if (running) return running.window
  if (may.may) return may.window
  const next = may.from === null ? undefined : scheduleFor(rules, student).windows.find(({ opens }) => opens >= now)
  return next?.id ?? attempts.at(-1)?.window ?? null
}

/**
 * When a paper is due that began, or would begin, in a window: the one place that says so.
 * @param window its id; also of one that is theirs no more
 * @returns the instant, later by what the student is given; null where it is not due
 */
export const dueFor = (rules: Rules, student: Student, window: string | null): Instant | null =>
  windowFor(rules, student, window)?.due ?? null
