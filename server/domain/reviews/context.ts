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
import { attemptsUsedAt } from '../../../core/schedule'
import type { Attempt } from '../sittings/attempts'
import { satOf } from '../sittings/sat'

/** What the moments of a student's releases depend on, beside their attempts. */
export interface QuizMoments {
  rules: Rules
  ends: Ends
  /** Those of the student's classes for which the quiz is meant. */
  classes: readonly string[]
  releasedAt: ReadonlyMap<string, Instant>
}

/**
 * @param student whose classes are known
 * @param releasedAt when the teacher released it, by class
 */
export function quizMoments(
  rules: Rules,
  ends: LatestEnds,
  student: Pick<Student, 'classes'>,
  releasedAt: ReadonlyMap<string, Instant>,
): QuizMoments {
  return {
    rules,
    ends: endsFrom(ends),
    classes: student.classes.filter((each) => rules.windows.some((window) => window.classes.includes(each))),
    releasedAt,
  }
}

/** What a student may see of an attempt at an instant, with their counting grade. @param own all their attempts */
export function sightOf(
  { rules, ends, classes, releasedAt }: QuizMoments,
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
    attemptsUsedAt: attemptsUsedAt(rules.attempts, sat),
    due: rules.windows.find((window) => window.id === attempt.window)?.due ?? null,
    classEnd: ends.ofClasses(classes),
    everyoneEnd: ends.everyone,
    releasedAt: classes.flatMap((name) => releasedAt.get(name) ?? []).sort()[0] ?? null,
    viewed,
  }
  return { visible: visibleFacets(releaseOf(rules), context, now), grade }
}
