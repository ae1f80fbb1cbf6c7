import { questionsUsed, type Quiz } from '../../../core/quiz'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
import { hitsFor, type Hit } from '../bank/finding/hits'
import { notFound } from '../problem'
import { quizAt } from './history'
import { loadQuiz } from './quizzes'

/** A quiz as it was after an edit, with its questions as they are now. @throws Problem 404, or 422 where it is too long ago */
export async function earlierQuiz(
  db: Db,
  person: Person,
  id: string,
  revision: number,
): Promise<{ quiz: Quiz; questions: Hit[] }> {
  const row = await loadQuiz(db, id)
  if (revision > row.revision) throw notFound('This state')
  const quiz = await quizAt(db, id, row, revision)
  return { quiz, questions: await hitsFor(db, person, questionsUsed(quiz.content)) }
}
