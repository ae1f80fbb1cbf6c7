import { seededRandom, shuffledAround, type Random } from '../kit/random'
import type { Question } from './schema'

interface Optional {
  fixed: boolean
}
/** Options in another order for good; fixed ones keep their places. */
const inNewOrder = <B extends { options: readonly Optional[]; inOrder?: boolean }>(body: B, random: Random): B =>
  body.inOrder ? body : { ...body, options: shuffledAround(body.options, (option) => option.fixed, random) }

/**
 * A question whose options stand in another order from now on: for an author who always writes the right one first. What
 * keeps its order (true and false, numbers in a row) stays as it is, and so does what every paper shuffles by itself.
 * @param seed decides the order, with the question's own words
 */
export function withAnswersShuffled(question: Question, seed: number): Question {
  const random = seededRandom('00', [String(seed), question.stem])
  switch (question.kind) {
    case 'choice':
      return { ...question, body: inNewOrder(question.body, random) }
    case 'choices':
      return { ...question, body: inNewOrder(question.body, random) }
    case 'gaps':
      return {
        ...question,
        body: {
          ...question.body,
          gaps: question.body.gaps.map((gap) =>
            gap.as === 'list' ? { ...gap, body: inNewOrder(gap.body, random) } : gap,
          ),
        },
      }
    default:
      return question
  }
}
