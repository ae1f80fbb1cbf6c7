import { choose } from '../kit/counting'
import { Fraction, fixed, roundToFigures } from '../kit/exact'
import type { Papers, Worth } from './papers'

/** Inclusion chances as they are in papers that were drawn. */
function sharedIn(drawn: readonly Worth[][]): number {
  const seen = new Map<string, number>()
  for (const paper of drawn) for (const { question } of paper) seen.set(question, (seen.get(question) ?? 0) + 1)
  return [...seen.values()].reduce((total, times) => total + (times / drawn.length) ** 2, 0)
}

/**
 * Questions that two papers share on average: Σ πᵢ². From one pool drawing n of N it is n²/N (hypergeometric mean),
 * spread or not: spreading keeps every question's chance. @param drawn papers where pools overlap
 */
export function sharedQuestions({ fixed, pools }: Papers, drawn: readonly Worth[][] | null): number {
  const pooled = drawn
    ? sharedIn(drawn)
    : pools.reduce((total, { n, from }) => total + (from.length ? n ** 2 / from.length : 0), 0)
  return fixed.length + pooled
}

/** Different sets of questions, exactly, as people read it; null where pools overlap. */
export function numberOfPapers({ pools, overlap }: Papers): string | null {
  if (overlap) return null
  const sets = pools.map(({ ways }) =>
    ways
      .map(({ draws }) => draws.reduce((product, { from, n }) => product * choose(from.length, n), 1n))
      .reduce((a, b) => a + b, 0n),
  )
  // A pool that gives nothing leaves one way to draw from it.
  return powerOfTen(sets.reduce((product, count) => product * (count || 1n), 1n))
}

/** "1.7 × 10⁸" to two figures, or the number itself below ten thousand. */
export function powerOfTen(count: bigint): string {
  if (count < 10_000n) return String(count)
  const rounded = roundToFigures(new Fraction(count), 2)
  const power = rounded.toFraction().length - 1
  const superscripts = '⁰¹²³⁴⁵⁶⁷⁸⁹'
  const exponent = [...String(power)].map((digit) => superscripts[Number(digit)]).join('')
  return `${fixed(rounded.div(new Fraction(10).pow(power)!), 1)} × 10${exponent}`
}
