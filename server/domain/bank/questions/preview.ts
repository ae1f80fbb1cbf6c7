import { exact } from '../../../../core/kit/exact'
import {
  commentsFor,
  ExpressionError,
  sampleInstances,
  kindOf,
  mapQuestionHtml,
  previewPlaces,
  questionFaults,
  scoreAnswer,
  unreadable,
  type Question,
} from '../../../../core/question'
import { cleanHtml } from '../material/clean-html'
import { shown } from './questions'

/** Ten instances of a varying question; none while its faults keep it from being drawn. */
function samplesOf(question: Question) {
  try {
    return sampleInstances(question, 10)
  } catch (error) {
    if (error instanceof ExpressionError) return []
    throw error
  }
}

export type Preview = ReturnType<typeof previewQuestion>

/** A question as a student would see it, and, with an answer, what it would earn. Nothing is kept. */
export function previewQuestion(written: Question, answer: unknown) {
  const samples = samplesOf(written)
  const clean = mapQuestionHtml(samples[0]?.question ?? written, cleanHtml)
  const question = shown(clean)
  const kind = kindOf(question.kind)
  const placed = previewPlaces(question)
  const body = kind.seal(question.body, placed)
  const read = kind.answer.safeParse(answer)
  const given = read.success && !kind.isEmpty(read.data) ? kind.open(read.data, placed) : null
  const solution = question.keyless ? null : kind.solution(question.body)
  const scored = scoreAnswer(question, {}, given ?? undefined)
  const share = scored.fraction === null ? null : exact(scored.fraction)
  return {
    stem: question.stem,
    body,
    points: question.points,
    key: question.keyless ? '' : kind.keyText(question.body),
    keyless: question.keyless,
    solution: solution === null ? null : kind.close(solution, placed),
    faults: questionFaults(mapQuestionHtml(written, cleanHtml)),
    instances: samples.map(({ values, question: instance }) => ({
      values,
      stem: shown(mapQuestionHtml(instance, cleanHtml)).stem,
      key: question.keyless ? '' : kind.keyText(instance.body),
    })),
    result:
      given === null
        ? null
        : {
            points: share && share.mul(exact(question.points)).valueOf(),
            share: share && share.valueOf(),
            unreadable: unreadable(body, read.data as { text?: string }),
            comments: commentsFor(question, {}, given),
            key: kind.keyText(question.body),
          },
  }
}
