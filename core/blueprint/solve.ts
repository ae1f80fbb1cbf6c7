import { groupsOf, type Group } from './groups'
import { Program, type Solved, type Solver, type Term } from './program'
import { fits, type Blueprint, type Candidate } from './schema'

/** What a form does not meet: by how many questions, points or minutes too few (below 0: too many). */
export type Shortfall = { form: number; lacks: number } & (
  { of: 'cell'; cell: string } | { of: 'essential'; objective: string } | { of: 'questions' | 'points' | 'minutes' }
)

export interface Proposal {
  /** By form: the questions chosen, in the order of the lines. */
  forms: string[][]
  /** What could not be met; the forms are the nearest there is. */
  shortfalls: Shortfall[]
  /** Mean facility of each form. */
  facility: number[]
  /** Questions that have to be in and are not among the candidates. */
  missing: string[]
  /** Proven to be best; false where time ran out, and what was best so far is proposed. */
  proven: boolean
}

/** What is asked of a form, as a sum over the groups with a factor each. */
interface Demand {
  factor: (group: Group) => number
  atLeast: number
  atMost: number | null
  /** What one of it missing counts, in questions. */
  weight: number
}

const total = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)
const minutes = (seconds: number) => seconds / 60
const meanFacility = (form: readonly Candidate[]) =>
  form.length ? total(form.map(({ facility }) => facility)) / form.length : 0

function demandsOf(blueprint: Blueprint, groups: readonly Group[]): Demand[] {
  const usual = (of: (group: Group) => number) =>
    total(groups.map((group) => of(group) * group.members.length)) /
      Math.max(1, total(groups.map((group) => group.members.length))) || 1
  const lines = blueprint.cells.map(({ count }, i): Demand => ({
    factor: ({ cells }) => (cells.includes(i) ? 1 : 0),
    ...count,
    weight: 1,
  }))
  const essential = blueprint.essential.map((_, i): Demand => ({
    factor: (group) => (group.essential.includes(i) ? 1 : 0),
    atLeast: 1,
    atMost: null,
    weight: 1,
  }))
  const whole = (bounds: Blueprint['points'], factor: Demand['factor']): Demand[] =>
    bounds ? [{ factor, ...bounds, weight: 1 / usual(factor) }] : []
  return [
    ...lines,
    ...essential,
    ...whole(blueprint.questions, () => 1),
    ...whole(blueprint.points, (group) => group.points),
    ...whole(blueprint.minutes, (group) => minutes(group.seconds)),
  ]
}

/** How many of a group all forms have in common, and how many each has for itself. */
const common = (g: number) => `c${g}`
const own = (g: number, form: number) => `u${g}_${form}`
const short = (d: number, form: number) => `s${d}_${form}`
const over = (d: number, form: number) => `e${d}_${form}`

function modelOf(blueprint: Blueprint, groups: readonly Group[], demands: readonly Demand[]) {
  const program = new Program()
  const forms = Array.from({ length: blueprint.forms }, (_, form) => form)
  const several = blueprint.forms > 1
  groups.forEach((group, g) => {
    const size = group.members.length
    if (several || group.must) program.integer(common(g), group.must ? 1 : size, group.must ? 1 : 0)
    if (group.must) return
    for (const form of forms) program.integer(own(g, form), size)
    if (several) program.require([[1, common(g)], ...forms.map((form): Term => [1, own(g, form)])], '<=', size)
  })
  /** The number of a group on a form, with a factor. */
  const on = (g: number, form: number, factor: number): Term[] => [
    ...(several || groups[g]!.must ? [[factor, common(g)] as const] : []),
    ...(groups[g]!.must ? [] : [[factor, own(g, form)] as const]),
  ]
  const onAll = (form: number, factor: (group: Group) => number): Term[] =>
    groups.flatMap((group, g) => {
      const f = factor(group)
      return f === 0 ? [] : on(g, form, f)
    })

  if (several)
    program.require(
      groups.flatMap((group, g): Term[] => (group.must ? [] : [[1, common(g)]])),
      '<=',
      blueprint.shared,
    )
  const missing: Term[] = []
  for (const form of forms) {
    for (const [d, { factor, atLeast, atMost, weight }] of demands.entries()) {
      const terms = onAll(form, factor)
      if (atLeast > 0) {
        missing.push([weight, program.real(short(d, form))])
        program.require([...terms, [1, short(d, form)]], '>=', atLeast)
      }
      if (atMost !== null && terms.length) {
        missing.push([weight, program.real(over(d, form))])
        program.require([...terms, [-1, over(d, form)]], '<=', atMost)
      }
    }
    const looks = new Map<string, number[]>()
    groups.forEach(({ near }, g) => near && looks.set(near, [...(looks.get(near) ?? []), g]))
    for (const alike of looks.values())
      // Two that have to be in stay in, whatever they look like.
      program.require(
        alike.flatMap((g) => on(g, form, 1)),
        '<=',
        Math.max(1, alike.filter((g) => groups[g]!.must).length),
      )
  }

  const best: Term[] = []
  const { facility } = blueprint
  if (facility !== null)
    for (const form of forms) {
      const deviation = program.real(`d${form}`)
      const terms = onAll(form, (group) => group.facility - facility)
      program.require([...terms, [-1, deviation]], '<=', 0)
      program.require([...terms, [1, deviation]], '>=', 0)
      best.push([1, deviation])
    }
  if (several) {
    // As many questions on each, and the sums of their facilities between two bounds that are drawn together.
    const [low, high] = [program.real('low'), program.real('high')]
    for (const form of forms) {
      const terms = onAll(form, (group) => group.facility)
      program.require([...terms, [-1, low]], '>=', 0)
      program.require([...terms, [-1, high]], '<=', 0)
      if (form)
        program.require(
          [...onAll(form, () => 1), ...onAll(0, () => 1).map(([factor, name]): Term => [-factor, name])],
          '=',
          0,
        )
    }
    best.push([2, high], [-2, low])
  }
  // As few questions as will do, where nobody has said how many.
  if (!blueprint.questions) best.push(...forms.flatMap((form) => onAll(form, () => (several ? 1 : 0.5))))
  return { program, missing, best }
}

/** Seconds for which a program may be worked on, and how near to the best it has to come. */
const patience = { seconds: 20, gap: 0.005 }
/** Facility, summed over a paper, that nobody would see: a forty-question paper’s mean to within 0.05 of a percent. */
const nearEnough = 0.02
/** The same for each of several forms where groups stand for their means: what is left is refined away. */
const nearEnoughFirst = 0.25
const nearly = 1e-6

/**
 * Chooses questions by a blueprint, as a program with whole numbers (semantics §9; van der Linden 2005, Linear Models for
 * Optimal Test Design): first so that as little as possible is missing, then as near to the facility asked for, and as
 * alike between forms, as can be.
 * @param solve a solver for programs in the LP format
 */
export async function solveBlueprint(
  blueprint: Blueprint,
  candidates: readonly Candidate[],
  solve: Solver,
): Promise<Proposal> {
  const there = new Set(candidates.map(({ id }) => id))
  const missing = blueprint.must.filter((id) => !there.has(id))
  const { groups, coarse } = groupsOf(blueprint, candidates)
  const demands = demandsOf(blueprint, groups)
  const { program, missing: lacking, best } = modelOf(blueprint, groups, demands)
  program.minimise(lacking.length ? lacking : best)
  const first = await solve(program.text(), { ...patience, gap: 0, near: nearly })
  if (!first) return { forms: [], shortfalls: [], facility: [], missing, proven: false }
  let found: Solved = first
  if (lacking.length && best.length) {
    const least = total(lacking.map(([weight, name]) => weight * (first.values[name] ?? 0)))
    program.require(lacking, '<=', least + 1e-6)
    program.minimise(best)
    const second = await solve(program.text(), {
      ...patience,
      near: coarse && blueprint.forms > 1 ? nearEnoughFirst * blueprint.forms : nearEnough,
    })
    found = second ? { ...second, proven: second.proven && first.proven } : { ...first, proven: false }
  }
  const forms = picked(blueprint, groups, found)
  const aim = blueprint.facility ?? meanFacility(forms.flat())
  forms.forEach((form, i) => {
    const elsewhere = new Set(forms.flatMap((other, j) => (j === i ? [] : other)))
    forms[i] = refined({ ...blueprint, facility: aim }, groups, form, elsewhere)
  })
  return {
    forms: forms.map((form) => inOrder(blueprint, form).map(({ id }) => id)),
    shortfalls: forms.flatMap((form, i) => shortfallsOf(blueprint, form, i)),
    facility: forms.map(meanFacility),
    missing,
    proven: found.proven,
  }
}

/** Members of the groups in place of their numbers: what all forms have in common first, then each form its own. */
function picked(blueprint: Blueprint, groups: readonly Group[], { values }: Solved): Candidate[][] {
  const forms: Candidate[][] = Array.from({ length: blueprint.forms }, () => [])
  groups.forEach((group, g) => {
    const number = (name: string) => Math.round(values[name] ?? 0)
    let next = number(common(g))
    const shared = group.members.slice(0, next)
    forms.forEach((form, i) => {
      const mine = number(own(g, i))
      form.push(...shared, ...group.members.slice(next, next + mine))
      next += mine
    })
  })
  return forms
}

/** By how much a form is off what it should be in all that a group knows only on average. */
function off(blueprint: Blueprint, form: readonly Candidate[]): number {
  const beyond = (have: number, bounds: Blueprint['points']) =>
    bounds ? Math.max(0, bounds.atLeast - have, bounds.atMost === null ? 0 : have - bounds.atMost) : 0
  const time = beyond(minutes(total(form.map(({ seconds }) => seconds))), blueprint.minutes)
  const { facility } = blueprint
  const hardness = facility === null ? 0 : Math.abs(total(form.map((each) => each.facility - facility)))
  return 1000 * time + hardness
}

/** More tries than this are not made: what is left is told. */
const mostTries = 4000

/** A group stands for its mean: members change places with others of their group while that brings the form nearer. */
function refined(
  blueprint: Blueprint,
  groups: readonly Group[],
  form: Candidate[],
  elsewhere: ReadonlySet<Candidate>,
): Candidate[] {
  let best = form
  let least = off(blueprint, best)
  let tries = mostTries
  for (const { members } of groups) {
    // What other forms hold too stays on all of them, and what they hold does not come here.
    const free = members.filter((member) => !elsewhere.has(member))
    const spare = free.filter((member) => !form.includes(member))
    if (!spare.length || spare.length === free.length) continue
    for (const other of spare) {
      if (least < 1e-9 || tries-- <= 0) return best
      for (const [at, member] of best.entries()) {
        if (!free.includes(member)) continue
        const tried = best.map((each, i) => (i === at ? other : each))
        const now = off(blueprint, tried)
        if (now >= least - 1e-12) continue
        ;[best, least] = [tried, now]
        break
      }
    }
  }
  return best
}

/** By the first line that a question belongs to; what no line asked for comes last. */
function inOrder(blueprint: Blueprint, form: readonly Candidate[]): Candidate[] {
  const line = (candidate: Candidate) => {
    const at = blueprint.cells.findIndex((cell) => fits(cell, candidate))
    return at < 0 ? blueprint.cells.length : at
  }
  return [...form].sort((a, b) => line(a) - line(b) || a.difficulty - b.difficulty || (a.id < b.id ? -1 : 1))
}

/** What a form really lacks: counted anew from the questions on it. */
function shortfallsOf(blueprint: Blueprint, chosen: readonly Candidate[], form: number): Shortfall[] {
  const found: Shortfall[] = []
  const lack = (have: number, atLeast: number, atMost: number | null) =>
    have < atLeast - 1e-9 ? atLeast - have : atMost !== null && have > atMost + 1e-9 ? atMost - have : 0
  for (const cell of blueprint.cells) {
    const have = chosen.filter((candidate) => fits(cell, candidate)).length
    const lacks = lack(have, cell.count.atLeast, cell.count.atMost)
    if (lacks) found.push({ of: 'cell', cell: cell.id, form, lacks })
  }
  for (const objective of blueprint.essential)
    if (!chosen.some((candidate) => candidate.objectives.includes(objective)))
      found.push({ of: 'essential', objective, form, lacks: 1 })
  const sums = {
    questions: [chosen.length, blueprint.questions],
    points: [total(chosen.map(({ points }) => points)), blueprint.points],
    minutes: [total(chosen.map(({ seconds }) => minutes(seconds))), blueprint.minutes],
  } as const
  for (const of of ['questions', 'points', 'minutes'] as const) {
    const [have, bounds] = sums[of]
    const lacks = bounds ? lack(have, bounds.atLeast, bounds.atMost) : 0
    if (lacks) found.push({ of, form, lacks })
  }
  return found
}
