import { normal, seededRandom } from '../kit/random'
import type { Content } from '../quiz/schema'
import { factsOf, type Facts } from './facts'
import { drawnPapers, papersOf } from './papers'

export interface WorkingTime {
  /** Seconds in which half of the students are done, and nine in ten. */
  median: number
  ninety: number
}

/** Spread of the logarithm of a question's time around its median, and of a person's speed (semantics §8), until measured. */
export const questionSpread = 0.5
export const personSpread = 0.3

/**
 * Working times of simulated students: each question lognormal around its median, a person's speed shared over the paper
 * (van der Linden 2006, J. Educ. Behav. Stat. 31); the same each time. Null without a question.
 * @param sittings how many are simulated
 */
export function workingTime(content: Content, facts: Facts, sittings = 4000): WorkingTime | null {
  const { fixed } = papersOf(content, facts)
  const drawn = drawnPapers(content, facts, Math.min(sittings, 500)) ?? [[]]
  if (!fixed.length && !drawn[0]?.length) return null
  const random = seededRandom('00', ['working time'])
  const sure = fixed.map(({ question }) => factsOf(facts, question).seconds)
  const papers = drawn.map((paper) => [...sure, ...paper.map(({ question }) => factsOf(facts, question).seconds)])
  const times = Array.from({ length: sittings }, (_, i) => {
    const alone = papers[i % papers.length]!.reduce(
      (all, seconds) => all + seconds * Math.exp(questionSpread * normal(random)),
      0,
    )
    return alone * Math.exp(personSpread * normal(random))
  }).sort((a, b) => a - b)
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))]!
  return { median: at(0.5), ninety: at(0.9) }
}
