import { createHash } from 'node:crypto'
import type { Instant } from '../../../core/kit/time'
import type { Quiz } from '../../../core/quiz'
import type { Database } from '../../database/database'
import { loadEdition } from '../quizzes/edition'
import { loadAnswers, loadPaper, type Attempt } from '../sittings/attempts'
import { answerWords } from './paper-view'

/** What somebody has in hand that they have handed in. */
export interface Receipt {
  at: Instant
  /** Of how many questions how many were answered. */
  answered: number
  questions: number
  /** Made of what was kept: the same paper has the same, another answer another. */
  code: string
  /** What they answered, by number, where the rules give it. */
  answers: { number: number; text: string }[] | null
}

/** The receipt of a paper that was handed in; null where the rules give none. */
export async function receiptFor(
  database: Database,
  attempt: Attempt,
  { rules: { receipt } }: Quiz,
): Promise<Receipt | null> {
  if (receipt === 'none' || attempt.state !== 'handed' || attempt.handedInAt === null) return null
  const [paper, answers] = [await loadPaper(database, attempt.id), await loadAnswers(database, attempt.id)]
  const given = new Map(answers.map(({ item, response }) => [item, response]))
  const kept = paper.items.map(({ id }) => [id, given.get(id) ?? null])
  const edition = receipt === 'answers' ? await loadEdition(database, attempt.edition) : null
  return {
    at: attempt.handedInAt,
    answered: kept.filter(([, response]) => response !== null).length,
    questions: kept.length,
    code: createHash('sha256')
      .update(JSON.stringify([attempt.id, attempt.handedInAt, kept]))
      .digest('hex')
      .slice(0, 12),
    answers:
      edition &&
      paper.items.map(({ id }, index) => ({
        number: index + 1,
        text: answerWords(paper, edition, id, given.get(id) ?? null, attempt.language),
      })),
  }
}
