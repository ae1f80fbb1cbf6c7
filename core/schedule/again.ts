import { earlier, endAt, never, type End, type Instant } from '../kit/time'
import type { Window } from '../quiz/schema'
import type { Limits } from './clock'
import { isClosed, windowEnd, type Schedule } from './schedule'

/**
 * Until when a paper that its student has handed in may be taken up again (semantics §6): the due time of the window in
 * which it began, else the window's end; never longer than its own time. Before all where handing in is final.
 * @param limits those of the sitting
 */
export function againUntil(schedule: Schedule, window: Window | undefined, limits: Pick<Limits, 'deadline'>): End {
  if (!schedule.attempts.again) return { is: 'beforeAll' }
  // One that a teacher has closed at once is over for everybody, whatever was due later.
  const end = window ? (isClosed(window) ? window.closes : (window.due ?? windowEnd(schedule, window))) : null
  const until = earlier(end, limits.deadline)
  return until === null ? never : endAt(until)
}

/** What is known of a paper that its student would take up again. */
export interface Finished {
  state: 'open' | 'handed' | 'unsent'
  endedBy: 'student' | 'clock' | 'teacher' | null
  /** A further one has been begun. */
  isLast: boolean
  /** Somebody has begun to mark it by hand. */
  marking: boolean
  /** Its quiz is given to students: neither withdrawn nor filed away. */
  isGiven: boolean
}

export type Again = { may: true; until: Instant | null } | { may: false; sentence: string }

/** Whether a student may take a paper up again at an instant; says why not. */
export function mayAgain({ state, endedBy, isLast, marking, isGiven }: Finished, until: End, now: Instant): Again {
  const no = (sentence: string): Again => ({ may: false, sentence })
  if (until.is === 'beforeAll') return no('Handing in was final.')
  if (!isGiven) return no('This quiz is not open any more.')
  if (state === 'open') return no('This paper is under way.')
  if (!isLast) return no('You have begun a further attempt: this one is as you handed it in.')
  if (state === 'unsent' || endedBy !== 'student') return no('The time of this paper is up.')
  if (until.is === 'at' && now >= until.at) return no('It is too late to take this paper up again.')
  if (marking) return no('Your teacher has begun to mark it.')
  return { may: true, until: until.is === 'at' ? until.at : null }
}
