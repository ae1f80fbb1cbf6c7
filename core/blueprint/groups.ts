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

/** Groups beyond which alike is taken more widely. */
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

/**
 * Candidates grouped by all that a blueprint sees of them, so that a program of ten thousand questions is one of a few
 * hundred numbers (semantics §9). Where there are too many kinds of them, times and facilities that are near are taken
 * as one; the group then stands for its mean.
 */
export function groupsOf(blueprint: Blueprint, candidates: readonly Candidate[]): Group[] {
  const alike = lookAlikes(candidates, blueprint.apart)
  const must = new Set(blueprint.must)
  const seesTime = blueprint.minutes !== null
  const seesFacility = blueprint.facility !== null || blueprint.forms > 1
  const seesPoints = blueprint.points !== null
  const described = candidates.map((candidate) => ({
    candidate,
    cells: blueprint.cells.flatMap((cell, i) => (fits(cell, candidate) ? [i] : [])),
    essential: blueprint.essential.flatMap((objective, i) => (candidate.objectives.includes(objective) ? [i] : [])),
    near: alike.has(candidate.near) ? candidate.near : '',
    must: must.has(candidate.id),
  }))
  // What no line asks for is needed only where so many questions, points or minutes are asked for as well.
  const fills = Boolean(blueprint.questions?.atLeast || blueprint.points?.atLeast || blueprint.minutes?.atLeast)
  const useful = described.filter((each) => fills || each.must || each.cells.length || each.essential.length)
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
    if (groups.size > mostGroups && level < steps.length - 1) continue
    return [...groups.values()].map((group) => ({
      members: group.map(({ candidate }) => candidate).sort((a, b) => a.rank - b.rank || (a.id < b.id ? -1 : 1)),
      cells: group[0]!.cells,
      essential: group[0]!.essential,
      near: group[0]!.near,
      must: group[0]!.must,
      points: mean(group.map(({ candidate }) => candidate.points)),
      seconds: mean(group.map(({ candidate }) => candidate.seconds)),
      facility: mean(group.map(({ candidate }) => candidate.facility)),
    }))
  }
  return []
}
