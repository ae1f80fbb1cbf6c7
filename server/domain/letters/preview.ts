import { z } from 'zod'
import { letterOf } from '../../../core/notices'
import type { Instant } from '../../../core/kit/time'
import { id } from '../../../core/question'
import { facetsOf } from '../../../core/release'
import { noticeNames } from '../../../core/rules'
import { scheduleFor, windowEnd } from '../../../core/schedule'
import type { Database } from '../../database/database'
import type { Person } from '../../people/people'
import { studentsByIds } from '../classes/students'
import { ofSchool } from '../of-school'
import { notFound } from '../problem'
import { loadQuiz } from '../quizzes/quizzes'
import { factsOf, placeOf, type Receiver } from './facts'

export const previewQuery = z.object({ student: id, name: z.enum(noticeNames) })

/** How a letter would read that a student is sent: with their times; of a paper that nobody has written, with made-up marks. */
export async function previewLetter(
  database: Database,
  teacher: Person,
  quizId: string,
  { student: studentId, name }: z.infer<typeof previewQuery>,
  now: Instant,
): Promise<{ to: string | null; subject: string; body: string }> {
  if (!(await ofSchool(database, 'student', [studentId], teacher.school)).size) throw notFound('This student')
  const row = await loadQuiz(database, quizId)
  const [known, place, to] = await Promise.all([
    studentsByIds(database, [studentId]),
    placeOf(database, teacher.school),
    database.one<Receiver>('SELECT id, name, email, reminders, reminder_word FROM person WHERE id = ?', [studentId]),
  ])
  const schedule = scheduleFor(row.quiz.rules, known.get(studentId)!)
  const window = schedule.windows.find((each) => (windowEnd(schedule, each) ?? now) >= now) ?? schedule.windows[0]
  const own = { ...to!, reminder_word: to!.reminder_word && 'your-own-word' }
  const facts = factsOf(row, place, own, schedule, name, {
    attempt: 'paper',
    handedIn: { at: now, answered: 9, questions: 10, code: '0123456789ab' },
    facets: facetsOf(row.quiz.rules).filter((facet) => row.quiz.rules.release[facet].from.at !== 'never'),
    grade: { text: '75.0 %', passed: row.quiz.rules.grade.pass ? true : null },
    at: window ? (window.due ?? windowEnd(schedule, window)) : null,
  })
  return { to: to!.email, ...letterOf(facts) }
}
