import { seededRandom } from '../core/kit/random'
import type { PaperItem } from '../core/paper'
import { kindOf, type Question } from '../core/question'
import { rightAnswer, wrongAnswer } from '../core/trial'

/**
 * Invented answers: right with a chance that grows with the student's ability (0–1) and falls with difficulty;
 * otherwise a distractor, a slip, or nothing.
 * @returns an answer in the paper's own ids, or null for none
 */
export function inventedAnswer(question: Question, item: PaperItem, student: string, ability: number): unknown {
  const random = seededRandom('5eed', [student, item.question])
  const chance = (share: number) => random.below(1000) < share * 1000
  if (chance(0.03)) return null
  const knows = chance(Math.min(0.97, Math.max(0.1, ability + (3 - question.difficulty) * 0.12)))
  return kindOf(question.kind).close(knows ? rightAnswer(question) : wrongAnswer(question, random.below), item.options)
}
