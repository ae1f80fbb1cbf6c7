import type { Instant } from '../../../core/kit/time'
import { count, list } from '../../../core/kit/phrases'
import { requiredMissing, type PaperItem } from '../../../core/paper'
import { kindOf } from '../../../core/question'
import type { Db } from '../../database/database'
import { Problem } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { loadAnswers, loadAttempt, loadPaper } from './attempts'
import { enteredSections } from './section-clocks'

/** Numbers of the questions of a sitting that have to be answered, can be, and are not. @param among which are looked at; all where it is not said */
export async function missingIn(
  db: Db,
  attempt: string,
  now: Instant,
  among: (item: PaperItem) => boolean = () => true,
): Promise<number[]> {
  const { edition: editionId } = await loadAttempt(db, attempt)
  const [paper, edition] = [await loadPaper(db, attempt), await loadEdition(db, editionId)]
  const kinds = new Map(paper.items.map((item) => [item.id, kindOf(edition.questions[item.question]!.question.kind)]))
  // Nothing is read where nothing is required.
  if (!requiredMissing(edition.content, paper, new Set(), among).length) return []
  const answered = (await loadAnswers(db, attempt)).filter(
    ({ item, response }) => response !== null && !kinds.get(item)!.isEmpty(response as never),
  )
  const over = new Set(
    (await enteredSections(db, attempt)).filter(({ stops }) => stops < now).map(({ section }) => section),
  )
  return requiredMissing(
    edition.content,
    paper,
    new Set(answered.map(({ item }) => item)),
    (item) => among(item) && !over.has(item.section),
  )
}

/** @param what cannot be done before, as in "before you hand in" */
export function requiredProblem(missing: readonly number[], what: string, more: object = {}): Problem {
  const named = missing.length > 8 ? count(missing.length, 'question') : `question ${list(missing.map(String))}`
  return new Problem(422, 'required', `Answer ${named} ${what}: an answer is asked for there.`, { ...more, missing })
}
