import { z } from 'zod'
import { wholes, type Chances } from '../../kit/chances'
import { Fraction, clamp, exact } from '../../kit/exact'

/** What a part of an answer adds under the rule "credits" (QTI mapEntry mappedValue). */
export const credit = z
  .number('A credit is a number.')
  .min(-10, 'Credits go from −10 to 10.')
  .max(10, 'Credits go from −10 to 10.')
  .multipleOf(0.01, 'Credits go in hundredths.')

/** What something wrong takes away, as a share of what something right earns, or as a credit. */
export const wrongCost = z
  .number('What is taken away is a number.')
  .min(0, 'What is taken away is written without a minus.')
  .max(10, 'At most 10 is taken away.')
  .multipleOf(0.01, 'What is taken away goes in hundredths.')
  .default(0)

/** What a part adds by its name; what is not named costs as everything wrong. */
export const creditIn = (
  credits: Readonly<Record<string, number>> | undefined,
  name: string,
  wrongCost: number,
): number => (credits && Object.hasOwn(credits, name) ? credits[name]! : -wrongCost)

/** Credits of what is still there. */
export const creditsKept = <T extends { credits?: Record<string, number> }>(
  part: T,
  isThere: (name: string) => boolean,
): T =>
  part.credits
    ? { ...part, credits: Object.fromEntries(Object.entries(part.credits).filter(([name]) => isThere(name))) }
    : part

/** Bounds of the rule "credits" (QTI mapping lowerBound and upperBound); without an upper one, all that can be had. */
export const creditBounds = {
  lower: z
    .number('The lower bound is a number.')
    .min(-100, 'The lower bound is at least −100.')
    .max(0, 'The lower bound is 0 or below: nobody earns for nothing.')
    .multipleOf(0.01, 'The lower bound goes in hundredths.')
    .default(0),
  upper: z
    .number('The upper bound is a number.')
    .min(0, 'The upper bound is 0 or above.')
    .max(100, 'The upper bound is at most 100.')
    .multipleOf(0.01, 'The upper bound goes in hundredths.')
    .nullable()
    .default(null),
}
export interface CreditBounds {
  lower: number
  upper: number | null
}
export const noBounds: CreditBounds = { lower: 0, upper: null }

/** What is worth everything: all that right parts add, within the bounds. */
export const mostOf = ({ lower, upper }: CreditBounds, all: Fraction): Fraction =>
  upper === null ? all : clamp(exact(lower), all, exact(upper))

/**
 * The share that a sum of credits earns (semantics §2): clamped to the bounds and divided by what is worth everything,
 * −1 to 1. Nothing can be had where nothing is worth everything.
 */
export function shareOf(bounds: CreditBounds, all: Fraction, earned: Fraction): Fraction {
  const most = mostOf(bounds, all)
  const upper = bounds.upper === null ? most : exact(bounds.upper)
  return most.compare(0) > 0
    ? clamp(new Fraction(-1), clamp(exact(bounds.lower), earned, upper).div(most), new Fraction(1))
    : new Fraction(0)
}

/** A fault where no answer earns anything. */
export const nothingToEarn =
  'No answer can earn anything: give something right a credit above 0, and an upper bound above 0.'

export const inHundredths = (value: number | Fraction): number => Math.round(value.valueOf() * 100)

/** So many different sums are told exactly; more are counted in wider steps. */
export const mostSums = 2000

/** Credits in whole steps of so many hundredths. */
export interface Stepped {
  step: number
  rows: number[][]
}

/**
 * The widest step of which all credits are whole numbers; a wider one, to which they are rounded, where sums were more than
 * can be counted while somebody waits.
 * @param rows in hundredths @param spread how far sums may lie apart, in hundredths @param most sums that are told apart
 */
export function stepped(rows: readonly (readonly number[])[], spread: number, most = mostSums): Stepped {
  const common = (a: number, b: number): number => (b ? common(b, a % b) : Math.abs(a))
  const step = Math.max(1, rows.flat().reduce(common, 0), Math.ceil(spread / most))
  return { step, rows: rows.map((row) => row.map((credit) => Math.round(credit / step))) }
}
/** How far sums lie apart of which each row adds one of its credits, or nothing. */
export const spreadOf = (rows: readonly (readonly number[])[]): number =>
  rows.reduce((all, row) => all + Math.max(0, ...row) - Math.min(0, ...row), 0)

/** Sums of credits in hundredths, each with its chance, as shares. @param all what right parts add, in hundredths */
export function sharesOf(bounds: CreditBounds, all: number, sums: Iterable<readonly [number, number]>): Chances {
  const most = inHundredths(mostOf(bounds, new Fraction(all, 100)))
  if (most <= 0) return [{ value: '0', chance: 1 }]
  const lower = inHundredths(bounds.lower)
  const upper = bounds.upper === null ? most : inHundredths(bounds.upper)
  const counts = new Map<number, number>()
  for (const [sum, chance] of sums) {
    const earned = Math.max(-most, Math.min(most, Math.max(lower, Math.min(upper, sum))))
    counts.set(earned, (counts.get(earned) ?? 0) + chance)
  }
  return wholes(counts, most)
}
