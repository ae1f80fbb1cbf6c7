import { exact, pointsText } from '../../../core/kit/exact'
import { authoredAnswer } from '../../../core/marking'
import type { Paper } from '../../../core/paper'
import { commentsFor, kindOf, type Question, type SealedBody } from '../../../core/question'
import type { Edition } from '../../../core/quiz'
import type { KeptAnswer } from '../sittings/attempts'

/** One question of a review. What the viewer may not see is null, so that the page cannot show it by mistake. */
export interface ReviewedQuestion {
  number: number
  item: string
  question: { stem: string, body: SealedBody } | null
  answer: { given: unknown, text: string } | null
  mark: { points: string, possible: string, verdict: 'right' | 'partly' | 'wrong' | 'unanswered' } | null
  key: { text: string, options: string[] } | null
  comments: string[] | null
}

export interface ReviewedSection { title: string, questions: ReviewedQuestion[] }

export interface Sight { questions: boolean, answers: boolean, marks: boolean, key: boolean, comments: boolean }
export const everything: Sight = { questions: true, answers: true, marks: true, key: true, comments: true }

export interface KeptMark { item: string, answered: boolean, fraction: string, points: string, possible: string }

function verdictOf(mark: KeptMark): NonNullable<ReviewedQuestion['mark']>['verdict'] {
  if (!mark.answered) return 'unanswered'
  const fraction = exact(mark.fraction)
  return fraction.compare(1) >= 0 ? 'right' : fraction.compare(0) > 0 ? 'partly' : 'wrong'
}

/** Opaque ids of the options that are right, for showing the key on the paper itself. */
function keyOptions(question: Question, options: Paper['items'][number]['options']): string[] {
  if (!('options' in question.body)) return []
  const right = new Set(question.body.options.filter((option) => ('right' in option ? option.right : option.credit === 1)).map((option) => option.id))
  return options.filter((option) => right.has(option.option)).map((option) => option.id)
}

/** A kept answer to an item in words for people; empty for none. */
export function answerWords(paper: Paper, edition: Edition, itemId: string, response: unknown): string {
  const item = paper.items.find((each) => each.id === itemId)
  if (!item) return ''
  const { question } = edition.questions[item.question]!
  const authored = authoredAnswer(question, item, response)
  return authored === undefined ? '' : kindOf(question.kind).answerText(question.body, authored)
}

/** A paper with what may be seen of it: the one builder for the student's review and the teacher's view. */
export function reviewedSections(paper: Paper, edition: Edition, answers: readonly KeptAnswer[], marks: readonly KeptMark[], sight: Sight): ReviewedSection[] {
  let number = 0
  const answerOf = new Map(answers.map((answer) => [answer.item, answer.response]))
  const markOf = new Map(marks.map((mark) => [mark.item, mark]))
  return edition.content.sections.map((section) => ({
    title: section.title,
    questions: paper.items.filter((item) => item.section === section.id).map((item): ReviewedQuestion => {
      const { question } = edition.questions[item.question]!
      const kind = kindOf(question.kind)
      const given = answerOf.get(item.id) ?? null
      const authored = authoredAnswer(question, item, given)
      const mark = markOf.get(item.id)
      return {
        number: ++number,
        item: item.id,
        question: sight.questions ? { stem: question.stem, body: kind.seal(question.body, item.options) } : null,
        answer: sight.answers ? { given, text: answerWords(paper, edition, item.id, given) } : null,
        mark: sight.marks && mark ? { points: pointsText(mark.points), possible: pointsText(mark.possible), verdict: verdictOf(mark) } : null,
        key: sight.key ? { text: kind.keyText(question.body), options: keyOptions(question, item.options) } : null,
        comments: sight.comments ? commentsFor(question, authored) : null,
      }
    }),
  })).filter((section) => section.questions.length > 0)
}
