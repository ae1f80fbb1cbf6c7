import { mapped, meanOf, type Chances } from '../kit/chances'
import { exact } from '../kit/exact'
import { wrongAnswerCost } from '../marking/wrong-answer'
import type { Content } from '../quiz/schema'
import type { WrongCost } from '../rules/content/wrong-cost'
import { facilityOf, factsOf, type Facts, type QuestionFacts } from './facts'
import { possibleOf, paperSpread, spreadOver } from './moments'
import type { Papers, Worth } from './papers'
import { passChance, type GradeRules } from './passing'
import { sectionMarks, type SectionMark } from './section-marks'
import { lineOf, scores, type Line } from './totals'

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

/**
 * What somebody earns who does not know: any answer that earns nothing or less, each as likely as the others, less what a
 * wrong answer costs. A trial run answers so too (core/trial).
 */
function unknowing({ guesses, options }: QuestionFacts, cost: WrongCost): Chances {
  const none = guesses.filter(({ value }) => exact(value).compare(0) <= 0)
  const weight = none.reduce((sum, { chance }) => sum + chance, 0)
  if (weight <= 0) return [{ value: '0', chance: 1 }]
  const off = wrongAnswerCost(options, cost)
  return mapped(
    none.map(({ value, chance }) => ({ value, chance: chance / weight })),
    (share) => (share.equals(0) ? share.sub(off) : share),
  )
}

/** What a question earns for somebody of an ability, as a share of its points. */
function earned(facts: QuestionFacts, cost: WrongCost, ability: number | null): Chances {
  const knows = chanceRight(facts, ability)
  return [
    ...unknowing(facts, cost).map(({ value, chance }) => ({ value, chance: chance * (1 - knows) })),
    { value: '1', chance: knows },
  ]
}

/** The totals of somebody of one ability. */
function lineAt(
  { wrongCost }: Content,
  papers: Papers,
  drawn: readonly Worth[][] | null,
  facts: Facts,
  ability: number | null,
  marks: readonly SectionMark[],
): Line {
  return lineOf(
    papers,
    drawn,
    ({ question, points }) =>
      mapped(earned(factsOf(facts, question), wrongCost, ability), (share) => share.mul(exact(points))),
    marks,
  )
}

/**
 * The scores that a class like this would get (semantics §8): Poisson–binomial over the questions, pools by the same
 * dynamic programme as guessing, mixed over abilities where questions are calibrated; wrong answers and sections count as
 * the rules have them. Null without points.
 */
export function forecast(
  content: Content,
  rules: GradeRules,
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
    const line = lineAt(content, papers, drawn, facts, ability, sectionMarks(rules))
    for (const { points, chance } of scores(line)) {
      const share = points / possible
      twentieths[Math.min(19, Math.floor(share * 20 + 1e-9))]! += weight * chance
      mean += weight * chance * share
      square += weight * chance * share * share
    }
    if (rules.grade.pass) passing += weight * passChance(line, possible, 1, rules)
  }
  const variance = Math.max(0, square - mean * mean)
  // Over papers, by the same chances as over students.
  const expects = ({ question, points }: Worth) =>
    points *
    at.reduce(
      (sum, { at: ability, weight }) =>
        sum + weight * meanOf(earned(factsOf(facts, question), content.wrongCost, ability)),
      0,
    )
  const between = papers.overlap && drawn ? spreadOver(papers.fixed, drawn, expects) : paperSpread(papers, expects)
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
