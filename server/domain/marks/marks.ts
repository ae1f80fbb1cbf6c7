import { exact, pointsText } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import { gradeFor } from '../../../core/marking'
import type { QuizState } from '../../../core/quiz'
import { fromJson, fromSql } from '../../database/codec'
import type { Database } from '../../database/database'
import { notFound } from '../problem'
import { loadEdition } from '../quizzes/edition'
import { currentState, loadQuiz } from '../quizzes/quizzes'
import { assignedTo } from '../quizzes/roster'
import { graded } from '../reviews/context'
import { answerWords, everything, reviewedSections, type ReviewedSection } from '../reviews/paper-view'
import { loadMarks } from '../reviews/review'
import { loadAnswers, loadAttempt, loadAttempts, loadPaper, type Attempt } from '../sittings/attempts'
import { settle } from '../sittings/end'

export interface MarkedAttempt {
  id: string
  number: number
  state: 'open' | 'handed' | 'unsent'
  startedAt: Instant
  handedInAt: Instant | null
  endedBy: Attempt['endedBy']
  daysLate: number
  minutesOver: number
  score: string | null
  possible: string | null
  percent: string | null
  counts: boolean
}

export interface MarkedStudent {
  id: string
  name: string
  classes: string[]
  attempts: MarkedAttempt[]
  percent: string | null
  points: string | null
  passed: boolean | null
  undecided: boolean
}

export interface MarksTable {
  title: string
  state: QuizState
  method: string
  passMark: string | null
  classes: { id: string; name: string; releasedAt: Instant | null }[]
  byHand: boolean
  students: MarkedStudent[]
}

function shown(attempt: Attempt, counted: number[], decimals: number): MarkedAttempt {
  const possible = attempt.possible && exact(attempt.possible)
  return {
    id: attempt.id,
    number: attempt.number,
    state: attempt.state,
    startedAt: attempt.startedAt,
    handedInAt: attempt.handedInAt,
    endedBy: attempt.endedBy,
    daysLate: attempt.daysLate,
    minutesOver: attempt.minutesOver,
    score: attempt.score && pointsText(attempt.score),
    possible: attempt.possible && pointsText(attempt.possible),
    percent:
      attempt.score && possible && !possible.equals(0)
        ? exact(attempt.score).div(possible).mul(100).valueOf().toFixed(decimals)
        : null,
    counts: counted.includes(attempt.number),
  }
}

/** Each student assigned, or who has sat: attempts, times, late or not, score, counting grade, passed. */
export async function marksTable(database: Database, quizId: string, now: Instant): Promise<MarksTable> {
  await settle(database, { quiz: quizId }, now, 500)
  const row = await loadQuiz(database, quizId)
  const { rules, content } = row.quiz
  const [students, attempts, classes, released] = await Promise.all([
    assignedTo(database, rules),
    loadAttempts(database, 'quiz_id = ?', [quizId]),
    database.rows<{ id: string; name: string }>(
      'SELECT c.id, c.name FROM quiz_class q JOIN class c ON c.id = q.class_id WHERE q.quiz_id = ? ORDER BY c.name',
      [quizId],
    ),
    database.rows<{ class_id: string; at: string }>('SELECT class_id, at FROM released WHERE quiz_id = ?', [quizId]),
  ])
  const known = new Set(students.map((student) => student.id))
  const left = [...new Set(attempts.map((attempt) => attempt.student))].filter((id) => !known.has(id))
  const others = left.length
    ? await database.rows<{ id: string; name: string }>('SELECT id, name FROM person WHERE id IN (?) ORDER BY name', [
        left,
      ])
    : []
  const nameOf = new Map(classes.map(({ id, name }) => [id, name]))
  const line = (id: string, name: string, inClasses: string[]): MarkedStudent => {
    const own = attempts.filter((attempt) => attempt.student === id)
    const grade = gradeFor(graded(own), null, rules)
    return {
      id,
      name,
      classes: inClasses.flatMap((each) => nameOf.get(each) ?? []),
      attempts: own.map((attempt) => shown(attempt, grade.counted, rules.grade.decimals)),
      percent: grade.percent,
      points: grade.points,
      passed: grade.passed,
      undecided: grade.undecided,
    }
  }
  const { pass } = rules.grade
  return {
    title: content.title,
    state: currentState(
      row,
      students,
      attempts.filter((attempt) => attempt.state === 'open').map((attempt) => attempt.limits.hardStop),
      now,
    ),
    method: rules.grade.method,
    passMark: pass && `${pass.value}${pass.by === 'percent' ? ' %' : ' points'}`,
    classes: classes.map(({ id, name }) => ({
      id,
      name,
      releasedAt: released.filter((each) => each.class_id === id).map((each) => fromSql(each.at))[0] ?? null,
    })),
    byHand: Object.values(rules.release).some((rule) => rule.from.at === 'teacher'),
    students: [
      ...students.map((student) => line(student.id, student.name, student.classes)),
      ...others.map((other) => line(other.id, other.name, [])),
    ],
  }
}

export interface MarkedPaper {
  quiz: string
  title: string
  student: string
  attempt: MarkedAttempt
  edition: number
  sections: ReviewedSection[]
  aside: { number: number | null; text: string; arrivedAt: Instant; reason: string }[]
}

/** One paper with every answer beside its key, and what arrived too late to count. */
export async function markedPaper(
  database: Database,
  quizId: string,
  attemptId: string,
  now: Instant,
): Promise<MarkedPaper> {
  await settle(database, { attempt: attemptId }, now)
  const attempt = await loadAttempt(database, attemptId)
  if (attempt.quiz !== quizId) throw notFound('This paper')
  const [{ quiz }, person, paper, edition, answers, marks, aside] = await Promise.all([
    loadQuiz(database, quizId),
    database.one<{ name: string }>('SELECT name FROM person WHERE id = ?', [attempt.student]),
    loadPaper(database, attemptId),
    loadEdition(database, attempt.edition),
    loadAnswers(database, attemptId),
    loadMarks(database, attemptId),
    database.rows<{ item: string; response: string | null; arrived_at: string; reason: string }>(
      'SELECT item, response, arrived_at, reason FROM answer_aside WHERE attempt_id = ? ORDER BY arrived_at',
      [attemptId],
    ),
  ])
  const sections = reviewedSections(paper, edition, answers, marks, everything)
  const numbers = new Map(
    sections.flatMap((section) => section.questions.map((question) => [question.item, question.number])),
  )
  return {
    quiz: quizId,
    title: quiz.content.title,
    student: person?.name ?? 'Unknown',
    attempt: shown(attempt, [], quiz.rules.grade.decimals),
    edition: edition.number,
    sections,
    aside: aside.map((each) => ({
      number: numbers.get(each.item) ?? null,
      text: answerWords(paper, edition, each.item, each.response === null ? null : fromJson(each.response)),
      arrivedAt: fromSql(each.arrived_at),
      reason: each.reason,
    })),
  }
}
