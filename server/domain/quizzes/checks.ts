import type { QuestionRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { checkQuiz, questionsUsed, type Check, type Quiz } from '../../../core/quiz'
import type { Db } from '../../database/database'
import { loadQuiz } from './quizzes'
import type { Person } from '../../people/people'
import { classNames } from '../classes/classes'
import { assignedTo } from '../classes/assigned'

/** Runs core's checks with what the database knows. */
export async function checksFor(
  db: Db,
  person: Pick<Person, 'school' | 'zone'>,
  quiz: Quiz,
  now: Instant,
): Promise<Check[]> {
  const ids = questionsUsed(quiz.content)
  const [questions, names, students] = await Promise.all([
    ids.length
      ? db.rows<Pick<QuestionRow, 'id' | 'title' | 'state' | 'sharing'>>(
          'SELECT id, title, state, sharing FROM question WHERE id IN (?) AND school_id = ?',
          [ids, person.school],
        )
      : [],
    classNames(db, person.school),
    assignedTo(db, quiz.rules),
  ])
  return checkQuiz(quiz, {
    now,
    zone: person.zone,
    students,
    questions: new Map(
      questions.map(({ id, title, state, sharing }) => [
        id,
        { title, usable: state === 'usable' && sharing !== 'outside' },
      ]),
    ),
    classNames: names,
  })
}

/** The checks of a quiz as it stands. */
export async function lookAtChecks(db: Db, person: Person, quiz: string, now: Instant): Promise<Check[]> {
  return checksFor(db, person, (await loadQuiz(db, quiz)).quiz, now)
}
