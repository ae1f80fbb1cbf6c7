import type { Grade } from '../../../core/marking'
import type { Rules } from '../../../core/quiz'
import { endAt, type Instant } from '../../../core/kit/time'
import {
  endsOf,
  visibleFacets,
  type Ends,
  type FacetName,
  type ReleaseContext,
  type Visible,
} from '../../../core/release'
import { attemptsUsedAt, type AssignedStudent } from '../../../core/schedule'
import type { Attempt } from '../sittings/attempts'
import type { OpenStop } from '../sittings/open-stops'
import { satOf } from '../sittings/sat'

/** What a quiz knows that the moments of every student depend on, worked out once for all of them. */
export interface QuizEnds {
  rules: Rules
  ends: Ends
  /** Classes of the quiz, by student. */
  classes: ReadonlyMap<string, readonly string[]>
  releasedAt: ReadonlyMap<string, Instant>
}

/**
 * @param open hard stops of sittings under way
 * @param releasedAt when the teacher released it, by class
 */
export function quizEnds(
  rules: Rules,
  students: readonly AssignedStudent[],
  open: readonly OpenStop[],
  releasedAt: ReadonlyMap<string, Instant>,
): QuizEnds {
  const classes = new Map(students.map((student) => [student.id, student.classes]))
  const openEnds = open.map(({ student, hardStop }) => ({ end: endAt(hardStop), classes: classes.get(student) ?? [] }))
  return { rules, classes, releasedAt, ends: endsOf(students, openEnds) }
}

/** What a student may see of an attempt at an instant, with their counting grade. @param own all their attempts */
export function sightOf(
  { rules, ends, classes: classesBy, releasedAt }: QuizEnds,
  attempt: Attempt,
  own: readonly Attempt[],
  viewed: FacetName[],
  now: Instant,
): { visible: Visible; grade: Grade } {
  const { sat, grade } = satOf(own, rules)
  const classes = classesBy.get(attempt.student) ?? []
  const context: ReleaseContext = {
    handedInAt: attempt.state === 'open' ? null : attempt.handedInAt,
    markedAt: attempt.markedAt,
    passed: grade.passed,
    attemptsUsedAt: attemptsUsedAt(rules.attempts, sat),
    due: rules.windows.find((window) => window.id === attempt.window)?.due ?? null,
    classEnd: ends.ofClasses(classes),
    everyoneEnd: ends.everyone,
    releasedAt: classes.flatMap((name) => releasedAt.get(name) ?? []).sort()[0] ?? null,
    viewed,
  }
  return { visible: visibleFacets(rules.release, context, now), grade }
}
