import type { Grade } from '../../../core/marking'
import type { Rules, Student } from '../../../core/quiz'
import type { Instant } from '../../../core/kit/time'
import {
  endsFrom,
  releaseOf,
  visibleFacets,
  type Ends,
  type LatestEnds,
  type FacetName,
  type ReleaseContext,
  type Visible,
} from '../../../core/release'
import { attemptsUsedAt, releaseClasses, scheduleFor, dueFor } from '../../../core/schedule'
import { againEnd } from '../sittings/again'
import type { Attempt } from '../sittings/attempts'
import { satOf } from '../sittings/sat'

/** What the moments of a student's releases depend on, beside their attempts. */
export interface QuizMoments {
  rules: Rules
  ends: Ends
  student: Student
  /** Those of the student's classes by which they wait. */
  classes: readonly string[]
  releasedAt: ReadonlyMap<string, Instant>
}

/**
 * @param student whose classes and groups are known
 * @param releasedAt when the teacher released it, by class
 */
export function quizMoments(
  rules: Rules,
  ends: LatestEnds,
  student: Student,
  releasedAt: ReadonlyMap<string, Instant>,
): QuizMoments {
  return {
    rules,
    ends: endsFrom(ends),
    student,
    classes: releaseClasses(rules, student.classes),
    releasedAt,
  }
}

/** What a student may see of an attempt at an instant, with their counting grade. @param own all their attempts */
export function sightOf(
  { rules, ends, student, classes, releasedAt }: QuizMoments,
  attempt: Attempt,
  own: readonly Attempt[],
  viewed: FacetName[],
  now: Instant,
): { visible: Visible; grade: Grade } {
  const { sat, grade } = satOf(own, rules)
  const context: ReleaseContext = {
    handedInAt: attempt.state === 'open' ? null : attempt.handedInAt,
    markedAt: attempt.markedAt,
    passed: grade.passed,
    attemptsUsedAt: attemptsUsedAt(scheduleFor(rules, student).attempts, sat),
    due: dueFor(rules, student, attempt.window),
    classEnd: ends.ofClasses(classes),
    everyoneEnd: ends.everyone,
    releasedAt: classes.flatMap((name) => releasedAt.get(name) ?? []).sort()[0] ?? null,
    againUntil: againEnd(rules, student, attempt),
    viewed,
  }
  return { visible: visibleFacets(releaseOf(rules), context, now), grade }
}
