import { duration, sentenceTime } from '../kit/phrases'
import { instantOfEnd, type Instant } from '../kit/time'
import type { Rules, Student } from '../quiz/schema'
import { earliestSight, endsOf } from '../release'
import { facetLabels, facetNames } from '../release/schema'
import { assignedTo, namedIn, sortOf, type AssignedStudent } from './assigned'
import { scheduleFor, type Schedule } from './schedule'
import { latestEnd, nextStart, startsOf } from './starts'

/** What a change of the rules does to some students, in words that follow on their number or names and a colon. */
export interface Effect {
  words: string
  students: string[]
}

const sits = (schedule: Schedule) => schedule.windows.length > 0 && schedule.held === null

/** How a value reads beside what it was. */
const instead = (what: string, before: string, after: string) => `${what}${after} instead of ${before}`

/** What of a student's own times and attempts is another. */
function ownEffects(before: Schedule, after: Schedule, now: Instant, zone: string): string[] {
  const [was, is] = [sits(before), sits(after)]
  if (!was && !is) return []
  if (!was) return ['can sit it, and could not before']
  if (!is) return ['cannot sit it any more']
  const when = (at: Instant | null) => (at === null ? 'without an end' : sentenceTime(at, zone))
  const [ended, ends] = [instantOfEnd(latestEnd(before)), instantOfEnd(latestEnd(after))]
  const [started, starts] = [before, after].map((schedule) => nextStart(startsOf(schedule), now)) as [
    Instant | null,
    Instant | null,
  ]
  const dueOf = (schedule: Schedule) => schedule.windows.flatMap(({ due }) => due ?? []).sort()[0] ?? null
  const [wasDue, isDue] = [dueOf(before), dueOf(after)]
  const minutes = (limit: number | null) => (limit === null ? 'no limit' : duration(limit))
  const times = (count: number | null) =>
    count === null ? 'any number of attempts' : `${count} ${count === 1 ? 'attempt' : 'attempts'}`
  return [
    ...(started !== starts
      ? starts === null
        ? ['cannot start any more']
        : started === null
          ? [`can start again, ${starts > now ? `from ${when(starts)}` : 'from now on'}`]
          : [instead('can start from ', when(started), when(starts))]
      : []),
    ...(ended !== ends ? [instead('time until ', when(ended), when(ends))] : []),
    ...(before.limit !== after.limit ? [instead('', minutes(before.limit), minutes(after.limit))] : []),
    ...(wasDue !== isDue
      ? [
          isDue === null
            ? 'no due time any more'
            : wasDue === null
              ? `due ${when(isDue)}`
              : instead('due ', when(wasDue), when(isDue)),
        ]
      : []),
    ...(before.attempts.count !== after.attempts.count
      ? [instead('', times(before.attempts.count), times(after.attempts.count))]
      : []),
  ]
}

/** From when at the earliest a student may see each facet, where that is another. */
function sightEffects(
  [before, after]: readonly [Rules, Rules],
  [was, is]: readonly [AssignedStudent, AssignedStudent],
  [endsBefore, endsAfter]: readonly [ReturnType<typeof endsOf>, ReturnType<typeof endsOf>],
  zone: string,
): string[] {
  const when = (at: Instant | null) => (at === null ? 'not foreseen' : sentenceTime(at, zone))
  return facetNames.flatMap((name) => {
    const then = earliestSight(before, name, was.schedule, was.classes, endsBefore)
    const now = earliestSight(after, name, is.schedule, is.classes, endsAfter)
    return then === now
      ? []
      : [`“${facetLabels[name].toLowerCase()}” shown at the earliest: ${when(now)} instead of ${when(then)}`]
  })
}

/**
 * What a change of the rules does to whom, before it is done: those to whom the same happens together, the largest group
 * first. Papers under way keep their questions whatever is changed, and nothing shortens one (semantics §3).
 * @param students all whom the rules before or after can mean
 */
export function effectsOf(
  before: Rules,
  after: Rules,
  students: readonly Student[],
  now: Instant,
  zone: string,
): Effect[] {
  const [was, is] = [assignedTo(students, before), assignedTo(students, after)]
  const [endsBefore, endsAfter] = [endsOf(was), endsOf(is)]
  const [wasById, isById] = [was, is].map((all) => new Map(all.map((each) => [each.id, each]))) as [
    Map<string, AssignedStudent>,
    Map<string, AssignedStudent>,
  ]
  const found = new Map<string, string[]>()
  // Those of one sort have the same times before and after: what becomes of them is worked out once.
  const named = new Set([before, after].flatMap(namedIn))
  const known = new Map<string, string[]>()
  for (const student of students) {
    const [one, two] = [wasById.get(student.id), isById.get(student.id)]
    if (!one && !two) continue
    const sort = sortOf(student, named)
    const words = known.get(sort) ?? [
      ...ownEffects(
        one?.schedule ?? scheduleFor(before, student),
        two?.schedule ?? scheduleFor(after, student),
        now,
        zone,
      ),
      ...(one && two ? sightEffects([before, after], [one, two], [endsBefore, endsAfter], zone) : []),
    ]
    known.set(sort, words)
    for (const each of words) found.set(each, [...(found.get(each) ?? []), student.name])
  }
  return [...found]
    .map(([words, names]) => ({ words, students: names }))
    .sort((a, b) => b.students.length - a.students.length)
}
