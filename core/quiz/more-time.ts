import { minute, plus, type Instant } from '../kit/time'
import { blankNeed, type QuizNeed } from '../rules/needs'
import { closesNow } from '../schedule/closing'
import { givenIn, mostGenerous, standsInstead, windowsOf } from '../schedule/schedule'
import { noAccommodation } from './accommodation'
import { editTo } from './edits/make'
import type { Edit } from './edits/edit'
import type { Quiz, Rules, Student, Window } from './schema'

/** For whom something of a quiz is changed: everybody, a class, or single students. */
export type ForWhom = { everybody: true } | { inClass: string } | { students: readonly string[] }

const withRules = (quiz: Quiz, rules: Partial<Rules>): Edit | null =>
  editTo(quiz, { ...quiz, rules: { ...quiz.rules, ...rules } })

const moved = (at: Instant | null, minutes: number) => (at === null ? null : plus(at, minutes * minute))

/** A window with its end, its due time and its latest start later. One that a teacher has closed at once opens again by it. */
const later = (window: Window, minutes: number): Window => ({
  ...window,
  closes: moved(window.closes, minutes),
  due: moved(window.due, minutes),
  latestStart: moved(window.latestStart, minutes),
})

/** Whether something for some is for a student. */
export const isFor = (whom: ForWhom, { id, classes }: Pick<Student, 'id' | 'classes'>): boolean =>
  'everybody' in whom || ('inClass' in whom ? classes.includes(whom.inClass) : whom.students.includes(id))

/** The windows with another in place of what one class has: a window that others share is parted. */
function forClass(
  windows: readonly Window[],
  classId: string,
  of: (window: Window) => Window,
  newId: () => string,
): Window[] {
  return windows.flatMap((window) => {
    if (!window.classes.includes(classId)) return [window]
    const alone = window.classes.length + window.groups.length + window.students.length === 1
    if (alone) return [of(window)]
    return [
      { ...window, classes: window.classes.filter((each) => each !== classId) },
      { ...of(window), id: newId(), classes: [classId], groups: [], students: [] },
    ]
  })
}

/**
 * What students need for this quiz so that each has so many minutes more than they have now: those who come to the same
 * together. It counts on what was given before, also where that stands in place of all else.
 */
function needsFor(
  rules: Rules,
  students: readonly Student[],
  more: { clock: number; end: number },
  newId: () => string,
): QuizNeed[] {
  const alike = new Map<string, QuizNeed>()
  for (const student of students) {
    const own = mostGenerous(givenIn(rules, student))
    const instead = standsInstead(rules, student)
    const given = { extraMinutes: own.extraMinutes + more.clock, laterMinutes: own.laterMinutes + more.end }
    const key = JSON.stringify(instead ? [own, given] : given)
    const known = alike.get(key)
    if (known) known.students.push(student.id)
    else {
      const blank = blankNeed({ id: newId(), students: [student.id], groups: [] }, instead ? own : noAccommodation)
      alike.set(key, { ...blank, ...given, instead })
    }
  }
  return [...alike.values()]
}

/**
 * More time on the clock and at the end of the window: everybody gets a later end and a longer limit; a class a later end,
 * and what else its students need for this quiz; students what they need for this quiz. Sittings under way get it at once.
 * @param minutes 1 or more
 * @param students those of the class, or those who are named
 * @param newId of what is added
 * @returns null where nothing changes
 */
export function moreTime(
  quiz: Quiz,
  whom: ForWhom,
  minutes: number,
  students: readonly Student[],
  newId: () => string,
): Edit | null {
  const { windows, needs, limit } = quiz.rules
  if ('everybody' in whom)
    return withRules(quiz, {
      windows: windows.map((window) => later(window, minutes)),
      limit: limit === null ? null : limit + minutes,
    })
  const more = { clock: limit === null ? 0 : minutes, end: 'students' in whom ? minutes : 0 }
  const given = more.clock || more.end ? needsFor(quiz.rules, students, more, newId) : []
  return withRules(quiz, {
    needs: [...needs, ...given],
    ...('inClass' in whom
      ? { windows: forClass(windows, whom.inClass, (window) => later(window, minutes), newId) }
      : {}),
  })
}

/**
 * Nobody of those starts any more from an instant on; papers under way go on by their clock. Of single students there is no
 * such act: they have a window of their own for that.
 */
export function endStarts(
  quiz: Quiz,
  whom: Exclude<ForWhom, { students: readonly string[] }>,
  now: Instant,
  newId: () => string,
): Edit | null {
  const end = (window: Window): Window =>
    window.opens >= now || (window.latestStart !== null && window.latestStart <= now)
      ? window
      : { ...window, latestStart: now }
  const { windows } = quiz.rules
  return withRules(quiz, {
    windows: 'everybody' in whom ? windows.map(end) : forClass(windows, whom.inClass, end, newId),
  })
}

/**
 * The windows of a quiz that is closed at once for some: for a class where it is a class's; for a student in a window of
 * their own, which counts in place of all others.
 * @param students those who are named
 * @param newId of windows that are parted or added
 */
export function closedFor(
  { windows }: Pick<Rules, 'windows'>,
  whom: ForWhom,
  students: readonly Student[],
  now: Instant,
  newId: () => string,
): Window[] {
  const close = (window: Window) => closesNow(window, now)
  if ('everybody' in whom) return windows.map(close)
  if ('inClass' in whom) return forClass(windows, whom.inClass, close, newId)
  return students.reduce<Window[]>(
    (all, student) => {
      const theirs = windowsOf(all, student)
      const own = theirs.map((window) => ({
        ...close(window),
        id: newId(),
        classes: [],
        groups: [],
        students: [student.id],
      }))
      // A window of their own goes over into the one that is closed.
      const without = all.flatMap((window): Window[] => {
        if (!window.students.includes(student.id)) return [window]
        const others = window.students.filter((each) => each !== student.id)
        return others.length || window.classes.length || window.groups.length ? [{ ...window, students: others }] : []
      })
      return [...without, ...own]
    },
    [...windows],
  )
}
