import { plainText } from '../question/allowed-html'
import { kindOf } from '../question/kinds'
import type { Question } from '../question/schema'

/** How often something was answered. */
export interface Counted {
  words: string
  n: number
}

/** What was answered to one question: counts of what can be chosen in the order written, or of what was written, the most frequent first. */
export interface AnswerCounts {
  title: string
  kind: Question['kind']
  /** Who had the question. */
  asked: number
  answered: number
  counts: Counted[]
  /** Different answers that are not among the counts any more. */
  more: number
}

/** So many different written answers are listed. */
export const mostListed = 50

/**
 * Counts the answers to a question.
 * @param answers in authored ids, one for each who had it; undefined for none
 */
export function countAnswers(question: Question, answers: readonly unknown[]): AnswerCounts {
  const kind = kindOf(question.kind)
  const given = answers.flatMap((answer) => {
    const read = kind.answer.safeParse(answer)
    return read.success && !kind.isEmpty(read.data) ? [read.data] : []
  })
  const title = plainText(question.stem)
  const about = { title, kind: question.kind, asked: answers.length, answered: given.length }
  if (question.kind === 'choice' || question.kind === 'choices' || 'options' in question.body) {
    const chosen = given.flatMap((answer) => [...new Set((answer as { chosen: string[] }).chosen)])
    const options = (question.body as { options: { id: string; html: string }[] }).options
    return {
      ...about,
      counts: options.map(({ id, html }) => ({
        words: plainText(html) || id,
        n: chosen.filter((each) => each === id).length,
      })),
      more: 0,
    }
  }
  // As the question reads them: where capitals make no difference they make none here; the form that came first is shown.
  const folds = question.kind === 'text' && !question.body.caseMatters
  const byWords = new Map<string, Counted>()
  for (const answer of given) {
    const words = kind.answerText(question.body, answer).trim()
    const key = folds ? words.toLocaleLowerCase(question.language) : words
    const known = byWords.get(key)
    if (known) known.n++
    else byWords.set(key, { words, n: 1 })
  }
  const all = [...byWords.values()]
  all.sort((a, b) => b.n - a.n || (a.words < b.words ? -1 : 1))
  return { ...about, counts: all.slice(0, mostListed), more: Math.max(0, all.length - mostListed) }
}
