import { facetLabels, type FacetName } from '../release/schema'
import { count, few } from '../kit/phrases'
import type { Instant } from '../kit/time'
import { studentOfClass } from '../schedule/assigned'
import { lastStartOf } from '../schedule/clock'
import { alike } from '../schedule/schedule'
import { spansOf, type DayLine, type LaneClass, type LaneStudent } from './day-line'

/** What the day line tells of one instant: who can start, who may be at work, who may see what. */
export interface AtInstant {
  start: string
  work: string
  see: string
}

/** "all 14 of Tuesday evening, Ada Brook and 3 more": classes whole where they are. */
function whoOf(some: readonly LaneStudent[], everybody: readonly LaneStudent[], classes: readonly LaneClass[]): string {
  const left = new Set(some.map(({ id }) => id))
  const all = new Set(left)
  const words = classes.flatMap(({ id: group, name }) => {
    const members = everybody.filter((student) => student.classes.includes(group))
    if (!members.length || !members.every(({ id }) => all.has(id))) return []
    for (const { id } of members) left.delete(id)
    // Whoever may still come by a link stands for all who do.
    if (members.every(({ id }) => id === studentOfClass(group).id)) return [name]
    return [`${members.length === 1 ? 'the one student' : `all ${members.length}`} of ${name}`]
  })
  const rest = some.filter(({ id }) => left.has(id)).map(({ name }) => name)
  return few([...words, ...rest], 4)
}

/**
 * What holds at an instant, from the same schedules that the line is drawn from.
 * @param line as it is drawn, with from when a facet is shown at the earliest
 */
export function atInstant(
  line: DayLine,
  students: readonly LaneStudent[],
  classes: readonly LaneClass[],
  at: Instant,
): AtInstant {
  const sorts = alike(students)
  const among = (holds: (schedule: LaneStudent['schedule']) => boolean): LaneStudent[] => {
    const ids = new Set(sorts.flatMap((sort) => (holds(sort.schedule) ? sort.students.map(({ id }) => id) : [])))
    return students.filter(({ id }) => ids.has(id))
  }
  const starting = among((schedule) =>
    schedule.windows.some((window) => {
      const last = lastStartOf(schedule, window)
      return window.opens <= at && (last === null || at < last)
    }),
  )
  const working = among((schedule) =>
    spansOf(schedule).some(({ opens, reach }) => opens <= at && (reach === null || at <= reach)),
  )
  const shown = new Map<string, FacetName[]>()
  for (const lane of line.release) {
    const groups = lane.spans.filter(({ from }) => from !== null && from <= at).flatMap((span) => span.groups)
    if (!groups.length) continue
    const who = few(groups)
    shown.set(who, [...(shown.get(who) ?? []), lane.facet])
  }
  const seen = [...shown].map(
    ([who, facets]) =>
      `${who} may see ${few(
        facets.map((name) => facetLabels[name].toLowerCase()),
        9,
      )}`,
  )
  return {
    start: starting.length
      ? `${count(starting.length, 'student')} can start: ${whoOf(starting, students, classes)}.`
      : 'Nobody can start.',
    work: working.length
      ? `${count(working.length, 'student')} may be at work.`
      : 'Nobody can be at work any more, or yet.',
    see: seen.length ? `${seen.join('; ')}, after handing in.` : 'Nothing is shown of a paper.',
  }
}
