import type { Instant } from '../../../core/kit/time'
import { figuresFor } from '../../../core/figures'
import type { Quiz, StoredState } from '../../../core/quiz'
import { shownInLists, type FacetName } from '../../../core/release'
import { maySit, scheduleFor, toldToStudents } from '../../../core/schedule'
import { fromJson, fromSql } from '../../database/codec'
import type { Database } from '../../database/database'
import type { Person } from '../people/people'
import { notFound } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState } from '../quizzes/quizzes'
import { assignedAmong } from '../quizzes/roster'
import { studentsByIds, studentsOfClasses } from '../quizzes/students'
import { loadViewings, noteViewings } from '../reviews/viewings'
import { sightOf } from '../reviews/context'
import { loadAttempts } from './attempts'
import { settle } from './end'
import { attemptFact, standing } from './start'

export interface MyQuiz {
  id: string
  title: string
  /** What the student can do, as a sentence; made by core. */
  sentence: string
  may: 'start' | 'continue' | 'wait' | 'done'
  sitting: string | null
  from: Instant | null
  due: Instant | null
  attempts: { id: string; number: number; handedInAt: Instant | null }[]
  attemptsAllowed: number | null
  /** Only what the rules release. */
  grade: { percent: string; passed: boolean | null } | null
}

interface Row {
  id: string
  state: StoredState
  body: string
}

/** A student's quizzes: those of their classes that are open, were sat, or are announced. */
export async function myQuizzes(database: Database, person: Person, now: Instant): Promise<MyQuiz[]> {
  await settle(database, { student: person.id }, now)
  const student = (await studentsByIds(database, [person.id])).get(person.id)
  if (!student) return []
  const rows = await database.rows<Row>(
    `SELECT q.id, q.state, q.body FROM quiz q WHERE q.state IN ('published', 'filed')
    AND (q.id IN (SELECT quiz_id FROM quiz_class WHERE class_id IN (?)) OR q.id IN (SELECT quiz_id FROM attempt WHERE student_id = ?))`,
    [student.classes, person.id],
  )
  if (!rows.length) return []
  const quizzes = rows.map((row) => ({ ...row, quiz: fromJson<Quiz>(row.body) }))
  const allAttempts = await loadAttempts(database, 'quiz_id IN (?)', [rows.map((row) => row.id)])
  const everybody = await studentsOfClasses(database, [
    ...new Set(quizzes.flatMap(({ quiz }) => quiz.rules.windows.flatMap((window) => window.classes))),
  ])
  const released = await loadReleases(
    database,
    rows.map((row) => row.id),
  )
  const viewings = await loadViewings(
    database,
    allAttempts.filter((attempt) => attempt.student === person.id).map((attempt) => attempt.id),
  )
  const seen: { attempt: string; facet: FacetName }[] = []
  const listed = quizzes.flatMap(({ id, state, quiz }): MyQuiz[] => {
    const schedule = scheduleFor(quiz.rules, student)
    const own = allAttempts.filter((attempt) => attempt.quiz === id && attempt.student === person.id)
    const openStops = allAttempts
      .filter((attempt) => attempt.quiz === id && attempt.state === 'open')
      .map((attempt) => ({ student: attempt.student, hardStop: attempt.limits.hardStop }))
    const assigned = assignedAmong(everybody, quiz.rules)
    const current = currentState(
      { stored: state, quiz },
      assigned,
      openStops.map(({ hardStop }) => hardStop),
      now,
    )
    const opened = schedule.windows.some((window) => window.opens <= now)
    if (!own.length && !opened && !quiz.rules.announced) return []
    const may = maySit(
      current,
      schedule,
      own.map((attempt) => attemptFact(attempt, quiz.rules)),
      now,
      person.zone,
    )
    const sitting = own.find((attempt) => attempt.state === 'open')
    const last = own.filter((attempt) => attempt.state !== 'open').at(-1)
    const ends = { rules: quiz.rules, students: assigned, releasedAt: released.get(id) ?? new Map(), openStops }
    const sight = last && sightOf(ends, last, own, viewings.get(last.id) ?? [], now)
    const showsGrade = sight && sight.grade.percent !== null && shownInLists(quiz.rules.release, sight.visible, 'grade')
    if (showsGrade) seen.push({ attempt: last.id, facet: 'grade' })
    return [
      {
        id,
        title: quiz.content.title,
        sentence: may.sentence,
        may: sitting ? 'continue' : may.may ? 'start' : may.from ? 'wait' : 'done',
        sitting: sitting?.id ?? null,
        from: may.may ? null : may.from,
        due:
          schedule.windows
            .map((window) => window.due)
            .filter((due): due is Instant => due !== null)
            .sort()[0] ?? null,
        attempts: own
          .filter((attempt) => attempt.state !== 'open')
          .map((attempt) => ({ id: attempt.id, number: attempt.number, handedInAt: attempt.handedInAt })),
        attemptsAllowed: quiz.rules.attempts.count,
        grade: showsGrade ? { percent: sight.grade.percent!, passed: sight.grade.passed } : null,
      },
    ]
  })
  await noteViewings(database, viewings, seen, now)
  return listed
}

async function loadReleases(database: Database, quizzes: string[]): Promise<Map<string, Map<string, Instant>>> {
  const rows = await database.rows<{ quiz_id: string; class_id: string; at: string }>(
    'SELECT quiz_id, class_id, at FROM released WHERE quiz_id IN (?)',
    [quizzes],
  )
  const result = new Map<string, Map<string, Instant>>()
  for (const row of rows)
    result.set(row.quiz_id, (result.get(row.quiz_id) ?? new Map<string, Instant>()).set(row.class_id, fromSql(row.at)))
  return result
}

export interface BeforeSitting {
  id: string
  title: string
  intro: string
  questions: number
  points: number
  told: string[]
  may: Awaited<ReturnType<typeof standing>>['may']
  asksPassword: boolean
  attempt: number
  due: Instant | null
}

/** What a student reads before they start. Nothing of the paper is in it. */
export async function beforeSitting(
  database: Database,
  person: Person,
  quizId: string,
  now: Instant,
): Promise<BeforeSitting> {
  const { row, schedule, attempts, may } = await standing(database, person, quizId, now)
  if (
    row.stored === 'draft' ||
    row.stored === 'withdrawn' ||
    !row.edition ||
    (!schedule.windows.length && !attempts.length)
  )
    throw notFound('This quiz')
  const edition = await loadEdition(database, row.edition)
  const figures = figuresFor(edition.content, new Map())
  return {
    id: quizId,
    title: edition.content.title,
    intro: edition.content.intro,
    questions: figures.questions,
    points: figures.points,
    told: toldToStudents(row.quiz.rules, edition.content, schedule.limit),
    may,
    asksPassword: row.quiz.rules.password !== null,
    attempt: attempts.length + 1,
    due: schedule.windows.find((window) => may.may && window.id === may.window)?.due ?? null,
  }
}
