import type { QuizRow } from '../../database/tables'
import type { Quiz } from '../../../core/quiz'
import { readQuiz } from '../../documents/read'
import type { Db } from '../../database/database'
import { Remembered } from '../../database/remembered'

/** What says which document of a quiz it is: it never changes under the same three. */
export type DocumentKey = Pick<QuizRow, 'id' | 'revision' | 'changed_at'>

export const documentKey = ({ id, revision, changed_at }: DocumentKey): string => `${id} ${revision} ${changed_at}`

/** Documents that this process has read lately. */
const known = new Remembered<Quiz>(1000)

/**
 * The documents of quizzes by id, of which only those that are new here are fetched and parsed. They are shared: nobody
 * changes them.
 */
export async function quizDocuments(db: Db, rows: readonly DocumentKey[]): Promise<Map<string, Quiz>> {
  const fresh = rows.filter((row) => !known.get(documentKey(row)))
  const bodies = fresh.length
    ? await db.rows<DocumentKey & Pick<QuizRow, 'body'>>(
        'SELECT id, revision, changed_at, body FROM quiz WHERE id IN (?)',
        [fresh.map(({ id }) => id)],
      )
    : []
  const found = new Map(bodies.map((row) => [row.id, { key: documentKey(row), quiz: readQuiz(row.body) }]))
  for (const { key, quiz } of found.values()) known.set(key, quiz)
  return new Map(
    rows.flatMap((row) => {
      // One that was changed between the two reads is taken as it is by now.
      const quiz = known.get(documentKey(row)) ?? found.get(row.id)?.quiz
      return quiz ? [[row.id, quiz] as const] : []
    }),
  )
}
