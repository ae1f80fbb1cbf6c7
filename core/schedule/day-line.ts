import { later, minute, plus, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { classEnd, greatestEnd, instantOf, leaks, type Assigned, type Leak } from '../release'
import { facetNames, type FacetName } from '../release/schema'
import { limitsFor, lastStartOf } from './clock'
import { windowEnd, type Schedule } from './schedule'

/** One lane of the day line: a class, or a student whose times differ from their class's. */
export interface SittingLane {
  key: string
  name: string
  note: string
  spans: { window: string; opens: Instant; closes: Instant | null; reach: Instant | null; due: Instant | null }[]
}

/** From when a facet is shown to each group: one span a distinct instant. */
export interface ReleaseLane {
  facet: FacetName
  spans: { from: Instant | null; groups: string[]; leak: Leak | null }[]
}

export interface DayLine {
  starts: Instant
  ends: Instant
  sitting: SittingLane[]
  release: ReleaseLane[]
  dues: Instant[]
}

export interface LaneStudent extends Assigned {
  id: string
  name: string
}
export interface LaneClass {
  id: string
  name: string
  students: number
}

function spansOf(schedule: Schedule): SittingLane['spans'] {
  return schedule.windows.map((window) => {
    const last = lastStartOf(schedule, window)
    return {
      window: window.id,
      opens: window.opens,
      closes: windowEnd(schedule, window),
      due: window.due,
      reach: last === null ? null : limitsFor(schedule, { startedAt: last, window: window.id }).hardStop,
    }
  })
}

function differs(schedule: Schedule): string {
  return schedule.extra > 0 ? `+${Math.round(schedule.extra)} min` : ''
}

function releaseLane(
  rules: Rules,
  facet: FacetName,
  classes: readonly LaneClass[],
  students: readonly LaneStudent[],
  found: readonly Leak[],
): ReleaseLane {
  const spans = new Map<string, ReleaseLane['spans'][number]>()
  for (const group of classes) {
    const schedules = students.filter((student) => student.classes.includes(group.id))
    const window = rules.windows.find((each) => each.classes.includes(group.id))
    if (!window) continue
    const { count, wait } = rules.attempts
    const from = instantOf(rules.release[facet].from, {
      handedInAt: window.opens,
      markedAt: window.opens,
      passed: true,
      due: window.due,
      releasedAt: null,
      viewed: [],
      attemptsUsedAt: count === null ? null : plus(window.opens, (count - 1) * wait * minute),
      classEnd: classEnd(students, [group.id]),
      everyoneEnd: greatestEnd(students),
    })
    const leak =
      found.find(
        (each) =>
          each.facet === facet && each.at === from && schedules.some((student) => each.viewers.includes(student.id)),
      ) ?? null
    const before = spans.get(String(from))
    spans.set(String(from), { from, groups: [...(before?.groups ?? []), group.name], leak: before?.leak ?? leak })
  }
  return { facet, spans: [...spans.values()].sort((a, b) => ((a.from ?? '~') < (b.from ?? '~') ? -1 : 1)) }
}

/** All that happens over time, worked out of the rules: what the day line draws. */
export function dayLine(
  rules: Rules,
  classes: readonly LaneClass[],
  students: readonly LaneStudent[],
  scheduleOfClass: (id: string) => Schedule,
  now: Instant,
): DayLine {
  const used = classes.filter((group) => rules.windows.some((window) => window.classes.includes(group.id)))
  const sitting = [
    ...used.map((group) => ({
      key: group.id,
      name: group.name,
      note: String(group.students),
      spans: spansOf(scheduleOfClass(group.id)),
    })),
    ...students
      .filter((student) => student.schedule.windows.length && differs(student.schedule))
      .map((student) => ({
        key: student.id,
        name: student.name,
        note: differs(student.schedule),
        spans: spansOf(student.schedule),
      })),
  ]
  const found = leaks(rules, students)
  const release = facetNames
    .filter((facet) => rules.release[facet].from.at !== 'never')
    .map((facet) => releaseLane(rules, facet, used, students, found))
  const known = [
    ...sitting.flatMap((lane) => lane.spans.flatMap((span) => [span.opens, span.closes, span.reach])),
    ...release.flatMap((lane) => lane.spans.map((span) => span.from)),
  ].filter((at): at is Instant => Boolean(at))
  const inSight = [now, ...known].sort()
  const first = inSight[0]!
  const last = inSight.at(-1)!
  return {
    starts: first,
    ends: later(last, plus(first, 3 * 60 * minute))!,
    sitting,
    release,
    dues: [...new Set(rules.windows.flatMap((window) => window.due ?? []))].sort(),
  }
}
