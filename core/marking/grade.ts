import { makesGrade } from '../rules/counts'
import { Fraction, atLeast, exact, exactText, fixed, roundHalfAway, sum, type Exact } from '../kit/exact'
import type { Rules } from '../quiz/schema'
import type { SectionScores } from './totals'

/** An ended attempt as its grade needs it. Unsent attempts count as zero. */
export interface GradedAttempt {
  number: number
  state: 'handed' | 'unsent'
  /** Points earned and possible; null while marks are missing. */
  score: Exact | null
  possible: Exact
  daysLate: number
  /** What each section earned, before any deduction. */
  sections?: SectionScores
}

/** How a section with a pass mark of its own stands in the counted attempts. */
export interface SectionResult {
  section: string
  /** As people read it, with the quiz's decimals. */
  percent: string
  needed: number
  reached: boolean
}

/** Set by a teacher; the computed grade is kept beside it. */
export interface GradeOverride {
  percent: Exact | null
  excused: boolean
}

/** A grade as it follows from the attempts, or as a teacher has set it. */
interface FormedGrade {
  /** Which attempts make it. */
  counted: number[]
  /** Exact share of the points possible; null without a counted attempt or while undecided. */
  share: Exact | null
  /** What people read: percent with the quiz's decimals, "72.5". */
  percent: string | null
  /** The points that this share makes of the points possible, with the quiz's decimals. */
  points: string | null
  possible: Exact | null
  /** Null while undecided, without a pass mark, or when excused. */
  passed: boolean | null
  undecided: boolean
  excused: boolean
  overridden: boolean
  /** Sections with a pass mark of their own. */
  sections: SectionResult[]
}
export interface Grade extends FormedGrade {
  /** What the attempts make, kept beside what a teacher has set; null where nothing was set. */
  computed: FormedGrade | null
}

type GradeRules = Pick<Rules, 'grade' | 'late' | 'attempts' | 'counts'>

/**
 * The share that an attempt earns: score → cost of a further attempt → late cost → floor 0 (semantics §1). Where handing in
 * counts, that is full credit (§6).
 */
export function shareOf(attempt: GradedAttempt, rules: GradeRules): Fraction | null {
  if (attempt.state === 'unsent') return new Fraction(0)
  if (rules.counts === 'completion') return new Fraction(1)
  if (attempt.score === null) return null
  const possible = exact(attempt.possible)
  if (possible.equals(0)) return new Fraction(0)
  const earned = exact(attempt.score).div(possible)
  const further = exact(rules.attempts.cost)
    .div(100)
    .mul(Math.max(0, attempt.number - 1))
  const late = exact(rules.late.costPerDay).div(100).mul(attempt.daysLate)
  return atLeast(0, atLeast(0, earned.mul(new Fraction(1).sub(further))).sub(earned.mul(late)))
}

/** The score of one attempt in percent as people read it, "47.68": before any cost, with the quiz's decimals. Null without one. */
export function scorePercent(
  attempt: { score: Exact | null; possible: Exact | null },
  decimals: number,
): string | null {
  if (attempt.score === null || attempt.possible === null || exact(attempt.possible).equals(0)) return null
  return fixed(exact(attempt.score).div(exact(attempt.possible)).mul(100), decimals)
}

interface Share {
  attempt: GradedAttempt
  share: Fraction | null
}

/** The attempts that a method counts. Highest and lowest wait for marks that are missing; ties go to the earlier attempt. */
function countedBy(method: Rules['grade']['method'], shares: Share[]): Share[] {
  const first = shares[0]!
  const beats = (better: (a: Fraction, b: Fraction) => boolean) =>
    shares.reduce(
      (best, each) => (best.share && each.share && better(each.share, best.share) ? each : best),
      shares.find((each) => each.share) ?? first,
    )
  switch (method) {
    case 'first':
      return [first]
    case 'latest':
      return [shares.at(-1)!]
    case 'highest':
      return [beats((a, b) => a.compare(b) > 0)]
    case 'lowest':
      return [beats((a, b) => a.compare(b) < 0)]
    case 'average':
      return shares
  }
}

/** A decision can hang on a mark that is missing, whatever attempt it belongs to. */
function isUndecided(method: Rules['grade']['method'], shares: Share[], counted: Share[]): boolean {
  return method === 'first' || method === 'latest'
    ? counted.some((each) => each.share === null)
    : shares.some((each) => each.share === null)
}

const none: FormedGrade = {
  counted: [],
  share: null,
  percent: null,
  points: null,
  possible: null,
  passed: null,
  undecided: false,
  excused: false,
  overridden: false,
  sections: [],
}

/** The counting grade (semantics §6), from exact values, rounded once; a student passes when the displayed grade reaches the pass mark. */
export function gradeFor(attempts: readonly GradedAttempt[], override: GradeOverride | null, rules: GradeRules): Grade {
  const computed = computedGrade(attempts, rules)
  if (override?.excused) return { ...none, excused: true, computed }
  if (override && override.percent !== null) {
    const possible = attempts.at(-1)?.possible ?? null
    return { ...formed(exact(override.percent).div(100), [], possible, rules, true), computed }
  }
  return { ...computed, computed: null }
}

function computedGrade(attempts: readonly GradedAttempt[], rules: GradeRules): FormedGrade {
  if (!attempts.length) return none
  const shares = [...attempts]
    .sort((a, b) => a.number - b.number)
    .map((attempt) => ({ attempt, share: shareOf(attempt, rules) }))
  const counted = countedBy(rules.grade.method, shares)
  const numbers = counted.map(({ attempt }) => attempt.number)
  if (!makesGrade(rules.counts)) return { ...none, counted: numbers }
  if (isUndecided(rules.grade.method, shares, counted)) return { ...none, counted: numbers, undecided: true }
  const share = sum(counted.map((each) => each.share!)).div(counted.length)
  const grade = formed(share, numbers, counted.at(-1)!.attempt.possible, rules, false)
  const sections = rules.counts === 'score' ? sectionsIn(counted, rules) : []
  const fails = grade.passed === true && sections.some(({ reached }) => !reached)
  return { ...grade, sections, passed: fails ? false : grade.passed }
}

/**
 * Sections against their own pass marks (semantics §1): the mean share of the counted attempts, before deductions, as it is
 * displayed. A section that gave no points on any of them asks nothing; an attempt left unsent has earned nothing.
 */
function sectionsIn(counted: readonly Share[], { grade: { sections, decimals } }: GradeRules): SectionResult[] {
  return sections.flatMap(({ section, percent: needed }): SectionResult[] => {
    const shares = counted.flatMap(({ attempt }) => {
      const own = attempt.sections?.[section]
      if (!own || exact(own.possible).equals(0)) return []
      return [attempt.state === 'unsent' ? new Fraction(0) : exact(own.score ?? 0).div(exact(own.possible))]
    })
    if (!shares.length) return []
    const percent = roundHalfAway(sum(shares).div(shares.length).mul(100), decimals)
    return [{ section, percent: fixed(percent, decimals), needed, reached: percent.compare(exact(needed)) >= 0 }]
  })
}

function formed(
  share: Fraction,
  counted: number[],
  possible: Exact | null,
  rules: GradeRules,
  overridden: boolean,
): FormedGrade {
  const { decimals, pass } = rules.grade
  const percent = roundHalfAway(share.mul(100), decimals)
  const points = possible === null ? null : roundHalfAway(share.mul(exact(possible)), decimals)
  const reached = pass === null ? null : pass.by === 'percent' ? percent : points
  return {
    counted,
    share: exactText(share),
    percent: fixed(percent, decimals),
    points: points && fixed(points, decimals),
    possible,
    passed: pass === null || reached === null ? null : reached.compare(exact(pass.value)) >= 0,
    undecided: false,
    excused: false,
    overridden,
    sections: [],
  }
}
