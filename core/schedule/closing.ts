import type { Instant } from '../kit/time'
import type { Rules, Window } from '../quiz/schema'
import { lateness } from '../marking/late'
import type { AssignedStudent } from './assigned'
import { moreAttempts, type Sat } from './attempts'
import { lastStartOf, type Limits } from './clock'

/** A window that ends at an instant, for everybody; one that has ended by then keeps its end. One that has not opened yet never opens. */
export function closesNow(window: Window, now: Instant): Window {
  const closes =
    window.closes !== null && window.closes <= now ? window.closes : window.opens < now ? now : window.opens
  return { ...window, closes, closedAt: closes }
}

/** Somebody assigned, with what they have sat and the limits of what they are at. */
export interface Standing extends AssignedStudent {
  sat: Sat
  running: Limits | null
}

/** What closing at once does to whom: names, in the order given. */
export interface Closing {
  /** Papers under way that are handed in as they stand, with the minutes by which each is over its time. */
  handedIn: { name: string; minutesOver: number }[]
  /** Who has not started and could still have. */
  shutOut: string[]
  /** Who has a paper handed in and could still have had another attempt. */
  noFurther: string[]
}

/** What becomes of whom when a quiz is closed at an instant (semantics §5); nothing is done. */
export function whatClosingDoes(rules: Rules, students: readonly Standing[], now: Instant): Closing {
  const couldStart = ({ schedule, sat }: Standing) =>
    moreAttempts(schedule.attempts, sat).more &&
    schedule.windows.some((window) => {
      const last = lastStartOf(schedule, window)
      return last === null || now < last
    })
  const waiting = students.filter((student) => !student.running && couldStart(student))
  return {
    handedIn: students.flatMap(({ name, running }) =>
      running ? [{ name, minutesOver: lateness(now, null, running.onTimeUntil).minutesOver }] : [],
    ),
    shutOut: waiting.filter(({ sat }) => !sat.attempts.length).map(({ name }) => name),
    noFurther: waiting.filter(({ sat }) => sat.attempts.length > 0).map(({ name }) => name),
  }
}
