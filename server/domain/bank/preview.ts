import { exact } from '../../../core/kit/exact'
import { commentsFor, kindOf, mapQuestionHtml, previewBody, questionFaults, scoreAnswer, unreadable, type Question } from '../../../core/question'
import { cleanHtml } from './html'
import { shown } from './questions'

/** A question as a student would see it, and, with an answer, what it would earn. Nothing is kept. */
export function previewQuestion(written: Question, answer: unknown) {
  const question = shown(mapQuestionHtml(written, cleanHtml))
  const kind = kindOf(question.kind)
  const body = previewBody(question)
  const read = kind.answer.safeParse(answer)
  const given = read.success && !kind.isEmpty(read.data) ? read.data : null
  const scored = scoreAnswer(question, {}, answer)
  const share = scored.fraction === null ? null : exact(scored.fraction)
  return {
    stem: question.stem, body, points: question.points, faults: questionFaults(question),
    result: given === null ? null : {
      points: share && share.mul(exact(question.points)).valueOf(),
      share: share && share.valueOf(),
      unreadable: unreadable(body, given as { text?: string }),
      comments: commentsFor(question, {}, answer),
      key: kind.keyText(question.body),
    },
  }
}

