import type { PersonRow, QuizRatingRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { questionsUsed } from '../../../core/quiz'
import { toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { grouped } from '../grouped'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { ensureTeaches, loadQuiz } from './quizzes'

/** A teacher who judges where the pass mark of a quiz should stand. */
export interface Judge {
  id: string
  name: string
  mine: boolean
  /** By question: the chance that a student who only just deserves to pass gets it right, 0 to 1. */
  ratings: [question: string, chance: number][]
}

/** All judges of a quiz, oneself first; with what each has said. */
export async function judgesOf(db: Db, person: Person, quiz: string): Promise<Judge[]> {
  const rows = await db.rows<Pick<QuizRatingRow, 'person_id' | 'question_id' | 'chance'> & { name: PersonRow['name'] }>(
    'SELECT r.person_id, r.question_id, r.chance, p.name FROM quiz_rating r JOIN person p ON p.id = r.person_id WHERE r.quiz_id = ? ORDER BY p.name, p.id',
    [quiz],
  )
  const judges = [...grouped(rows, (row) => row.person_id)].map(([id, each]): Judge => ({
    id,
    name: each[0]!.name,
    mine: id === person.id,
    ratings: each.map((row) => [row.question_id, Number(row.chance)]),
  }))
  return [...judges.filter((judge) => judge.mine), ...judges.filter((judge) => !judge.mine)]
}

/** Keeps one's own ratings of questions of the quiz; null takes one back. @throws Problem 422 for a question that is not in it */
export async function rate(
  database: Database,
  person: Person,
  quiz: string,
  ratings: Readonly<Record<string, number | null>>,
  now: Instant,
): Promise<Judge[]> {
  return database.transaction(async (db) => {
    await ensureTeaches(db, person, quiz)
    const used = new Set(questionsUsed((await loadQuiz(db, quiz)).quiz.content))
    const given = Object.entries(ratings)
    if (given.some(([question]) => !used.has(question)))
      throw new Problem(422, 'question', 'One of the questions is no longer in this quiz. Load the page anew.')
    const gone = given.filter(([, chance]) => chance === null).map(([question]) => question)
    if (gone.length)
      await db.run('DELETE FROM quiz_rating WHERE quiz_id = ? AND person_id = ? AND question_id IN (?)', [
        quiz,
        person.id,
        gone,
      ])
    const kept = given.filter(([, chance]) => chance !== null)
    if (kept.length)
      await db.run(
        'INSERT INTO quiz_rating (quiz_id, person_id, question_id, chance, rated_at) VALUES ? ON DUPLICATE KEY UPDATE chance = VALUES(chance), rated_at = VALUES(rated_at)',
        [kept.map(([question, chance]) => [quiz, person.id, question, chance, toSql(now)])],
      )
    return judgesOf(db, person, quiz)
  })
}
