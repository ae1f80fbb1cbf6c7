import { isBlank } from '../../../core/question/allowed-html'
import { escapeHtml } from '../../../core/kit/escape'
import { exact, pointsText } from '../../../core/kit/exact'
import { authoredAnswer } from '../../../core/marking'
import { languageOf, questionOnPaper, type Paper, type PaperItem } from '../../../core/paper'
import {
  commentsFor,
  kindOf,
  mapQuestionHtml,
  stimulusAs,
  type Question,
  type SealedBody,
} from '../../../core/question'
import type { Edition } from '../../../core/quiz'
import { renderMaths } from '../bank/material/clean-html'
import type { KeptAnswer } from '../sittings/attempts'

export type Verdict = 'right' | 'partly' | 'wrong' | 'unanswered' | 'waiting'

/** One question of a review. What the viewer may not see is null, so that the page cannot show it by mistake. */
export interface ReviewedQuestion {
  number: number
  item: string
  /** What it shares with those after it; given with the first of them. */
  stimulus: { html: string; language: string } | null
  question: { stem: string; body: SealedBody; language: string } | null
  answer: { given: unknown; text: string } | null
  /** `points` is null while somebody has to mark it. */
  mark: {
    points: string | null
    possible: string
    verdict: Verdict
    byHand: boolean
    /** How often it was checked, and hints given, while it was sat. */
    checks: number
    hints: number
  } | null
  /** In words, and as an answer on this paper that earns full credit; null where people decide. */
  key: { text: string; given: unknown } | null
  comments: string[] | null
}

export interface ReviewedSection {
  title: string
  questions: ReviewedQuestion[]
}

/** Of which questions a facet is shown: of all, of those that were not fully right, of none. */
export type Shown = boolean | 'wrong'
export interface Sight {
  questions: Shown
  answers: Shown
  marks: Shown
  key: Shown
  comments: Shown
}
export const everything: Sight = { questions: true, answers: true, marks: true, key: true, comments: true }

export interface KeptMark {
  item: string
  answered: boolean
  fraction: string | null
  points: string | null
  possible: string
  checks: number
  hints: number
  /** By hand. */ comment: string | null
}

/** Without a key, and in a survey, nothing is marked: there are no points, and none are waited for. */
const isMarked = (mark: KeptMark) => mark.fraction !== null || mark.points === null

function verdictOf(mark: KeptMark): Verdict {
  if (mark.fraction === null) return 'waiting'
  if (!mark.answered && mark.comment === null) return 'unanswered'
  const fraction = exact(mark.fraction)
  return fraction.compare(1) >= 0 ? 'right' : fraction.compare(0) > 0 ? 'partly' : 'wrong'
}

/** A question as it stands on a paper: in the reader's language, with its values, maths rendered. */
function questionOn(edition: Edition, item: PaperItem, language: string | null): Question {
  const question = questionOnPaper(edition, item, languageOf(edition, language))
  return question.vary ? mapQuestionHtml(question, renderMaths) : question
}

/** An answer that earns full credit, in the ids of the paper. */
function solutionOn(question: Question, item: PaperItem): unknown {
  const kind = kindOf(question.kind)
  const solution = kind.solution(question.body)
  return solution === null ? null : kind.close(solution, item.options)
}

const asParagraphs = (text: string) =>
  text
    .split(/\n+/)
    .map((line) => `<p>${escapeHtml(line)}</p>`)
    .join('')

/** A kept answer to an item in words for people; empty for none. */
export function answerWords(
  paper: Paper,
  edition: Edition,
  itemId: string,
  response: unknown,
  language: string | null = null,
): string {
  const item = paper.items.find((each) => each.id === itemId)
  if (!item) return ''
  const question = questionOn(edition, item, language)
  // What was set aside may be no answer at all: then it is shown as it came.
  if (response !== null && !kindOf(question.kind).answer.safeParse(response).success) return JSON.stringify(response)
  const authored = authoredAnswer(question, item, response)
  return authored === undefined ? '' : kindOf(question.kind).answerText(question.body, authored)
}

/** Comments that an answer of a sitting under way earned, where the rules show them at once. @param response in the ids of the paper */
export function commentsOn(edition: Edition, item: PaperItem, response: unknown, language: string | null): string[] {
  const question = questionOn(edition, item, language)
  return commentsFor(question, {}, authoredAnswer(question, item, response))
}

/** The hints of a question as it stands on a paper. */
export const hintsOn = (edition: Edition, item: PaperItem, language: string | null): string[] =>
  questionOn(edition, item, language).hints.filter((hint) => !isBlank(hint))

/**
 * A paper with what may be seen of it: the one builder for the student's review and the teacher's view.
 * @param language in which the reader reads; null is as each question was written
 */
export function reviewedSections(
  paper: Paper,
  edition: Edition,
  answers: readonly KeptAnswer[],
  marks: readonly KeptMark[],
  sight: Sight,
  language: string | null = null,
): ReviewedSection[] {
  let number = 0
  let before: string | null = null
  const answerOf = new Map(answers.map((answer) => [answer.item, answer.response]))
  const markOf = new Map(marks.map((mark) => [mark.item, mark]))
  return edition.content.sections
    .map((section) => ({
      title: section.title,
      questions: paper.items
        .filter((item) => item.section === section.id)
        .map((item): ReviewedQuestion => {
          const question = questionOn(edition, item, language)
          const shared =
            question.stimulus !== null && question.stimulus !== before ? edition.stimuli[question.stimulus] : undefined
          before = question.stimulus
          const kind = kindOf(question.kind)
          const given = answerOf.get(item.id) ?? null
          const authored = authoredAnswer(question, item, given)
          const mark = markOf.get(item.id)
          const isRight = mark !== undefined && isMarked(mark) && verdictOf(mark) === 'right'
          const sees = (facet: keyof Sight) => sight[facet] === true || (sight[facet] === 'wrong' && !isRight)
          return {
            number: ++number,
            item: item.id,
            stimulus: sees('questions') && shared ? stimulusAs(shared, languageOf(edition, language)) : null,
            question: sees('questions')
              ? { stem: question.stem, body: kind.seal(question.body, item.options), language: question.language }
              : null,
            answer: sees('answers') ? { given, text: answerWords(paper, edition, item.id, given, language) } : null,
            mark:
              sees('marks') && mark && isMarked(mark)
                ? {
                    points: mark.points && pointsText(mark.points),
                    possible: pointsText(mark.possible),
                    verdict: verdictOf(mark),
                    byHand: Boolean(kind.byHand),
                    checks: mark.checks,
                    hints: mark.hints,
                  }
                : null,
            key:
              sees('key') && !question.keyless
                ? { text: kind.keyText(question.body), given: solutionOn(question, item) }
                : null,
            comments: sees('comments')
              ? [...commentsFor(question, {}, authored), ...(mark?.comment ? [asParagraphs(mark.comment)] : [])]
              : null,
          }
        }),
    }))
    .filter((section) => section.questions.length > 0)
}
