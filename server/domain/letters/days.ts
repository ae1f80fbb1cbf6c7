import { daysAsLines, studentDays } from '../../../core/day-line/student-days'
import { endsFrom } from '../../../core/release'
import type { Instant } from '../../../core/kit/time'
import { scheduleFor } from '../../../core/schedule'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { studentsByIds } from '../classes/students'
import { writeLetters } from '../outbox'
import { Problem, notFound } from '../problem'
import { loadQuiz, quizEndsNow } from '../quizzes/quizzes'
import { recordLine } from '../record'
import { placeOf, type Receiver } from './facts'

/**
 * Sends a student what they will see of a quiz, moment by moment, as the rehearsal lists it.
 * @throws Problem 404 for somebody for whom it is not; 409 for a quiz that students do not have; 422 where no address is known
 */
export async function sendDays(
  database: Database,
  teacher: Person,
  quizId: string,
  studentId: string,
  now: Instant,
): Promise<{ to: string }> {
  const row = await loadQuiz(database, quizId)
  if (row.stored !== 'published') throw new Problem(409, 'state', 'Students are told of a quiz once it is opened.')
  const [students, to, place, ends] = await Promise.all([
    studentsByIds(database, [studentId]),
    database.one<Receiver>(
      "SELECT id, name, email, reminders, reminder_word FROM person WHERE id = ? AND school_id = ? AND role = 'student' AND state = 'here'",
      [studentId, teacher.school],
    ),
    placeOf(database, teacher.school),
    quizEndsNow(database, row),
  ])
  const student = students.get(studentId)
  const { rules, content } = row.quiz
  const schedule = student && scheduleFor(rules, student)
  if (!student || !to || !schedule?.windows.length || schedule.held) throw notFound('This student')
  if (!to.email) throw new Problem(422, 'address', `No address of ${to.name} is known.`)
  const days = studentDays(rules, { schedule, classes: student.classes }, endsFrom(ends))
  const body = [
    `Hello ${to.name},`,
    '',
    `what you can do and see of “${content.title}”, and when:`,
    '',
    ...daysAsLines(days, place.zone).map((line) => `  ${line}`),
    `(times of ${place.school}, ${place.zone})`,
    ...(place.site ? ['', `${place.site}/my/${quizId}`] : []),
    '',
    place.school,
    '',
  ].join('\n')
  await database.transaction(async (db) => {
    await writeLetters(
      db,
      teacher.school,
      [{ to: to.email!, subject: `When what: ${content.title}`.slice(0, 200), body }],
      now,
    )
    await recordLine(db, now, teacher.id, 'days sent', quizId, { student: studentId })
  })
  return { to: to.email }
}
