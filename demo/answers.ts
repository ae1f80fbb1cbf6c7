import { decimalText, exact } from '../core/kit/exact'
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
  return (
    kindOf(question.kind).solution(question.body) ?? { text: 'An answer in words of its own, for a person to read.' }
  )
}

/** An answer that earns nothing, or little. */
export function wrongAnswer(question: Question, below: (bound: number) => number): unknown {
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo': {
      const wrong = question.body.options.filter((option) => option.credit < 1)
      return { chosen: [wrong[below(wrong.length)]!.id] }
    }
    case 'choices': {
      const options = question.body.options
      return {
        chosen: [options[below(options.length)]!.id, options.filter((option) => !option.right)[0]!.id].filter(
          (id, i, all) => all.indexOf(id) === i,
        ),
      }
    }
    case 'number':
      return {
        text:
          decimalText(exact(question.body.answers[0]!.value).add([1, -1, 0.4, 2][below(4)]!), 1) +
          (question.body.unitAsked ? ` ${question.body.unit}` : ''),
      }
    case 'matching':
    case 'sorting': {
      const targets = question.body.targets.map((target) => target.id)
      return {
        pairs: Object.fromEntries(
          question.body.items.map((item) => [
            item.id,
            targets[(targets.indexOf(item.target ?? '') + 1) % targets.length],
          ]),
        ),
      }
    }
    case 'ordering':
      return { order: question.body.items.map((item) => item.id).reverse() }
    case 'gaps':
      return {
        gaps: Object.fromEntries(
          question.body.gaps.map((gap) => [
            gap.id,
            gap.as === 'number'
              ? '99'
              : gap.as === 'list'
                ? (gap.body.options.find((option) => option.credit < 1)?.id ?? '')
                : 'drift',
          ]),
        ),
      }
    case 'spot':
      return question.body.by === 'place'
        ? {
            chosen: question.body.regions
              .filter((region) => !region.right)
              .slice(0, 1)
              .map((region) => region.id),
          }
        : { points: [{ x: 0, y: 0 }] }
    case 'text':
    case 'short':
      return { text: ['drift', 'leeway', 'the bow'][below(3)]! }
    case 'written':
      return { text: 'Not sure.' }
    case 'recording':
      return { sound: '', seconds: 0 }
  }
}
