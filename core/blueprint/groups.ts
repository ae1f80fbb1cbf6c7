import { fits, type Blueprint, type Candidate } from './schema'

/** Candidates that are alike to a blueprint: they change places freely. */
export interface Group {
  /** Those that are chosen first come first. */
  members: Candidate[]
  /** Places of the cells that they belong to. */
  cells: number[]
  essential: number[]
  points: number
  seconds: number
  facility: number
  /** What they look like where others look the same; at most one is on a form. Empty where nothing does. */
  near: string
  /** Has to be in. */
  must: boolean
}

/** Groups beyond which alike is taken more widely; each form has a number for each group. */
const mostGroups = 1500
/** Steps in which seconds (as parts of themselves) and facility are told apart, from fine to coarse. */
const steps = [
  { seconds: 0, facility: 0 },
  { seconds: 0.05, facility: 0.01 },
  { seconds: 0.1, facility: 0.02 },
  { seconds: 0.2, facility: 0.05 },
  { seconds: 0.4, facility: 0.1 },
  { seconds: 0.8, facility: 0.2 },
  { seconds: 2, facility: 1 },
] as const

const inSteps = (value: number, step: number) => (step === 0 ? value : Math.round(value / step))
const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length

/** Of candidates that look alike, those names only that more than one of them bears. */
function lookAlikes(candidates: readonly Candidate[], apart: boolean): Set<string> {
  const seen = new Set<string>()
  const again = new Set<string>()
  if (apart)
    for (const { near } of candidates)
      if (near) {
        if (seen.has(near)) again.add(near)
        seen.add(near)
      }
  return again
}

interface Described {
  candidate: Candidate
  cells: number[]
  essential: number[]
  near: string
  must: boolean
}

/** So many times as many as a form can take have to be left where look-alikes are passed over. */
const plenty = 2

/**
 * Without those that look like others, wherever more than enough of the same lines look like nothing: each of them would
 * be a group, and a large bank has thousands.
 */
function withoutNeedless(blueprint: Blueprint, described: Described[]): Described[] {
  const most = blueprint.questions?.atMost ?? Infinity
  const unlike = new Map<string, number>()
  const name = (each: Described) =>
    `${each.cells.join()}|${each.essential.join()}|${blueprint.points ? each.candidate.points : ''}`
  for (const each of described) if (!each.near) unlike.set(name(each), (unlike.get(name(each)) ?? 0) + 1)
  return described.filter((each) => {
    if (!each.near || each.must || !each.cells.length) return true
    const taken = Math.min(most, ...each.cells.map((i) => blueprint.cells[i]!.count.atMost ?? Infinity))
    return (unlike.get(name(each)) ?? 0) < taken * blueprint.forms * plenty
  })
}

/**
 * Candidates grouped by all that a blueprint sees of them, so that a program of ten thousand questions is one of a few
 * hundred numbers (semantics §9). Where there are too many kinds of them, times and facilities that are near are taken
 * as one; the group then stands for its mean.
 * @returns `coarse` where that is so
 */
export function groupsOf(blueprint: Blueprint, candidates: readonly Candidate[]): { groups: Group[]; coarse: boolean } {
  const alike = lookAlikes(candidates, blueprint.apart)
  const must = new Set(blueprint.must)
  const seesTime = blueprint.minutes !== null
  const seesFacility = blueprint.facility !== null || blueprint.forms > 1
  const seesPoints = blueprint.points !== null
  const described = candidates.map((candidate): Described => ({
    candidate,
    cells: blueprint.cells.flatMap((cell, i) => (fits(cell, candidate) ? [i] : [])),
    essential: blueprint.essential.flatMap((objective, i) => (candidate.objectives.includes(objective) ? [i] : [])),
    near: alike.has(candidate.near) ? candidate.near : '',
    must: must.has(candidate.id),
  }))
  // What no line asks for is needed only where so many questions, points or minutes are asked for as well.
  const fills = Boolean(blueprint.questions?.atLeast || blueprint.points?.atLeast || blueprint.minutes?.atLeast)
  const useful = withoutNeedless(
    blueprint,
    described.filter((each) => fills || each.must || each.cells.length || each.essential.length),
  )
  for (const [level, step] of steps.entries()) {
    const groups = new Map<string, typeof useful>()
    for (const each of useful) {
      const { seconds, facility, points, id } = each.candidate
      const key = [
        each.cells.join(),
        each.essential.join(),
        each.near,
        each.must ? id : '',
        seesPoints ? points : '',
        seesTime ? inSteps(step.seconds ? Math.log(seconds) : seconds, step.seconds) : '',
        seesFacility ? inSteps(facility, step.facility) : '',
      ].join('|')
      const group = groups.get(key)
      if (group) group.push(each)
      else groups.set(key, [each])
    }
    if (groups.size > mostGroups / blueprint.forms && level < steps.length - 1) continue
    const made = [...groups.values()].map((group) => ({
      members: group.map(({ candidate }) => candidate).sort((a, b) => a.rank - b.rank || (a.id < b.id ? -1 : 1)),
      cells: group[0]!.cells,
      essential: group[0]!.essential,
      near: group[0]!.near,
      must: group[0]!.must,
      points: mean(group.map(({ candidate }) => candidate.points)),
      seconds: mean(group.map(({ candidate }) => candidate.seconds)),
      facility: mean(group.map(({ candidate }) => candidate.facility)),
    }))
    return { groups: made, coarse: level > 0 }
  }
  return { groups: [], coarse: false }
}
