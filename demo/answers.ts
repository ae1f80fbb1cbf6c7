import { seededRandom } from '../core/kit/random'
import type { PaperItem } from '../core/paper'
import { kindOf, type Question } from '../core/question'

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

export function rightAnswer(question: Question): unknown {
  switch (question.kind) {
    case 'choice': case 'trueFalse': return { chosen: question.body.options.filter((option) => option.credit === 1).slice(0, 1).map((option) => option.id) }
    case 'choices': return { chosen: question.body.options.filter((option) => option.right).map((option) => option.id) }
    case 'number': return { text: question.body.answers[0]!.value + (question.body.unitAsked ? ` ${question.body.unit}` : '') }
    case 'text': return { text: question.body.answers[0]!.text }
  }
}

export function wrongAnswer(question: Question, below: (bound: number) => number): unknown {
  switch (question.kind) {
    case 'choice': case 'trueFalse': {
      const wrong = question.body.options.filter((option) => option.credit < 1)
      return { chosen: [wrong[below(wrong.length)]!.id] }
    }
    case 'choices': {
      const options = question.body.options
      return { chosen: [options[below(options.length)]!.id, options.filter((option) => !option.right)[0]!.id].filter((id, i, all) => all.indexOf(id) === i) }
    }
    case 'number': return { text: (Number(question.body.answers[0]!.value) + [1, -1, 0.4, 2][below(4)]!).toFixed(1) + (question.body.unitAsked ? ` ${question.body.unit}` : '') }
    case 'text': return { text: ['drift', 'leeway', 'the bow'][below(3)]! }
  }
}
