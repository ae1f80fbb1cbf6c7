import type { Instant } from '../../../core/kit/time'
import { namedIn, notSat, whySit, type Why } from '../../../core/schedule'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { audienceNames } from '../classes/classes'
import { studentsByIds } from '../classes/students'
import { newId } from '../ids'
import { ofSchool } from '../of-school'
import { notFound } from '../problem'
import { loadAttempts } from '../sittings/attempts'
import { settle } from '../sittings/end'
import { isFull, placesTaken } from '../sittings/places'
import { satOf } from '../sittings/sat'
import { currentState, loadQuiz, quizEndsNow } from './quizzes'

/** Whether a student of the school sees a quiz and can sit it now, and why not; with what would let them. */
export async function whyStudent(
  database: Database,
  person: Person,
  quizId: string,
  student: string,
  now: Instant,
): Promise<Why> {
  if (!(await ofSchool(database, 'student', [student], person.school)).size) throw notFound('This student')
  await settle(database, { student }, now)
  const row = await loadQuiz(database, quizId)
  const [known, attempts, names, ends] = await Promise.all([
    studentsByIds(database, [student]),
    loadAttempts(database, { quizzes: [quizId], student }),
    audienceNames(database, person.school, namedIn(row.quiz.rules)),
    quizEndsNow(database, row),
  ])
  return whySit({
    quiz: row.quiz,
    state: currentState(row, ends, now),
    student: known.get(student)!,
    // Of an anonymous quiz nobody is told what somebody has sat.
    sat: row.quiz.rules.anonymous
      ? notSat
      : { ...satOf(attempts, row.quiz.rules).sat, full: await isFull(database, row, attempts.length) },
    taken: row.quiz.rules.places === null ? 0 : (await placesTaken(database, [quizId])).get(quizId)!,
    now,
    zone: person.zone,
    names,
    newId: newId(),
  })
}
