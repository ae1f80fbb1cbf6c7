import type { QuizRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { figuresFor } from '../../../core/figures'
import { toldToStudents } from '../../../core/quiz'
import { shownInLists, type FacetName } from '../../../core/release'
import { assignedTo, classesOf, maySit, scheduleFor } from '../../../core/schedule'
import type { Database } from '../../database/database'
import { readQuiz } from '../../documents/read'
import type { Person } from '../../people/people'
import { notFound } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState } from '../quizzes/quizzes'
import { loadReleases } from '../quizzes/releases'
import { studentsByIds, studentsOfClasses } from '../classes/students'
import { loadViewings, noteViewings } from '../reviews/viewings'
import { quizEnds, sightOf } from '../reviews/context'
import { loadAttempts } from './attempts'
import { settle } from './end'
import { openStops } from './open-stops'
import { satOf } from './sat'
import { standing } from './start'

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

/** A student's quizzes: those of their classes that are open, were sat, or are announced. */
export async function myQuizzes(database: Database, person: Person, now: Instant): Promise<MyQuiz[]> {
  await settle(database, { student: person.id }, now)
  const student = (await studentsByIds(database, [person.id])).get(person.id)
  if (!student) return []
  const rows = await database.rows<Pick<QuizRow, 'id' | 'state' | 'body'>>(
    `SELECT q.id, q.state, q.body FROM quiz q WHERE q.state IN ('published', 'filed')
    AND (q.id IN (SELECT quiz_id FROM quiz_class WHERE class_id IN (?)) OR q.id IN (SELECT quiz_id FROM attempt WHERE student_id = ?))`,
    [student.classes, person.id],
  )
  if (!rows.length) return []
  const quizzes = rows.map((row) => ({ ...row, quiz: readQuiz(row.body) }))
  const ids = rows.map((row) => row.id)
  const [attempts, open, everybody, released] = await Promise.all([
    loadAttempts(database, { quizzes: ids, student: person.id }),
    openStops(database, ids),
    studentsOfClasses(database, [...new Set(quizzes.flatMap(({ quiz }) => classesOf(quiz.rules)))]),
    loadReleases(database, ids),
  ])
  const viewings = await loadViewings(
    database,
    attempts.map((attempt) => attempt.id),
  )
  const seen: { attempt: string; facet: FacetName }[] = []
  const listed = quizzes.flatMap(({ id, state, quiz }): MyQuiz[] => {
    const schedule = scheduleFor(quiz.rules, student)
    const own = attempts.filter((attempt) => attempt.quiz === id)
    const openHere = open.filter((stop) => stop.quiz === id)
    const assigned = assignedTo(everybody, quiz.rules)
    const current = currentState({ stored: state, quiz }, assigned, openHere, now)
    const opened = schedule.windows.some((window) => window.opens <= now)
    if (!own.length && !opened && !quiz.rules.announced) return []
    const may = maySit(current, schedule, satOf(own, quiz.rules).sat, now, person.zone)
    const sitting = own.find((attempt) => attempt.state === 'open')
    const last = own.filter((attempt) => attempt.state !== 'open').at(-1)
    const ends = quizEnds(quiz.rules, assigned, openHere, released.get(id)!)
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
    told: toldToStudents({
      quiz: { rules: row.quiz.rules, content: edition.content },
      schedule,
      zone: person.zone,
    }),
    may,
    asksPassword: row.quiz.rules.password !== null,
    attempt: attempts.length + 1,
    due: schedule.windows.find((window) => may.may && window.id === may.window)?.due ?? null,
  }
}
