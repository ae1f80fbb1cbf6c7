import type { QuizRow, SchoolRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { sizesOf } from '../../../core/figures'
import { toldToStudents, type Rules } from '../../../core/quiz'
import { noPlaceFor, passwordIn } from '../../../core/rules'
import { releasedByHand, releaseOf, seenWords, shownInLists, type FacetName, type Visible } from '../../../core/release'
import { dueFor, maySit, scheduleFor, seesQuiz, toldOfSections, windowThatCounts } from '../../../core/schedule'
import { meantFor } from '../quizzes/meant-for'
import type { Database, Db } from '../../database/database'
import { grouped } from '../grouped'
import type { Person } from '../../people/people'
import { notFound } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState } from '../quizzes/quizzes'
import { loadReleases } from '../quizzes/releases'
import { endsNow } from '../quizzes/ends-now'
import { quizDocuments } from '../quizzes/known-documents'
import { studentAt } from '../classes/students'
import { loadViewings, noteViewings, type Viewings } from '../reviews/viewings'
import { quizMoments, sightOf } from '../reviews/context'
import { loadAttempts, type Attempt } from './attempts'
import { settle } from './end'
import { doneWith, loadNotices, noteSeen, type Notice } from './notices'
import { placesTaken } from './places'
import { satOf, textOf } from './sat'
import { standing } from './start'

export interface MyQuiz {
  id: string
  title: string
  /** What the student can do, as a sentence; made by core. */
  sentence: string
  may: 'start' | 'continue' | 'wait' | 'done'
  /** By the rule of what counts as done, apart from the grade. */
  done: boolean
  voluntary: boolean
  anonymous: boolean
  sitting: string | null
  from: Instant | null
  due: Instant | null
  attempts: { id: string; number: number; handedInAt: Instant | null }[]
  attemptsAllowed: number | null
  /** What they can see of their last paper, and what comes next; empty for nothing. */
  seen: string
  /** Only what the rules release, as the quiz's scale tells it. */
  grade: { text: string; passed: boolean | null } | null
}

/** So many come at once, those that were changed last first. */
export const mostListed = 300

/** All attempts of a student; what is over has ended. */
async function ownAttempts(database: Database, student: string, now: Instant): Promise<Attempt[]> {
  const attempts = await loadAttempts(database, { student })
  const over = attempts.some(
    ({ state, limits }) => state === 'open' && limits.hardStop !== null && limits.hardStop < now,
  )
  if (!over) return attempts
  await settle(database, { student }, now)
  return loadAttempts(database, { student })
}

/** Quizzes that a student may meet: that are for them, or that they have sat. */
export const theirs = (db: Db, student: string, after: number) =>
  db.rows<Pick<QuizRow, 'id' | 'state' | 'revision' | 'changed_at'> & Pick<SchoolRow, 'roster'>>(
    `SELECT q.id, q.state, q.revision, q.changed_at, s.roster FROM
      (${meantFor} UNION SELECT quiz_id FROM attempt WHERE student_id = ?) t
    JOIN quiz q ON q.id = t.quiz_id AND q.state IN ('published', 'filed') JOIN school s ON s.id = q.school_id
    ORDER BY q.state = 'filed', q.changed_at DESC, q.id LIMIT ? OFFSET ?`,
    [student, student, student, student, mostListed + 1, after],
  )

/** A quiz as its student sees it, with what is theirs but may not be shown to them yet. */
interface Listed {
  quiz: MyQuiz
  counting: Counting | null
}
export interface Counting {
  percent: string | null
  passed: boolean | null
  /** As its scale tells it. */
  text: string | null
}

/** A student's quizzes, for the student: the grades that are shown are seen by that. @param after how many are known already */
export async function myQuizzes(
  database: Database,
  person: Person,
  now: Instant,
  after = 0,
): Promise<{ quizzes: MyQuiz[]; more: boolean; next: number }> {
  const { listed, seen, viewings, ...rest } = await quizzesOf(database, person, now, after)
  await noteViewings(database, viewings, seen, now)
  return { quizzes: listed.map(({ quiz }) => quiz), ...rest }
}

/** A student's quizzes: those of their classes that are open, were sat, or are announced. Nothing of others is read, and nothing is taken for seen. */
export async function quizzesOf(
  database: Database,
  person: Pick<Person, 'id' | 'zone'>,
  now: Instant,
  after = 0,
): Promise<{
  listed: Listed[]
  seen: { attempt: string; facet: FacetName }[]
  viewings: Viewings
  more: boolean
  next: number
}> {
  const [attempts, found] = await Promise.all([
    ownAttempts(database, person.id, now),
    theirs(database, person.id, after),
  ])
  const roster = found[0]?.roster
  const student = roster === undefined ? undefined : await studentAt(database, person.id, roster)
  if (!student || roster === undefined) return { listed: [], seen: [], viewings: new Map(), more: false, next: after }
  const rows = found.slice(0, mostListed)
  const ended = attempts.filter((attempt) => attempt.state !== 'open')
  const sat = new Set(ended.map((attempt) => attempt.quiz))
  const documents = await quizDocuments(database, rows)
  const quizzes = rows.flatMap((row) => {
    const quiz = documents.get(row.id)
    return quiz ? [{ row, quiz }] : []
  })
  const [ends, released, viewings, notices, taken] = await Promise.all([
    endsNow(database, quizzes, roster, now),
    loadReleases(
      database,
      quizzes.filter(({ row, quiz }) => sat.has(row.id) && releasedByHand(quiz.rules)).map(({ row }) => row.id),
    ),
    loadViewings(
      database,
      ended.map((attempt) => attempt.id),
    ),
    loadNotices(
      database,
      { person: person.id },
      quizzes.map(({ quiz }) => quiz.rules),
    ),
    placesTaken(
      database,
      quizzes.filter(({ quiz }) => quiz.rules.places !== null).map(({ row }) => row.id),
    ),
  ])
  const byQuiz = grouped(attempts, (attempt) => attempt.quiz)
  const seen: { attempt: string; facet: FacetName }[] = []
  const listed = quizzes.flatMap(({ row, quiz }): Listed[] => {
    const { id } = row
    const schedule = scheduleFor(quiz.rules, student)
    const mine = byQuiz.get(id) ?? []
    const current = currentState({ stored: row.state, quiz }, ends.get(id)!, now)
    if (!seesQuiz(current, schedule, quiz.rules.announced, mine.length, now)) return []
    const full = noPlaceFor(quiz.rules.places, taken.get(id) ?? 0, mine.length > 0)
    const satHere = { ...satOf(mine, quiz.rules).sat, full }
    const may = maySit(current, schedule, satHere, now, person.zone)
    const sitting = mine.find((attempt) => attempt.state === 'open')
    const done = mine.filter((attempt) => attempt.state !== 'open')
    const last = done.at(-1)
    const moments =
      last && quizMoments(quiz.rules, ends.get(id)!, student, released.get(id) ?? new Map<string, Instant>())
    const sight = moments && sightOf(moments, last, mine, viewings.get(last.id) ?? [], now)
    const showsGrade =
      sight && sight.grade.percent !== null && shownInLists(releaseOf(quiz.rules), sight.visible, 'grade')
    if (showsGrade) seen.push({ attempt: last.id, facet: 'grade' })
    const shown: MyQuiz = {
      id,
      title: quiz.content.title,
      sentence: may.sentence,
      may: sitting ? 'continue' : may.may ? 'start' : may.from ? 'wait' : 'done',
      done: doneAsShown(quiz.rules, notices.get(id), mine, sight?.visible),
      voluntary: quiz.rules.voluntary,
      anonymous: quiz.rules.anonymous,
      sitting: sitting?.id ?? null,
      from: may.may ? null : may.from,
      due: dueFor(quiz.rules, student, windowThatCounts(quiz.rules, student, { may, attempts: mine }, now)),
      attempts: done.map(({ id: attempt, number, handedInAt }) => ({ id: attempt, number, handedInAt })),
      attemptsAllowed: schedule.attempts.count,
      seen: sight ? seenWords(sight.visible, person.zone) : '',
      grade: showsGrade ? { text: textOf(sight.grade, quiz.rules)!, passed: sight.grade.passed } : null,
    }
    const counting = sight && {
      percent: sight.grade.percent,
      passed: sight.grade.passed,
      text: textOf(sight.grade, quiz.rules),
    }
    return [{ quiz: shown, counting: counting ?? null }]
  })
  // What is not announced is passed over: the next begin after what was read, not after what is shown.
  return { listed, seen, viewings, more: found.length > mostListed, next: after + rows.length }
}

/** Whether somebody reads that they are done: being done by passing is not told before the grade is. */
function doneAsShown(
  rules: Rules,
  notice: Notice | undefined,
  attempts: readonly Attempt[],
  visible: Visible | undefined,
): boolean {
  if (rules.done === 'passed' && !(visible && shownInLists(releaseOf(rules), visible, 'grade'))) return false
  return doneWith(rules, notice, attempts, satOf(attempts, rules).sat.passed)
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
  /** Being done is theirs to say, and whether they have; null where it is not. */
  confirmed: boolean | null
}

/** What a student reads before they start. Nothing of the paper is in it. */
export async function beforeSitting(
  database: Database,
  person: Person,
  quizId: string,
  now: Instant,
): Promise<BeforeSitting> {
  const { row, student, schedule, attempts, may } = await standing(database, person, quizId, now)
  if (
    row.stored === 'draft' ||
    row.stored === 'withdrawn' ||
    !row.edition ||
    (!schedule.windows.length && !attempts.length)
  )
    throw notFound('This quiz')
  await noteSeen(database, quizId, person.id, now)
  const notices = await loadNotices(database, { person: person.id }, [row.quiz.rules])
  const edition = await loadEdition(database, row.edition)
  const figures = sizesOf(edition.content)
  return {
    id: quizId,
    title: edition.content.title,
    intro: edition.content.introShown === 'before' ? edition.content.intro : '',
    questions: figures.questions,
    points: figures.points,
    told: [
      ...toldToStudents({
        quiz: { rules: row.quiz.rules, content: edition.content },
        schedule,
        zone: person.zone,
      }),
      ...toldOfSections(edition.content, schedule),
    ],
    may,
    asksPassword: may.may && passwordIn(row.quiz.rules, may.window) !== null,
    attempt: attempts.length + 1,
    due: dueFor(row.quiz.rules, student, windowThatCounts(row.quiz.rules, student, { may, attempts }, now)),
    confirmed: row.quiz.rules.done === 'confirmed' ? Boolean(notices.get(quizId)?.confirmedAt) : null,
  }
}
