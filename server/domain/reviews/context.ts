import type { Instant } from '../../../core/kit/time'
import { gradeFor, type Grade, type GradedAttempt } from '../../../core/marking'
import type { Rules } from '../../../core/quiz'
import {
  classEnd,
  greatestEnd,
  visibleFacets,
  type FacetName,
  type ReleaseContext,
  type Visible,
} from '../../../core/release'
import { fromSql } from '../../database/codec'
import type { Db } from '../../database/database'
import type { AssignedStudent } from '../quizzes/roster'
import type { Attempt } from '../sittings/attempts'

export function graded(attempts: readonly Attempt[]): GradedAttempt[] {
  return attempts
    .filter((attempt) => attempt.state !== 'open')
    .map((attempt) => ({
      number: attempt.number,
      state: attempt.state as 'handed' | 'unsent',
      score: attempt.score,
      possible: attempt.possible ?? '0',
      daysLate: attempt.daysLate,
    }))
}

/** When the last allowed attempt was handed in, or passing ended the right to more; null while more are to come. */
function attemptsUsedAt(attempts: readonly Attempt[], rules: Rules, grade: Grade): Instant | null {
  const ended = attempts.filter((attempt) => attempt.handedInAt !== null)
  const used = rules.attempts.count !== null && ended.length >= rules.attempts.count
  const enough = rules.attempts.untilPassed && grade.passed === true
  return used || enough
    ? (ended
        .map((attempt) => attempt.handedInAt!)
        .sort()
        .at(-1) ?? null)
    : null
}

/** What a quiz knows that the moments of every student depend on. */
export interface QuizEnds {
  rules: Rules
  students: readonly AssignedStudent[]
  /** Hard stops of sittings under way: a rule that was shortened since does not shorten them. */
  openStops: { student: string; hardStop: Instant | null }[]
  releasedAt: ReadonlyMap<string, Instant>
}

export async function loadEnds(
  db: Db,
  quizId: string,
  rules: Rules,
  students: readonly AssignedStudent[],
  attempts: readonly Attempt[],
): Promise<QuizEnds> {
  const rows = await db.rows<{ class_id: string; at: string }>('SELECT class_id, at FROM released WHERE quiz_id = ?', [
    quizId,
  ])
  return {
    rules,
    students,
    releasedAt: new Map(rows.map((row) => [row.class_id, fromSql(row.at)])),
    openStops: attempts
      .filter((attempt) => attempt.state === 'open')
      .map((attempt) => ({ student: attempt.student, hardStop: attempt.limits.hardStop })),
  }
}

/** The context of one attempt for core's `visibleFacets`. */
export function contextOf(
  ends: QuizEnds,
  attempt: Attempt,
  own: readonly Attempt[],
  viewed: FacetName[],
): { context: ReleaseContext; grade: Grade } {
  const grade = gradeFor(graded(own), null, ends.rules)
  const student = ends.students.find((each) => each.id === attempt.student)
  const classes = student?.classes ?? []
  const mates = new Set(
    ends.students.filter((each) => each.classes.some((name) => classes.includes(name))).map((each) => each.id),
  )
  const released = classes.flatMap((name) => ends.releasedAt.get(name) ?? []).sort()
  const context: ReleaseContext = {
    handedInAt: attempt.state === 'open' ? null : attempt.handedInAt,
    markedAt: attempt.markedAt,
    passed: grade.passed,
    attemptsUsedAt: attemptsUsedAt(own, ends.rules, grade),
    due: ends.rules.windows.find((window) => window.id === attempt.window)?.due ?? null,
    classEnd: classEnd(
      ends.students,
      classes,
      ends.openStops.filter(({ student: id }) => mates.has(id)).map(({ hardStop }) => hardStop),
    ),
    everyoneEnd: greatestEnd(
      ends.students,
      ends.openStops.map(({ hardStop }) => hardStop),
    ),
    releasedAt: released[0] ?? null,
    viewed,
  }
  return { context, grade }
}

export function sightOf(
  ends: QuizEnds,
  attempt: Attempt,
  own: readonly Attempt[],
  viewed: FacetName[],
  now: Instant,
): { visible: Visible; grade: Grade } {
  const { context, grade } = contextOf(ends, attempt, own, viewed)
  return { visible: visibleFacets(ends.rules.release, context, now), grade }
}
