import { exact } from '../kit/exact'
import { normal, type Random } from '../kit/random'
import { earlier, minute, ms, plus, second, type Instant } from '../kit/time'
import { personSpread, questionSpread } from '../figures/working-time'
import { factsOf, type Facts } from '../figures/facts'
import { gradeFor } from '../marking/grade'
import { lateness } from '../marking/late'
import { markAttempt } from '../marking/mark'
import { compilePaper } from '../paper/compile'
import type { PaperItem } from '../paper/schema'
import { instanceOf, kindOf, type Question } from '../question'
import type { Edition, Rules } from '../quiz/schema'
import { limitsFor, type Limits } from '../schedule/clock'
import type { Schedule } from '../schedule/schedule'
import { sectionLimits } from '../schedule/sections'
import { startsOf } from '../schedule/starts'
import { chanceFor } from './abilities'
import { answerForNothing, rightAnswer } from './answers'

/** Why an answer that a student would have given did not count. */
export type Cut = 'clock' | 'window' | 'due' | 'section' | 'connection'

/** One simulated sitting. */
export interface TrialSitting {
  /** Share of the points possible, before rounding; null where nothing is possible. */
  share: number | null
  /** Null without a pass mark. */
  passed: boolean | null
  /** Minutes from start to handing in, or to when the last answer was kept. */
  minutes: number
  /** Questions that they had no time for, or that did not arrive. */
  missed: number
  /** What cut them off first; null for who had time for all. */
  cut: Cut | null
  /** Minutes after the deadline, where they may finish. */
  over: number
  /** Questions on the paper. */
  questions: string[]
  /** Why they could not sit it at all. */
  failed: 'no start' | 'no paper' | null
}

/** What simulated students are like. */
export interface TrialStudents {
  /** Ability in logits, normal about a mean; 0 is usual (abilities.ts). */
  mean: number
  deviation: number
  /** Share of them whose connection is lost for some minutes while they work, 0 to 1. */
  lose: number
}

export interface TrialQuiz {
  edition: Edition
  rules: Rules
  facts: Facts
}

const fine = 1_000_000
/** A connection that is lost comes back after so many minutes, evenly. */
const longestLoss = 15

/** When they start: evenly over the time in which they can; in a window without an end, within a day. */
function startOf(schedule: Schedule, random: Random): { at: Instant; window: string } | null {
  const starts = startsOf(schedule)
  const long = starts.map(({ from, before }) => (before === null ? 1440 * minute : ms(before) - ms(from)))
  const all = long.reduce((a, b) => a + b, 0)
  if (all <= 0) return null
  let place = (random.below(fine) / fine) * all
  for (const [i, { from, window }] of starts.entries()) {
    if (place < long[i]!) return { at: plus(from, Math.floor(place)), window: window.id }
    place -= long[i]!
  }
  return null
}

const windowOf = (schedule: Schedule, start: { window: string }) =>
  schedule.windows.find(({ id }) => id === start.window)

/** What ends a sitting before its own time: the window, the due time; or its own clock. */
function endedBy(schedule: Schedule, limits: Limits, start: { at: Instant; window: string }): Cut {
  const own = schedule.limit === null ? null : plus(start.at, schedule.limit * minute)
  if (limits.deadline === null || (own !== null && limits.deadline >= own)) return 'clock'
  const window = windowOf(schedule, start)
  return window?.due !== null && window?.due !== undefined && limits.deadline === window.due && !schedule.lateAccepted
    ? 'due'
    : 'window'
}

/** A loss of connection in the middle of the work: from when to when; null for none. */
function lossIn(start: Instant, work: number, { lose }: TrialStudents, random: Random): [Instant, Instant] | null {
  if (random.below(fine) >= lose * fine) return null
  const from = plus(start, Math.floor((random.below(fine) / fine) * work))
  return [from, plus(from, Math.ceil((random.below(fine) / fine) * longestLoss * minute))]
}

interface Worked {
  answers: Record<string, unknown>
  hand: Record<string, string>
  missed: number
  cut: Cut | null
  last: Instant
}

/** Works through a paper question by question, until time is up. */
function work(
  { edition, facts }: TrialQuiz,
  schedule: Schedule,
  items: readonly PaperItem[],
  start: { at: Instant; window: string },
  limits: Limits,
  students: TrialStudents,
  random: Random,
): Worked {
  const ability = students.mean + students.deviation * normal(random)
  const speed = Math.exp(personSpread * normal(random))
  const times = items.map(
    ({ question }) => factsOf(facts, question).seconds * Math.exp(questionSpread * normal(random)) * speed * second,
  )
  const lost = lossIn(
    start.at,
    times.reduce((a, b) => a + b, 0),
    students,
    random,
  )
  // What was written before the deadline may arrive with grace; where they may finish, writing goes on until the hard stop.
  const writes = schedule.atDeadline === 'finish' ? limits.hardStop : limits.deadline
  const limitOf = new Map(edition.content.sections.map((section) => [section.id, section]))
  const done: Worked = { answers: {}, hand: {}, missed: 0, cut: null, last: start.at }
  let now = start.at
  let section = { id: '', ends: null as Instant | null }
  for (const [i, item] of items.entries()) {
    if (item.section !== section.id) {
      const { limit = null } = limitOf.get(item.section) ?? {}
      const ends = limit === null ? null : sectionLimits(schedule, { limit }, now).deadline
      section = { id: item.section, ends }
    }
    const finished = plus(now, Math.round(times[i]!))
    const until = earlier(writes, section.ends)
    if (until !== null && finished > until) {
      done.missed++
      done.cut ??= until === writes ? endedBy(schedule, limits, start) : 'section'
      now = earlier(finished, until)!
      continue
    }
    now = finished
    // What was written while the connection was lost arrives when it is back: in time, or not at all.
    const arrives = lost && now >= lost[0] && now < lost[1] ? lost[1] : now
    const takes =
      section.ends === null ? limits.hardStop : earlier(limits.hardStop, plus(section.ends, schedule.grace * minute))
    if (takes !== null && arrives > takes) {
      done.missed++
      done.cut ??= 'connection'
      continue
    }
    done.last = now
    const { question } = edition.questions[item.question]!
    const knows = random.below(fine) < chanceFor(factsOf(facts, item.question), ability) * fine
    answer(done, question, item, knows, random)
  }
  return done
}

function answer(done: Worked, question: Question, item: PaperItem, knows: boolean, random: Random): void {
  const kind = kindOf(question.kind)
  const whole = instanceOf(question, item.values ?? {})
  const given = knows ? rightAnswer(whole) : answerForNothing(whole, random)
  // Whoever marks by hand gives full marks to who knows.
  if (kind.byHand) done.hand[item.id] = knows ? '1' : '0'
  if (given !== null) done.answers[item.id] = kind.close(given, item.options)
}

const notSat = (failed: NonNullable<TrialSitting['failed']>): TrialSitting => ({
  share: null,
  passed: null,
  minutes: 0,
  missed: 0,
  cut: null,
  over: 0,
  questions: [],
  failed,
})

/**
 * One student sits a quiz: starts within a window of theirs, works at their own speed (van der Linden 2006, as the figure of
 * working time), knows each question with the chance of their ability, may lose the connection, and is marked as anyone is.
 * @param student a name of their own: the paper hangs on it
 */
export function sitOnce(
  quiz: TrialQuiz,
  schedule: Schedule,
  student: string,
  students: TrialStudents,
  random: Random,
): TrialSitting {
  const { edition, rules } = quiz
  const start = startOf(schedule, random)
  if (!start) return notSat('no start')
  let paper
  try {
    paper = compilePaper(edition, student, 1, [], { draw: rules.attempts.draw })
  } catch {
    return notSat('no paper')
  }
  const limits = limitsFor(schedule, { startedAt: start.at, window: start.window })
  const { answers, hand, missed, cut, last } = work(quiz, schedule, paper.items, start, limits, students, random)
  const ranOut = cut !== null && cut !== 'section' && cut !== 'connection'
  const marks = markAttempt(edition, paper, answers, [], { hand, counts: rules.counts })
  const unsent = ranOut && schedule.atDeadline === 'unsent'
  const over = limits.onTimeUntil !== null && last > limits.onTimeUntil ? (ms(last) - ms(limits.deadline!)) / minute : 0
  const grade = gradeFor(
    [
      {
        number: 1,
        state: unsent ? 'unsent' : 'handed',
        score: marks.score,
        possible: marks.possible,
        daysLate: lateness(last, windowOf(schedule, start)?.due ?? null, limits.onTimeUntil).daysLate,
        sections: marks.sections,
      },
    ],
    null,
    rules,
  )
  const possible = exact(marks.possible)
  return {
    share: unsent ? 0 : possible.equals(0) || marks.score === null ? null : exact(marks.score).div(possible).valueOf(),
    passed: grade.passed,
    minutes: (ms(last) - ms(start.at)) / minute,
    missed,
    cut,
    over,
    questions: paper.items.map((item) => item.question),
    failed: null,
  }
}
