import { minute, plus, type Instant } from '../kit/time'
import { sentenceTime } from '../kit/phrases'
import type { QuizState } from '../quiz/state'
import { moreAttempts, type Sat } from './attempts'
import { lastStartOf } from './clock'
import type { Schedule } from './schedule'

export type MaySit =
  | { may: true; window: string; attempt: number; sentence: string }
  | { may: false; sitting: number | null; from: Instant | null; sentence: string }

/**
 * The one place that decides whether a student may start an attempt now, in a sentence for them.
 * @param zone IANA zone of the school, for the times in the sentence
 */
export function maySit(state: QuizState, schedule: Schedule, sat: Sat, now: Instant, zone: string): MaySit {
  const no = (sentence: string, from: Instant | null = null, sitting: number | null = null): MaySit => ({
    may: false,
    sitting,
    from,
    sentence,
  })
  const running = sat.attempts.find((attempt) => attempt.state === 'sitting')
  if (running) return no('You have a paper under way. Go on with it.', null, running.number)
  if (state === 'draft' || state === 'withdrawn' || state === 'filed') return no('This quiz is not open.')
  if (!schedule.windows.length) return no('This quiz is not meant for your class.')
  const rule = schedule.attempts
  const further = moreAttempts(rule, sat)
  if (!further.more)
    return no(
      {
        used: rule.count === 1 ? 'You have handed in your one attempt.' : `You have used all ${rule.count} attempts.`,
        passed: 'You have passed; there is no further attempt.',
        marking: 'Your last attempt is still being marked.',
      }[further.why],
    )
  const ready = sat.attempts.reduce<Instant>((latest, attempt) => {
    const next = plus(attempt.handedInAt ?? now, rule.wait * minute)
    return next > latest ? next : latest
  }, '')
  return inWindow(schedule, sat.attempts.length + 1, ready, now, zone, no)
}

function inWindow(
  schedule: Schedule,
  attempt: number,
  ready: Instant,
  now: Instant,
  zone: string,
  no: (sentence: string, from?: Instant | null) => MaySit,
): MaySit {
  const open = schedule.windows.filter((window) => {
    const last = lastStartOf(schedule, window)
    return window.opens <= now && (last === null || now < last)
  })
  if (open.length && ready > now) return no(`Your next attempt can start ${sentenceTime(ready, zone)}.`, ready)
  if (open[0]) {
    const last = lastStartOf(schedule, open[0])
    return {
      may: true,
      window: open[0].id,
      attempt,
      sentence: last ? `You can start until ${sentenceTime(last, zone)}.` : 'You can start now.',
    }
  }
  const next = schedule.windows.find((window) => window.opens > now)
  if (next) {
    const from = next.opens > ready ? next.opens : ready
    return no(`It opens ${sentenceTime(from, zone)}.`, from)
  }
  const closed = schedule.windows.at(-1)!
  const last = lastStartOf(schedule, closed)!
  return no(`${last === closed.latestStart ? 'The latest start was' : 'It closed'} ${sentenceTime(last, zone)}.`)
}
