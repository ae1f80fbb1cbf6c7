import { Fraction, exactText, type Exact } from '../kit/exact'
import { isBlank } from './allowed-html'
import { kindOf } from './kinds'
import type { PartScore } from './kinds/kind'
import type { Question } from './schema'
import { instanceOf } from './vary/instance'
import type { Values } from './vary/schema'

/** `fraction` is null while a person has to decide, and for good where there is no key. */
export interface ScoredAnswer {
  fraction: Exact | null
  answered: boolean
  parts: PartScore[]
}

/**
 * Scores an answer (in authored ids) as a fraction of the points, −1 to 1. Unanswered or malformed scores 0,
 * never a penalty (semantics §2).
 * @param values of the paper, where the question varies
 */
export function scoreAnswer(question: Question, values: Values, answer: unknown): ScoredAnswer {
  const kind = kindOf(question.kind)
  const read = kind.answer.safeParse(answer)
  if (!read.success || kind.isEmpty(read.data))
    return { fraction: exactText(new Fraction(0)), answered: false, parts: [] }
  if (question.keyless) return { fraction: null, answered: true, parts: [] }
  if (kind.byHand) return { fraction: null, answered: true, parts: [] }
  const { fraction, parts } = kind.score(instanceOf(question, values).body, read.data)
  return { fraction: exactText(fraction), answered: true, parts }
}

/** Comments that an answer earned, in the order in which they are read: of the option, right or wrong, general. */
export function commentsFor(question: Question, values: Values, answer: unknown): string[] {
  const kind = kindOf(question.kind)
  const instance = instanceOf(question, values)
  const scored = scoreAnswer(instance, {}, answer)
  const own = scored.answered ? kind.comments(instance.body, answer) : []
  const verdict =
    scored.fraction === null ? '' : scored.fraction === '1' ? instance.comments.right : instance.comments.wrong
  return [...own, verdict, instance.comments.general].filter((comment) => !isBlank(comment))
}
