import { clockChangeWithin } from '../../kit/local-time'
import { count, duration, few, sentenceTime } from '../../kit/phrases'
import { minute, ms, plus } from '../../kit/time'
import { whoWords } from '../../rules/window/who'
import { limitsFor, lastStartOf } from '../../schedule/clock'
import { alike } from '../../schedule/schedule'
import { nextStart, startsOf } from '../../schedule/starts'
import { setAt, together } from '../edits/make'
import type { Edit } from '../edits/edit'
import type { Quiz, Window } from '../schema'
import { look, type CheckContext, type Found } from './check'

/** Checks of what the rules mean for whose times: each names who is meant, and by how much. */

type Student = CheckContext['students'][number]
interface Short {
  students: Student[]
  window: Window
  /** Minutes by which they have less than their time. */
  by: number
}

/** Who has less than their time although they start as the window opens. */
function shortWindows(everybody: readonly Student[]): Short[] {
  return alike(everybody).flatMap(({ schedule, students }) => {
    const { limit } = schedule
    if (limit === null) return []
    return schedule.windows.flatMap((window) => {
      const last = lastStartOf(schedule, window)
      if (last !== null && last <= window.opens) return []
      const { deadline } = limitsFor(schedule, { startedAt: window.opens, window: window.id })
      const by = deadline === null ? 0 : limit - (ms(deadline) - ms(window.opens)) / minute
      return by > 0 ? [{ students, window, by }] : []
    })
  })
}

/** "everybody loses 15 minutes", or "lost are: Ada Brook 20 minutes and Ben Carr 5 minutes". */
function lossWords(short: readonly Short[], all: number): string {
  const amounts = new Set(short.map(({ by }) => by))
  const losing = short.reduce((sum, { students }) => sum + students.length, 0)
  if (losing === all && amounts.size === 1) return `everybody loses ${duration(short[0]!.by)}`
  const each = [...short]
    .sort((a, b) => b.by - a.by)
    .flatMap(({ students, by }) => students.map(({ name }) => `${name} ${duration(by)}`))
  return `lost are: ${few(each)}`
}

/** What lets everybody have their time: their clock before the window, and late papers where the due time cuts. */
function fullTime(quiz: Quiz): Edit | null {
  const { atClosing, late, windows } = quiz.rules
  return together([
    ...(atClosing === 'window' ? [setAt(quiz, ['rules', 'atClosing'], 'clock')] : []),
    ...(!late.accepted && windows.some((window) => window.due)
      ? [setAt(quiz, ['rules', 'late', 'accepted'], true)]
      : []),
  ])
}

/** A window shorter than the time limit, for whom and by how much. */
export function shortWindowChecks(quiz: Quiz, { students, names }: CheckContext): Found {
  const short = shortWindows(students)
  const edit = fullTime(quiz)
  return quiz.rules.windows.flatMap((window) => {
    const here = short.filter((each) => each.window.id === window.id)
    if (!here.length) return []
    const all = students.filter(({ schedule }) => schedule.windows.some(({ id }) => id === window.id)).length
    return [
      look(
        `short-window:${window.id}`,
        'rules',
        'A window is shorter than the time',
        `${whoWords(window, names)}: whoever starts as it opens does not have the whole time; ${lossWords(here, all)}.`,
        edit && { label: 'Give everybody their time', edit },
      ),
    ]
  })
}

/** Where the window wins, a late start is cut off by it. */
export function lateStartChecks(quiz: Quiz, { students, names, zone }: CheckContext): Found {
  const { atClosing, limit, windows } = quiz.rules
  if (atClosing !== 'window' || limit === null) return []
  const short = new Set(shortWindows(students).map(({ window }) => window.id))
  const cut = windows.flatMap((window) => {
    if (window.closes === null || short.has(window.id)) return []
    const whole = plus(window.closes, -limit * minute)
    return whole > window.opens && (window.latestStart === null || window.latestStart > whole)
      ? [{ window, whole }]
      : []
  })
  if (!cut.length) return []
  const [first] = cut
  const others = cut.length > 1 ? ` So it is in ${count(cut.length - 1, 'other window')}.` : ''
  return [
    look(
      'late-start',
      'rules',
      'A late start is cut off by the window',
      `${whoWords(first!.window, names)}: whoever starts after ${sentenceTime(first!.whole, zone)} has less than ${duration(limit)}.${others}`,
      {
        label: 'Let nobody start later than that',
        edit: together(
          cut.map(({ window, whole }) => setAt(quiz, ['rules', 'windows', window.id, 'latestStart'], whole)),
        )!,
      },
    ),
  ]
}

/** Without grace, what was written just before the end may not arrive. */
export function graceChecks(quiz: Quiz, { students }: CheckContext): Found {
  const { grace, atDeadline, limit, windows } = quiz.rules
  const ends = limit !== null || windows.some((window) => window.closes !== null)
  if (grace > 0 || atDeadline === 'finish' || !ends || !students.length) return []
  return [
    look(
      'no-grace',
      'rules',
      'A connection lost at the end loses answers',
      'There is no grace: what was written in time and arrives after the end is set aside, also when only the connection was slow.',
      { label: 'Give a minute of grace', edit: setAt(quiz, ['rules', 'grace'], 1) },
    ),
  ]
}

/** The most attempts, of no length, that can be made in windows with their waits; at most as many as there are. */
function mostAttempts({ schedule }: Pick<Student, 'schedule'>): number {
  const { count: allowed, wait } = schedule.attempts
  const starts = startsOf(schedule)
  let at = nextStart(starts, '')
  let made = 0
  while (at !== null && (allowed === null || made < allowed) && made < 100) {
    made++
    at = nextStart(starts, plus(at, wait * minute))
  }
  return made
}

/** Attempts that nobody can use, and "until passed" that promises what there is not. */
export function attemptChecks(quiz: Quiz, { students }: CheckContext): Found {
  const { count: allowed, untilPassed, wait } = quiz.rules.attempts
  const path = (name: string) => ['rules', 'attempts', name]
  if (untilPassed && allowed === 1)
    return [
      look(
        'until-passed-once',
        'rules',
        'Until passed, in one attempt',
        'There is one attempt, so nobody sits it again until they pass.',
        {
          label: 'Any number of attempts',
          edit: setAt(quiz, path('count'), null),
        },
      ),
    ]
  if (untilPassed && quiz.rules.grade.pass === null)
    return [
      look(
        'until-passed-unmarked',
        'rules',
        'Until passed, without a pass mark',
        'Nobody passes without a pass mark: every attempt that there is may be used.',
        {
          label: 'Pass from 60 %',
          edit: setAt(quiz, ['rules', 'grade', 'pass'], { by: 'percent', value: 60 }),
        },
      ),
    ]
  if (allowed === null || allowed < 3 || wait === 0 || !students.length) return []
  const most = Math.max(...alike(students).map(mostAttempts))
  // One alone is told with the wait.
  if (most >= allowed || most < 2) return []
  return [
    look(
      'attempts-unused',
      'rules',
      'Attempts that nobody can use',
      `With ${duration(wait)} between two, nobody can use more than ${most} of the ${allowed} attempts while it is open.`,
      { label: `Allow ${most}`, edit: setAt(quiz, path('count'), most) },
    ),
  ]
}

/** A due time behind the end of its window, where nobody can be at work any more. */
export function dueOutsideChecks(quiz: Quiz, { students, names, zone }: CheckContext): Found {
  const sorts = alike(students)
  return quiz.rules.windows.flatMap((window) => {
    const { due, closes } = window
    if (due === null || closes === null || due <= closes) return []
    const reaches = sorts.flatMap(({ schedule }) => {
      const mine = schedule.windows.find(({ id }) => id === window.id)
      const last = mine && lastStartOf(schedule, mine)
      return last ? (limitsFor(schedule, { startedAt: last, window: window.id }).hardStop ?? []) : []
    })
    const latest = reaches.sort().at(-1)
    if (latest === undefined || latest >= due) return []
    return [
      look(
        `due-outside:${window.id}`,
        'rules',
        'A due time lies outside the window',
        `${whoWords(window, names)}: due ${sentenceTime(due, zone)}, but everything has ended ${sentenceTime(latest, zone)}. Nothing can be late.`,
        {
          label: 'Make it due when the window closes',
          edit: setAt(quiz, ['rules', 'windows', window.id, 'due'], closes),
        },
      ),
    ]
  })
}

/** Minutes: in a window of more than a week nobody counts hours. */
const longest = 7 * 24 * 60

/** Clocks that change within a window: both local times, and how long it really is. */
export function clockChangeChecks(quiz: Quiz, { names, zone }: CheckContext): Found {
  return quiz.rules.windows.flatMap((window) => {
    const { opens, closes } = window
    if (closes === null || closes <= opens) return []
    const length = (ms(closes) - ms(opens)) / minute
    const change = length > longest ? null : clockChangeWithin(opens, closes, zone)
    if (!change) return []
    const before = plus(change.at, -minute)
    return [
      look(
        `clocks:${window.id}`,
        'rules',
        `The clocks go ${change.forward > 0 ? 'forward' : 'back'} within a window`,
        `${whoWords(window, names)}: a minute after ${sentenceTime(before, zone)} it is ${sentenceTime(change.at, zone)}. From ${sentenceTime(opens, zone)} to ${sentenceTime(closes, zone)} are ${duration(length)}, not ${duration(length + change.forward)}.`,
      ),
    ]
  })
}

/** Shown once is no secret: whoever sees it can keep a picture of it. */
export function onceChecks(quiz: Quiz): Found {
  const shared = (['questions', 'marks', 'key', 'comments'] as const).filter((name) => {
    const { once, from } = quiz.rules.release[name]
    return once && !['never', 'everyoneDone'].includes(from.at)
  })
  return shared.length
    ? [
        look(
          'once',
          'rules',
          'Shown once is no secret',
          'A picture of the screen keeps what is shown once: who has still to sit may get it.',
          {
            label: 'Show it when everyone is done',
            edit: together(
              shared.map((name) => setAt(quiz, ['rules', 'release', name, 'from'], { at: 'everyoneDone', offset: 0 })),
            )!,
          },
        ),
      ]
    : []
}
