import { calendarFile } from '../../../formats/ical/calendar'
import type { QuizRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Rules } from '../../../core/quiz'
import { calendarEvents, toMarkEvent, scheduleFor, seesQuiz, type CalendarEvent } from '../../../core/schedule'
import { whoWords } from '../../../core/rules/window/who'
import { toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { findPerson, type Person } from '../../people/people'
import { newToken, tokenKey } from '../../people/tokens'
import { audienceNames } from '../classes/classes'
import { studentsByIds } from '../classes/students'
import { waitingForMarks } from '../marks/waiting'
import { notFound } from '../problem'
import { quizDocuments } from '../quizzes/known-documents'
import { recordLine } from '../record'
import { theirs } from '../sittings/my-quizzes'

/** What a student's quizzes are in a calendar: those that they see, by the same decision as in My quizzes. */
async function eventsOfStudent(db: Db, student: string, now: Instant): Promise<CalendarEvent[]> {
  const rows = await theirs(db, student, 0)
  const [documents, known] = [await quizDocuments(db, rows), (await studentsByIds(db, [student])).get(student)]
  if (!known) return []
  return rows.flatMap(({ id, state }) => {
    const quiz = documents.get(id)
    if (!quiz || state !== 'published') return []
    const schedule = scheduleFor(quiz.rules, known)
    return seesQuiz('open', schedule, quiz.rules.announced, 0, now)
      ? calendarEvents(id, quiz.content.title, schedule)
      : []
  })
}

/** What the quizzes in which a teacher works are: each window with whom it is for. */
async function eventsOfTeacher(db: Db, person: Pick<Person, 'id' | 'school'>): Promise<CalendarEvent[]> {
  const rows = await db.rows<Pick<QuizRow, 'id' | 'state' | 'revision' | 'changed_at'>>(
    `SELECT id, state, revision, changed_at FROM quiz WHERE state = 'published' AND (owner_id = ? OR id IN
      (SELECT quiz_id FROM quiz_teacher WHERE person_id = ? AND may = 'write')) ORDER BY changed_at DESC LIMIT 500`,
    [person.id, person.id],
  )
  const documents = await quizDocuments(db, rows)
  const named = [...documents.values()].flatMap((quiz) => quiz.rules.windows.flatMap((window) => window.students))
  const names = await audienceNames(db, person.school, named)
  const waiting = await waitingForMarks(
    db,
    rows.map(({ id }) => id),
  )
  return rows.flatMap(({ id }) => {
    const quiz = documents.get(id)
    if (!quiz) return []
    const { title } = quiz.content
    const toMark = waiting.get(id)
    // When a paper without a name was handed in leads to whose it is: such papers wait from the end of the quiz on.
    const since = quiz.rules.anonymous ? lastClosing(quiz.rules) : toMark?.since
    return [
      ...quiz.rules.windows.flatMap((window) =>
        calendarEvents(id, `${title} (${whoWords(window, names)})`, { windows: [window] }),
      ),
      ...(toMark && since ? [toMarkEvent(id, title, toMark.papers, since)] : []),
    ]
  })
}

/** When the last window of a quiz closes; null where one never does. */
const lastClosing = ({ windows }: Rules): Instant | null =>
  windows.some(({ closes }) => closes === null)
    ? null
    : (windows
        .map(({ closes }) => closes!)
        .sort()
        .at(-1) ?? null)

/** Somebody's calendar as iCalendar. */
export async function calendarOf(
  db: Db,
  person: Pick<Person, 'id' | 'school' | 'role'>,
  now: Instant,
): Promise<{ name: string; type: string; bytes: string }> {
  const events =
    person.role === 'student' ? await eventsOfStudent(db, person.id, now) : await eventsOfTeacher(db, person)
  return {
    name: 'quizzes.ics',
    type: 'text/calendar; charset=utf-8',
    bytes: calendarFile('Quizzes in Thistle', events, now),
  }
}

/** Makes the address of one's calendar; the one before it is over. It is shown once and kept as a digest. */
export async function makeCalendarAddress(
  database: Database,
  person: Person,
  now: Instant,
): Promise<{ address: string }> {
  const token = newToken()
  await database.transaction(async (db) => {
    await db.run(
      'INSERT INTO calendar_address (person_id, token, made_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE token = VALUES(token), made_at = VALUES(made_at)',
      [person.id, tokenKey(token), toSql(now)],
    )
    await recordLine(db, now, person.id, 'calendar address made', person.id)
  })
  return { address: `/api/calendar/${token}` }
}

export async function endCalendarAddress(database: Database, person: Person, now: Instant): Promise<void> {
  await database.transaction(async (db) => {
    if (await db.run('DELETE FROM calendar_address WHERE person_id = ?', [person.id]))
      await recordLine(db, now, person.id, 'calendar address ended', person.id)
  })
}

/** The calendar at an address. Who has left the school, or made another address, has none there. */
export async function calendarAt(
  db: Db,
  token: string,
  now: Instant,
): Promise<{ name: string; type: string; bytes: string }> {
  const row = await db.one<{ person_id: string }>(
    "SELECT a.person_id FROM calendar_address a JOIN person p ON p.id = a.person_id WHERE a.token = ? AND p.state = 'here'",
    [tokenKey(token)],
  )
  const person = row && (await findPerson(db, row.person_id))
  if (!person) throw notFound('This calendar')
  return calendarOf(db, person, now)
}
