import type { Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'

/** An attempt as the right to a further one needs it. */
export interface AttemptFact {
  number: number
  /** 'sitting' only while its hard stop has not passed. */
  state: 'sitting' | 'handed' | 'unsent'
  handedInAt: Instant | null
}

/** What somebody has sat of a quiz so far, with how its counting grade stands (`gradeFor`). */
export interface Sat {
  attempts: readonly AttemptFact[]
  /** Null while undecided, and without a pass mark. */
  passed: boolean | null
  /** The counting grade in percent as it is shown; null while undecided, and where there is none. */
  percent: string | null
  /** Something that the counting grade hangs on has still to be marked. */
  undecided: boolean
  /** What was missed, over the attempts so far: whether anything, or not known while something has to be marked. */
  missed?: 'some' | 'none' | 'open'
  /** All places are taken by others, and they have none. */
  full?: boolean
}
export const notSat: Sat = { attempts: [], passed: null, percent: null, undecided: false }

export type More = { more: true } | { more: false; why: 'used' | 'passed' | 'reached' | 'allRight' | 'marking' }

/**
 * Whether the rules give a further attempt, windows and waits aside (semantics §6). Passing, or having
 * reached a share, is decided by the counting grade so far; while that is undecided neither starts anything new.
 */
export function moreAttempts(rule: Rules['attempts'], sat: Sat): More {
  if (rule.count !== null && sat.attempts.length >= rule.count) return { more: false, why: 'used' }
  if (rule.draw === 'missed' && sat.attempts.length) {
    if (sat.missed === 'none') return { more: false, why: 'allRight' }
    if (sat.missed === 'open') return { more: false, why: 'marking' }
  }
  if ((!rule.untilPassed && rule.untilShare === null) || !sat.attempts.length) return { more: true }
  if (rule.untilPassed && sat.passed === true) return { more: false, why: 'passed' }
  // What people read decides, as with passing.
  if (rule.untilShare !== null && sat.percent !== null && Number(sat.percent) >= rule.untilShare)
    return { more: false, why: 'reached' }
  return sat.undecided ? { more: false, why: 'marking' } : { more: true }
}

/**
 * When the last allowed attempt was handed in, or the reason for more fell away (semantics §7); null while one is under
 * way or more may come. The end of the last window, which uses attempts up as well, is the moment's own.
 */
export function attemptsUsedAt(rule: Rules['attempts'], sat: Sat): Instant | null {
  const found = moreAttempts(rule, sat)
  if (found.more || found.why === 'marking' || sat.attempts.some((attempt) => attempt.state === 'sitting')) return null
  return (
    sat.attempts
      .flatMap((attempt) => attempt.handedInAt ?? [])
      .sort()
      .at(-1) ?? null
  )
}
