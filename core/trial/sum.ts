import type { Cut, TrialSitting } from './sit'

/** What a trial run tells, added up over its sittings. */
export interface TrialSum {
  sat: number
  /** Who could not sit it at all, by why. */
  failed: Record<NonNullable<TrialSitting['failed']>, number>
  /** Sittings whose share lies in each twentieth of the points possible; the last one holds full marks. */
  twentieths: number[]
  /** Sum of the shares, and of their squares, over those that have one. */
  shares: { n: number; sum: number; squares: number }
  /** Of those with a pass mark. */
  passed: { n: number; passed: number }
  minutes: number[]
  /** Sittings in which something was cut off, by what cut first; and questions in them. */
  cut: Record<Cut, { sittings: number; questions: number }>
  /** Sittings that went on after the deadline. */
  over: number
  /** How often each question came. */
  came: Record<string, number>
}

const cuts: readonly Cut[] = ['clock', 'window', 'due', 'section', 'connection']

export const emptySum = (): TrialSum => ({
  sat: 0,
  failed: { 'no start': 0, 'no paper': 0 },
  twentieths: Array.from({ length: 20 }, () => 0),
  shares: { n: 0, sum: 0, squares: 0 },
  passed: { n: 0, passed: 0 },
  minutes: [],
  cut: Object.fromEntries(cuts.map((cut) => [cut, { sittings: 0, questions: 0 }])) as TrialSum['cut'],
  over: 0,
  came: {},
})

/** The sum of some sittings. */
export function sumOf(sittings: readonly TrialSitting[]): TrialSum {
  const sum = emptySum()
  for (const each of sittings) {
    if (each.failed) {
      sum.failed[each.failed]++
      continue
    }
    sum.sat++
    sum.minutes.push(each.minutes)
    if (each.share !== null) {
      sum.twentieths[Math.min(19, Math.max(0, Math.floor(each.share * 20 + 1e-9)))]!++
      sum.shares.n++
      sum.shares.sum += each.share
      sum.shares.squares += each.share ** 2
    }
    if (each.passed !== null) {
      sum.passed.n++
      if (each.passed) sum.passed.passed++
    }
    if (each.cut) {
      sum.cut[each.cut].sittings++
      sum.cut[each.cut].questions += each.missed
    }
    if (each.over > 0) sum.over++
    for (const question of each.questions) sum.came[question] = (sum.came[question] ?? 0) + 1
  }
  return sum
}

const added = <K extends string>(a: Readonly<Record<K, number>>, b: Readonly<Record<K, number>>): Record<K, number> => {
  const all: Record<string, number> = { ...a }
  for (const [key, n] of Object.entries<number>(b)) all[key] = (all[key] ?? 0) + n
  return all
}

/** Two sums as one: sittings are simulated some at a time. */
export function plusSum(a: TrialSum, b: TrialSum): TrialSum {
  return {
    sat: a.sat + b.sat,
    failed: added(a.failed, b.failed),
    twentieths: a.twentieths.map((n, i) => n + b.twentieths[i]!),
    shares: added(a.shares, b.shares),
    passed: added(a.passed, b.passed),
    minutes: [...a.minutes, ...b.minutes],
    cut: Object.fromEntries(cuts.map((cut) => [cut, added(a.cut[cut], b.cut[cut])])) as TrialSum['cut'],
    over: a.over + b.over,
    came: added(a.came, b.came),
  }
}

/** The minutes within which a share of the sittings was done; null without one. @param share 0 to 1 */
export function minutesAt({ minutes }: Pick<TrialSum, 'minutes'>, share: number): number | null {
  const sorted = [...minutes].sort((a, b) => a - b)
  return sorted.length ? sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]! : null
}
