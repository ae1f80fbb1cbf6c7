import { minute, plus, type Instant } from '../kit/time'
import { sentenceTime } from '../kit/phrases'
import type { Window } from '../quiz/schema'
import type { QuizState } from '../quiz/state'
import { moreAttempts, type Sat } from './attempts'
import { lastStartOf } from './clock'
import type { Schedule } from './schedule'
import { startsBefore, windowAt } from './starts'

/** What keeps somebody from starting: the rule that decides. */
export type WhyNot =
  | 'sitting'
  | 'state'
  | 'notMeant'
  | 'held'
  | 'full'
  | 'used'
  | 'passed'
  | 'reached'
  | 'allRight'
  | 'marking'
  | 'wait'
  | 'waitTooLong'
  | 'opens'
  | 'latestStart'
  | 'closed'

export type MaySit =
  | { may: true; window: string; attempt: number; sentence: string }
  | { may: false; why: WhyNot; sitting: number | null; from: Instant | null; sentence: string }

type No = (why: WhyNot, sentence: string, from?: Instant | null, sitting?: number | null) => MaySit

/**
 * The one place that decides whether a student may start an attempt now, in a sentence for them.
 * @param zone IANA zone of the school, for the times in the sentence
 */
export function maySit(state: QuizState, schedule: Schedule, sat: Sat, now: Instant, zone: string): MaySit {
  const no: No = (why, sentence, from = null, sitting = null) => ({
    may: false,
    why,
    sitting,
    from,
    sentence,
  })
  const running = sat.attempts.find((attempt) => attempt.state === 'sitting')
  if (running) return no('sitting', 'You have a paper under way. Go on with it.', null, running.number)
  if (state === 'draft' || state === 'withdrawn' || state === 'filed') return no('state', 'This quiz is not open.')
  if (!schedule.windows.length) return no('notMeant', 'This quiz is not meant for you.')
  if (schedule.held) return no('held', 'Your teacher holds this quiz back for now.')
  if (sat.full) return no('full', 'All places of this quiz are taken.')
  const rule = schedule.attempts
  const further = moreAttempts(rule, sat)
  if (!further.more)
    return no(
      further.why,
      {
        used: rule.count === 1 ? 'You have handed in your one attempt.' : `You have used all ${rule.count} attempts.`,
        passed: 'You have passed; there is no further attempt.',
        reached: `You have reached ${rule.untilShare} %; there is no further attempt.`,
        allRight: 'You have answered everything right; there is nothing left to sit again.',
        marking: 'Your last attempt is still being marked.',
      }[further.why],
    )
  const ready = sat.attempts.reduce<Instant>((latest, attempt) => {
    const next = plus(attempt.handedInAt ?? now, rule.wait * minute)
    return next > latest ? next : latest
  }, '')
  return inWindow(schedule, sat.attempts.length + 1, ready, now, zone, no)
}

function inWindow(schedule: Schedule, attempt: number, ready: Instant, now: Instant, zone: string, no: No): MaySit {
  const best = windowAt(schedule, now)
  if (best && ready <= now) {
    const last = lastStartOf(schedule, best)
    return {
      may: true,
      window: best.id,
      attempt,
      sentence: last ? `You can start until ${sentenceTime(last, zone)}.` : 'You can start now.',
    }
  }
  // Only what lies inside a window is promised.
  const [from] = schedule.windows
    .map((window) => ({ window, at: [window.opens, ready, now].sort().at(-1)! }))
    .filter(({ window, at }) => startsBefore(schedule, window, at))
    .map(({ at }) => at)
    .sort()
  if (from !== undefined && best) return no('wait', `Your next attempt can start ${sentenceTime(from, zone)}.`, from)
  if (from !== undefined) return no('opens', `It opens ${sentenceTime(from, zone)}.`, from)
  if (ready > now && schedule.windows.some((window) => startsBefore(schedule, window, now)))
    return no('waitTooLong', 'The wait before your next attempt is longer than the quiz is open.')
  const closed = lastOf(schedule)
  const last = lastStartOf(schedule, closed)!
  return last === closed.latestStart
    ? no('latestStart', `The latest start was ${sentenceTime(last, zone)}.`)
    : no('closed', `It closed ${sentenceTime(last, zone)}.`)
}

/**
 * Whether a student sees that there is the quiz: it is meant for them and open or announced, or they have sat it. The one
 * place that decides it.
 */
export function seesQuiz(
  state: QuizState,
  schedule: Schedule,
  announced: boolean,
  attempts: number,
  now: Instant,
): boolean {
  if (attempts) return true
  if (state === 'draft' || state === 'withdrawn' || !schedule.windows.length || schedule.held) return false
  return announced || schedule.windows.some((window) => window.opens <= now)
}

/** The window in which starting was possible last. */
function lastOf(schedule: Schedule): Window {
  return schedule.windows.reduce((latest, window) =>
    lastStartOf(schedule, window)! > lastStartOf(schedule, latest)! ? window : latest,
  )
}
