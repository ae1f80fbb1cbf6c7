import type { AnswerRow, AttemptRow } from '../../database/tables'
import { countAnswers, type AnswerCounts } from '../../../core/analysis/answers'
import type { Instant } from '../../../core/kit/time'
import { authoredAnswer } from '../../../core/marking'
import { questionOnPaper } from '../../../core/paper'
import type { Question } from '../../../core/question'
import type { Database } from '../../database/database'
import { inBatches, mapInOrder } from '../../database/batches'
import { readPaper, readResponse } from '../../documents/read'
import { loadEdition } from '../quizzes/edition'
import { settle } from '../sittings/end'

/** More papers than this are not read for figures: the newest are. */
export const mostPapers = 5000
/** Papers that are read at once. */
const atOnce = 200

/**
 * What was answered in a survey, question by question in the order in which they are met first; nobody's name is in it,
 * and papers are read in an order that says nothing of when they were written.
 */
export async function surveyFigures(
  database: Database,
  quiz: string,
  now: Instant,
): Promise<{ papers: number; questions: (AnswerCounts & { id: string })[] }> {
  await settle(database, { quiz }, now, 500)
  const attempts = await database.rows<Pick<AttemptRow, 'id'>>(
    "SELECT id FROM (SELECT id FROM attempt WHERE quiz_id = ? AND state = 'handed' ORDER BY handed_in_at DESC LIMIT ?) newest ORDER BY id",
    [quiz, mostPapers],
  )
  const found = new Map<string, { question: Question; answers: unknown[] }>()
  await inBatches(attempts, atOnce, async (part) => {
    const ids = part.map(({ id }) => id)
    const [papers, kept] = await Promise.all([
      database.rows<Pick<AttemptRow, 'id' | 'edition_id' | 'paper'>>(
        'SELECT id, edition_id, paper FROM attempt WHERE id IN (?) ORDER BY id',
        [ids],
      ),
      database.rows<Pick<AnswerRow, 'attempt_id' | 'item' | 'response'>>(
        'SELECT attempt_id, item, response FROM answer WHERE attempt_id IN (?)',
        [ids],
      ),
    ])
    const given = new Map(kept.map((row) => [`${row.attempt_id} ${row.item}`, row.response]))
    await mapInOrder(papers, async ({ id, edition_id: editionId, paper }) => {
      const edition = await loadEdition(database, editionId)
      for (const item of readPaper(paper).items) {
        const entry = found.get(item.question) ?? { question: questionOnPaper(edition, item, null), answers: [] }
        const response = readResponse(given.get(`${id} ${item.id}`) ?? null)
        entry.answers.push(authoredAnswer(entry.question, item, response))
        found.set(item.question, entry)
      }
    })
  })
  return {
    papers: attempts.length,
    questions: [...found].map(([id, { question, answers }]) => ({ id, ...countAnswers(question, answers) })),
  }
}
