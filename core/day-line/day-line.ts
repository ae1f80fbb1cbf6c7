import { needWords } from '../people/needs'
import { releaseOf } from '../release/under-rules'
import { exact, fixed } from '../kit/exact'
import { few } from '../kit/phrases'
import { later, minute, plus, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { earliestSight, endsOf, leaks, type Ends, type Leak } from '../release'
import type { DayMark } from '../rules/rule'
import { marksOf } from '../rules/windows'
import { facetNames, type FacetName } from '../release/schema'
import type { AssignedStudent } from '../schedule/assigned'
import { furthest, lastStartOf } from '../schedule/clock'
import { windowEnd, type Schedule } from '../schedule/schedule'

/** A window on a lane: from when to when, how far a running clock may reach, and what its rules mark. */
export interface SittingSpan {
  window: string
  opens: Instant
  closes: Instant | null
  reach: Instant | null
  marks: DayMark[]
}

/** One lane of the day line: a class, or students whose times differ from their class's in the same way. */
export interface SittingLane {
  key: string
  name: string
  /** Students of a lane for several, by name; empty for a class. */
  students: string[]
  note: string
  /** Why a student's times differ from their class's: each cause in a few words. */
  causes: string[]
  isClass: boolean
  spans: SittingSpan[]
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

export type LaneStudent = AssignedStudent
export interface LaneClass {
  id: string
  name: string
  students: number
}

/** What a student's windows are on the line. */
export function spansOf(schedule: Schedule): SittingLane['spans'] {
  return schedule.windows.map((window) => {
    const last = lastStartOf(schedule, window)
    return {
      window: window.id,
      opens: window.opens,
      closes: windowEnd(schedule, window),
      marks: marksOf(window, schedule),
      reach: last === null ? null : furthest(schedule, last, window).hardStop,
    }
  })
}

const extraWords = (schedule: Schedule): string => (schedule.extra > 0 ? `+${fixed(exact(schedule.extra), 0)} min` : '')

/** Why a student's times, or how often they may sit, are not those of their class. */
export function causesOf({ id, schedule }: LaneStudent): string[] {
  const own = schedule.windows.some((window) => window.students.includes(id))
  const ofGroup = !own && schedule.windows.some((window) => window.groups.length)
  const given = schedule.given.flatMap((each) => {
    const words = needWords({ ...each, language: null, largerType: false })
    const whose = each.by === 'quiz' ? 'for this quiz' : each.by ? `by the group ${each.by.group}` : ''
    return words.length ? [[words.join(', '), ...(whose ? [whose] : [])].join(', ')] : []
  })
  return [...(own ? ['a window of their own'] : []), ...(ofGroup ? ['a window of their group'] : []), ...given]
}

/** Students whose times are not those of their class: those that differ alike share a lane. */
function studentLanes(students: readonly LaneStudent[]): SittingLane[] {
  const alike = new Map<string, SittingLane>()
  for (const student of students) {
    const causes = causesOf(student)
    if (!student.schedule.windows.length || !causes.length) continue
    const spans = spansOf(student.schedule)
    const note = extraWords(student.schedule)
    const key = JSON.stringify([causes, note, spans])
    const lane = alike.get(key)
    if (lane) lane.students.push(student.name)
    else alike.set(key, { key: student.id, name: '', students: [student.name], note, causes, isClass: false, spans })
  }
  return [...alike.values()].map((lane) => ({ ...lane, name: few(lane.students, 1) }))
}

function releaseLane(
  rules: Rules,
  facet: FacetName,
  classes: readonly LaneClass[],
  ends: Ends,
  scheduleOfClass: (id: string) => Schedule,
  leakOf: (group: string, from: Instant | null) => Leak | null,
): ReleaseLane {
  const spans = new Map<Instant | null, ReleaseLane['spans'][number]>()
  for (const group of classes) {
    const from = earliestSight(rules, facet, scheduleOfClass(group.id), [group.id], ends)
    const before = spans.get(from)
    spans.set(from, {
      from,
      groups: [...(before?.groups ?? []), group.name],
      leak: before?.leak ?? leakOf(group.id, from),
    })
  }
  return { facet, spans: [...spans.values()].sort(bySight) }
}

/** Earliest first; what is not foreseen comes last. */
function bySight(a: { from: Instant | null }, b: { from: Instant | null }): number {
  if (a.from === b.from) return 0
  if (a.from === null || b.from === null) return a.from === null ? 1 : -1
  return a.from < b.from ? -1 : 1
}

/** The leak of a facet that the students of a class make at an instant, or null. */
function leakFinder(found: readonly Leak[], students: readonly LaneStudent[]) {
  const classesOfStudent = new Map(students.map((student) => [student.id, student.classes]))
  const known = new Map<string, Leak>()
  for (const leak of found)
    for (const viewer of leak.viewers)
      for (const group of classesOfStudent.get(viewer) ?? []) {
        const key = `${leak.facet} ${group} ${leak.at}`
        if (!known.has(key)) known.set(key, leak)
      }
  return (facet: FacetName) => (group: string, from: Instant | null) => known.get(`${facet} ${group} ${from}`) ?? null
}

/** Due times, once each: they are drawn over all lanes. */
function duesOf(lanes: readonly SittingLane[]): Instant[] {
  const marks = lanes.flatMap((lane) => lane.spans.flatMap((span) => span.marks))
  return [...new Set(marks.filter((mark) => mark.sort === 'due').map((mark) => mark.at))].sort()
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
      students: [],
      note: String(group.students),
      causes: [],
      isClass: true,
      spans: spansOf(scheduleOfClass(group.id)),
    })),
    ...studentLanes(students),
  ]
  const leakOf = leakFinder(leaks(rules, students), students)
  const ends = endsOf(students)
  const release = facetNames
    .filter((facet) => releaseOf(rules)[facet].from.at !== 'never')
    .map((facet) => releaseLane(rules, facet, used, ends, scheduleOfClass, leakOf(facet)))
  const known = [
    ...sitting.flatMap((lane) =>
      lane.spans.flatMap((span) => [span.opens, span.closes, span.reach, ...span.marks.map((mark) => mark.at)]),
    ),
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
    dues: duesOf(sitting),
  }
}
