import { exact } from '../kit/exact'
import type { Rules } from '../quiz/schema'
import { facilityOf, factsOf, type Facts, type QuestionFacts } from './facts'
import { possibleOf, paperSpread, spreadOver } from './moments'
import type { Papers, Worth } from './papers'
import { passChance } from './passing'
import { scores, totalsOf, totalsOver, type Totals } from './totals'

/** Abilities in a class, in logits: the normal distribution that calibration found. */
export interface Abilities {
  mean: number
  deviation: number
}

export interface Forecast {
  /** Share of the papers whose score lies in each twentieth of the points possible; the last one holds full marks. */
  twentieths: number[]
  /** Expected share of the points, and the standard deviation of one student's share. */
  mean: number
  deviation: number
  /** Share of a class that would pass at the first attempt; null without a pass mark. */
  passes: number | null
  /** Standard deviation of the share that comes from which questions are drawn, and its part of the whole variance. */
  luck: { deviation: number; part: number }
  /** Questions whose facility is measured, those that are calibrated, and all that a paper may hold. */
  measured: number
  calibrated: number
  questions: number
}

/** Points at which abilities are looked at, three deviations either way: a sum in equal steps, weights made to add up to 1. */
const nodes = 25
function abilityNodes({ mean, deviation }: Abilities): { at: number; weight: number }[] {
  if (deviation <= 0) return [{ at: mean, weight: 1 }]
  const raw = Array.from({ length: nodes }, (_, i) => {
    const z = -4 + (8 * i) / (nodes - 1)
    return { at: mean + z * deviation, weight: Math.exp((-z * z) / 2) }
  })
  const all = raw.reduce((total, { weight }) => total + weight, 0)
  return raw.map(({ at, weight }) => ({ at, weight: weight / all }))
}

/** The chance that somebody of this ability gets it right (Rasch): 1/(1 + exp(b − θ)); without calibration, the facility. */
export function chanceRight(facts: QuestionFacts, ability: number | null): number {
  const { logit = null } = facts
  return logit === null || ability === null ? facilityOf(facts) : 1 / (1 + Math.exp(logit - ability))
}

/** The totals of somebody of one ability. */
function totalsAt(papers: Papers, drawn: readonly Worth[][] | null, facts: Facts, ability: number | null): Totals {
  const outcomes = ({ question, points }: Worth) => {
    const chance = chanceRight(factsOf(facts, question), ability)
    return [
      { value: '0', chance: 1 - chance },
      { value: exact(points).toFraction(), chance },
    ]
  }
  return papers.overlap && drawn ? totalsOver(papers.fixed, drawn, outcomes) : totalsOf(papers, outcomes)
}

/**
 * The scores that a class like this would get (semantics §8): Poisson–binomial over the questions, pools by the same
 * dynamic programme as guessing, mixed over abilities where questions are calibrated. Null without points.
 */
export function forecast(
  rules: Pick<Rules, 'grade' | 'late' | 'attempts' | 'counts'>,
  papers: Papers,
  drawn: readonly Worth[][] | null,
  facts: Facts,
  abilities: Abilities | null,
): Forecast | null {
  const possible = possibleOf(papers)
  if (possible <= 0) return null
  const used = [
    ...new Set([...papers.fixed, ...papers.pools.flatMap((pool) => pool.from)].map((each) => each.question)),
  ]
  const calibrated = used.filter((question) => (factsOf(facts, question).logit ?? null) !== null).length
  const at = abilities && calibrated ? abilityNodes(abilities) : [{ at: null, weight: 1 }]
  const twentieths = Array.from({ length: 20 }, () => 0)
  let [mean, square, passing] = [0, 0, 0]
  for (const { at: ability, weight } of at) {
    const totals = totalsAt(papers, drawn, facts, ability)
    for (const { points, chance } of scores(totals)) {
      const share = points / possible
      twentieths[Math.min(19, Math.floor(share * 20 + 1e-9))]! += weight * chance
      mean += weight * chance * share
      square += weight * chance * share * share
    }
    if (rules.grade.pass) passing += weight * passChance(totals, possible, 1, rules)
  }
  const variance = Math.max(0, square - mean * mean)
  const between = papers.overlap && drawn ? spreadOver(papers.fixed, drawn, facts) : paperSpread(papers, facts)
  const luck = between?.deviation ?? 0
  return {
    twentieths,
    mean,
    deviation: Math.sqrt(variance),
    passes: rules.grade.pass ? passing : null,
    luck: { deviation: luck, part: variance > 0 ? Math.min(1, luck ** 2 / variance) : 0 },
    measured: used.filter((question) => factsOf(facts, question).right).length,
    calibrated,
    questions: used.length,
  }
}
