import { exact, type Fraction } from '../kit/exact'
import { nearestNumberText } from '../kit/number-text'
import { shuffled, type Random } from '../kit/random'
import { kindOf, scoreAnswer, type Question } from '../question'

/** An answer that earns full credit, in authored ids; for a question that people mark, words for a person to read. */
export function rightAnswer(question: Question): unknown {
  // Nobody speaks here: a recording is one of no sound.
  if (question.kind === 'recording') return { sound: '', seconds: 0 }
  return (
    kindOf(question.kind).solution(question.body) ?? { text: 'An answer in words of its own, for a person to read.' }
  )
}

/** A number beside the key: by about one, or, where one is nothing to it, by its own size. */
function besideIt(key: Fraction, which: number): Fraction {
  const size = key.abs().valueOf()
  const unit = size === 0 || (size > 0.01 && size < 1e6) ? exact(1) : key.abs()
  return key.add(unit.mul(exact([1, -1, 0.4, 2][which]!)))
}

/** An answer such as somebody gives who does not know: of each kind one that usually earns nothing, or little. */
export function wrongAnswer(question: Question, below: (bound: number) => number): unknown {
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo': {
      const wrong = question.body.options.filter((option) => option.credit < 1)
      return { chosen: wrong.length ? [wrong[below(wrong.length)]!.id] : [] }
    }
    case 'choices': {
      const options = question.body.options
      const any = options[below(options.length)]
      const wrong = options.find((option) => !option.right)
      return { chosen: [...new Set([any, wrong].flatMap((option) => option?.id ?? []))] }
    }
    case 'number':
      return {
        text:
          nearestNumberText(besideIt(exact(question.body.answers[0]!.value), below(4))) +
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
    case 'grid': {
      const columns = question.body.columns.map(({ id }) => id)
      return {
        ticks: Object.fromEntries(
          question.body.rows.map(({ id, right }) => [
            id,
            columns.filter((column) => !right.includes(column)).slice(0, 1),
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

/** Whether an answer earns nothing, or waits for a person to say so. */
const earnsNothing = (question: Question, answer: unknown): boolean => {
  const { fraction } = scoreAnswer(question, {}, answer)
  return fraction === null || exact(fraction).compare(0) <= 0
}

/** Answers that are tried before a usual wrong one is taken. */
const mostTried = 40

/**
 * An answer by somebody who does not know: any that earns nothing or less, each as likely as the others (as the forecast
 * has it, core/figures); else the usual wrong one.
 * @returns null, which is none, where every answer that was tried earns something
 */
export function answerForNothing(question: Question, random: Random): unknown {
  for (let tried = 0; tried < mostTried; tried++) {
    const answer = anyAnswer(question, random)
    if (earnsNothing(question, answer)) return answer
  }
  const usual = wrongAnswer(question, random.below)
  return earnsNothing(question, usual) ? usual : null
}

/** A complete answer by somebody who does not look: as the guesser of semantics §8 gives it. What is typed is a word. */
export function anyAnswer(question: Question, random: Random): unknown {
  const { below } = random
  const one = <T extends { id: string }>(of: readonly T[]): string => of[below(of.length)]?.id ?? ''
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo':
      return { chosen: [one(question.body.options)] }
    case 'choices': {
      // Any choice but none, each as likely as the others.
      const { options } = question.body
      const place = 1 + below(2 ** Math.min(30, options.length) - 1)
      return { chosen: options.filter((_, i) => (place >> i) & 1).map(({ id }) => id) }
    }
    case 'matching':
    case 'sorting':
      return { pairs: Object.fromEntries(question.body.items.map(({ id }) => [id, one(question.body.targets)])) }
    case 'grid': {
      const { rows, columns } = question.body
      return {
        ticks: Object.fromEntries(
          rows.map(({ id }, i) => [
            id,
            columns.filter((_, at) => below(2) === 1 || (i === 0 && at === 0)).map((column) => column.id),
          ]),
        ),
      }
    }
    case 'ordering':
      return { order: shuffled(question.body.items, random).map(({ id }) => id) }
    case 'gaps':
      return {
        gaps: Object.fromEntries(
          question.body.gaps.map((gap) => [
            gap.id,
            gap.as === 'number' ? String(below(100)) : gap.as === 'list' ? one(gap.body.options) : 'drift',
          ]),
        ),
      }
    case 'spot': {
      const { by, regions, spots, width, height } = question.body
      return by === 'place'
        ? {
            chosen: shuffled(regions, random)
              .slice(0, spots)
              .map(({ id }) => id),
          }
        : { points: Array.from({ length: spots }, () => ({ x: below(width), y: below(height) })) }
    }
    case 'number':
      return { text: `${below(100)}${question.body.unitAsked ? ` ${question.body.unit}` : ''}` }
    case 'text':
    case 'short':
    case 'written':
    case 'recording':
      return wrongAnswer(question, below)
  }
}
