import { exact } from '../kit/exact'
import { day, earlier, minute, ms, plus, type Instant } from '../kit/time'
import type { Accommodation, Given, Rules, Student, Window } from '../quiz/schema'

/** What the rules mean for one student: minutes and instants, accommodations applied. */
export interface Schedule {
  student: string
  /** Their windows are those of classes from which this quiz is held back, or all quizzes are; null where none is. */
  held: 'quiz' | 'class' | null
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
  /** Days after the due time in which late papers are taken; null without a last day. */
  lateDays: number | null
  /** With the attempts that are theirs alone. */
  attempts: Rules['attempts']
  /** Minutes of breaks in all that stop the clock; 0 for none. */
  breaks: number
  /** The accommodations that count here: why this student's schedule differs. */
  given: readonly Given[]
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
    breakMinutes: Math.max(0, ...accommodations.map((each) => each.breakMinutes)),
    moreAttempts: Math.max(0, ...accommodations.map((each) => each.moreAttempts)),
    laterMinutes: Math.max(0, ...accommodations.map((each) => each.laterMinutes)),
  }
}

/** What is given to a student for this quiz, by their name or a group of theirs. */
const needsOf = ({ needs }: Pick<Rules, 'needs'>, student: Pick<Student, 'id' | 'groups'>) =>
  needs.filter(
    ({ students, groups }) => students.includes(student.id) || groups.some((each) => student.groups.includes(each)),
  )

/** Whether something that is given for this quiz stands in place of all else that a student has. */
export const standsInstead = (rules: Pick<Rules, 'needs'>, student: Pick<Student, 'id' | 'groups'>): boolean =>
  needsOf(rules, student).some((each) => each.instead)

/**
 * The accommodations that count for a student in a quiz: their own, those of their groups and those of this quiz; or
 * those of this quiz alone, where one of them stands in place of the rest.
 */
export function givenIn(rules: Pick<Rules, 'needs'>, student: Student): Given[] {
  const here = needsOf(rules, student)
  const instead = here.filter((each) => each.instead)
  const given = (instead.length ? instead : here).map(
    ({ id: _id, students: _students, groups: _groups, instead: _instead, ...need }): Given => ({ ...need, by: 'quiz' }),
  )
  return instead.length ? given : [...student.accommodations, ...given]
}

/** A window as it is for somebody whose windows come to an end later; one that a teacher has closed at once stays as it is. */
function laterBy(window: Window, minutes: number): Window {
  if (!minutes || isClosed(window)) return window
  const move = (at: Instant | null) => (at === null ? null : plus(at, minutes * minute))
  return { ...window, closes: move(window.closes), due: move(window.due), latestStart: move(window.latestStart) }
}

/** The windows that are for a student: those that name them, else those of their groups, else those of their classes (semantics §5). */
export function windowsOf<W extends Pick<Window, 'classes' | 'groups' | 'students'>>(
  windows: readonly W[],
  student: Pick<Student, 'id' | 'classes' | 'groups'>,
): W[] {
  const own = windows.filter((window) => window.students.includes(student.id))
  if (own.length) return own
  const ofGroups = windows.filter((window) => window.groups.some((each) => student.groups.includes(each)))
  if (ofGroups.length) return ofGroups
  return windows.filter((window) => window.classes.some((each) => student.classes.includes(each)))
}

/** Whether a window is theirs only by classes from which it is held back. */
function isHeld(
  window: Pick<Window, 'classes' | 'groups' | 'students'>,
  student: Student,
  held: readonly string[],
): boolean {
  if (!held.length || window.students.includes(student.id)) return false
  if (window.groups.some((each) => student.groups.includes(each))) return false
  return window.classes.filter((each) => student.classes.includes(each)).every((each) => held.includes(each))
}

/** A window of the rules as it is for a student, also one that is theirs no more: a sitting belongs to where it began. */
export function windowFor(rules: Rules, student: Student, id: string | null): Window | undefined {
  const window = rules.windows.find((each) => each.id === id)
  return window && laterBy(window, mostGenerous(givenIn(rules, student)).laterMinutes)
}

/** The rules as they are for one student. Windows are in the order in which they open. */
export function scheduleFor(rules: Rules, student: Student): Schedule {
  const given = givenIn(rules, student)
  const own = mostGenerous(given)
  const { count } = rules.attempts
  const limit =
    rules.limit === null ? null : exact(rules.limit).mul(exact(own.factor)).add(exact(own.extraMinutes)).valueOf()
  const windows = windowsOf(rules.windows, student)
  const ofClasses = student.held ?? []
  const held = [...ofClasses, ...rules.heldBack]
  const open = windows.filter((window) => !isHeld(window, student, held))
  const byClass = windows.length > 0 && windows.every((window) => isHeld(window, student, ofClasses))
  return {
    student: student.id,
    held: !windows.length || open.length ? null : byClass ? 'class' : 'quiz',
    // What is held back is given again: its ends are waited for where nothing else is theirs.
    windows: (open.length ? open : windows)
      .map((window) => laterBy(window, own.laterMinutes))
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
    lateDays: rules.late.lastDays,
    attempts: { ...rules.attempts, count: count === null ? null : count + own.moreAttempts },
    breaks: own.breakMinutes,
    given,
    language: own.language,
    largerType: own.largerType,
  }
}

/** Stands for all that differs between the schedules of students under the same rules: those with one key have the same times. */
function scheduleKey(schedule: Schedule): string {
  const { windows, limit, stretchWindow, factor, extraMinutes, breaks, attempts } = schedule
  const times = windows.map(({ id, closes, due, latestStart }) => `${id} ${closes} ${due} ${latestStart}`).join()
  return `${times} ${limit} ${stretchWindow} ${factor} ${extraMinutes} ${breaks} ${attempts.count}`
}

/**
 * Students under the same rules, those of one schedule together, in the order of their first: what follows from a schedule
 * is worked out once for all of them.
 * @param also what has to be the same as well
 */
export function alike<T extends { schedule: Schedule }>(
  students: readonly T[],
  also: (student: T) => string = () => '',
): { schedule: Schedule; students: T[] }[] {
  const sorts = new Map<string, { schedule: Schedule; students: T[] }>()
  for (const student of students) {
    const key = `${scheduleKey(student.schedule)} ${also(student)}`
    const known = sorts.get(key)
    if (known) known.students.push(student)
    else sorts.set(key, { schedule: student.schedule, students: [student] })
  }
  return [...sorts.values()]
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
  return earlier(window.closes, lateUntil(window.due, late.accepted, late.lastDays))
}

/** Until when anything is taken by the due time and the late rule: it, a last day after it, or null for neither. */
export function lateUntil(due: Instant | null, accepted: boolean, lastDays: number | null): Instant | null {
  if (due === null || !accepted) return due
  return lastDays === null ? null : plus(due, lastDays * day)
}
