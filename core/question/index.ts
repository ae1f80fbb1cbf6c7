import { Fraction, exactText, type Exact } from '../kit/exact'
import { isBlank } from './html'
import { kindOf, kinds, type KindName } from './kinds'
import { placedAsWritten, type PartScore } from './kinds/kind'
import type { Question } from './schema'

export { question, id, points, type Question } from './schema'
export { kinds, kindNames, kindOf, type KindName, type PlacedOption, type SealedBody } from './kinds'
export { plainText, isBlank } from './html'
export { unreadable } from './unreadable'
export { letter } from './kinds/letter'

export interface ScoredAnswer { fraction: Exact, answered: boolean, parts: PartScore[] }

/** Values of a varying question's variables on one paper. */
export type Values = Record<string, never>

/** A fresh question of a kind, to begin writing with. */
export function blankQuestion(kind: KindName): Question {
  return {
    kind, body: kinds[kind].blank(), internalName: '', language: 'en', stem: '', points: 1, seconds: 60, difficulty: 3,
    objectives: [], tags: [], source: '', comments: { right: '', wrong: '', general: '' },
  } as Question
}

/** Sentences about what keeps a question from being used; empty when all is well. */
export function questionFaults(question: Question): string[] {
  const faults = isBlank(question.stem) ? ['The question has no text. Write what is asked.'] : []
  return [...faults, ...kindOf(question.kind).faults(question.body)]
}

/**
 * Scores an answer (in authored ids) as a fraction of the points, −1 to 1. Unanswered or malformed scores 0,
 * never a penalty (semantics §2).
 */
export function scoreAnswer(question: Question, _values: Values, answer: unknown): ScoredAnswer {
  const kind = kindOf(question.kind)
  const read = kind.answer.safeParse(answer)
  if (!read.success || kind.isEmpty(read.data)) return { fraction: exactText(new Fraction(0)), answered: false, parts: [] }
  const { fraction, parts } = kind.score(question.body, read.data)
  return { fraction: exactText(fraction), answered: true, parts }
}

/** Comments that an answer earned, in the order in which they are read: of the option, right or wrong, general. */
export function commentsFor(question: Question, answer: unknown): string[] {
  const kind = kindOf(question.kind)
  const scored = scoreAnswer(question, {}, answer)
  const own = scored.answered ? kind.comments(question.body, answer) : []
  const verdict = scored.fraction === '1' ? question.comments.right : question.comments.wrong
  return [...own, verdict, question.comments.general].filter((comment) => !isBlank(comment))
}

/** All HTML of a question, mapped: for cleaning, and for rendering maths. */
export function mapQuestionHtml(question: Question, map: (html: string) => string): Question {
  return {
    ...question,
    stem: map(question.stem),
    body: kindOf(question.kind).mapHtml(question.body, map),
    comments: { right: map(question.comments.right), wrong: map(question.comments.wrong), general: map(question.comments.general) },
  } as Question
}

/** The question as a student sees it, in the authored order and with authored ids: for the editor's own preview. */
export function previewBody(question: Question) {
  const kind = kindOf(question.kind)
  return kind.seal(question.body, placedAsWritten(kind.options(question.body)))
}
