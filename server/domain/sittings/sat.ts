import type { Rules } from '../../../core/quiz'
import { exact, pointsText } from '../../../core/kit/exact'
import { gradeFor, gradeText, type Grade, type GradedAttempt } from '../../../core/marking'
import type { Sat } from '../../../core/schedule'
import type { Attempt } from './attempts'

/** Ended attempts as their grade needs them. */
export function graded(attempts: readonly Attempt[]): GradedAttempt[] {
  return attempts.flatMap((attempt) =>
    attempt.state === 'open'
      ? []
      : [
          {
            number: attempt.number,
            state: attempt.state,
            score: attempt.score,
            possible: attempt.possible ?? '0',
            daysLate: attempt.daysLate,
            ...(attempt.sections ? { sections: attempt.sections } : {}),
          },
        ],
  )
}

/** A grade as the scale of its quiz tells it; null without one. */
export const textOf = (grade: Grade, { grade: { scale } }: Pick<Rules, 'grade'>): string | null =>
  gradeText(grade, scale, grade.possible && pointsText(grade.possible))

/** Whether anything was missed: by the last attempt handed in, which has the best of those before it in it. */
function missedOf(attempts: readonly Attempt[]): Sat['missed'] {
  const last = attempts.findLast(({ state }) => state === 'handed')
  if (!last) return 'some'
  if (last.score === null || last.possible === null) return 'open'
  return exact(last.score).compare(exact(last.possible)) < 0 ? 'some' : 'none'
}

/** What somebody has sat of a quiz, and their counting grade: the one reading of attempts for every decision on them. */
export function satOf(attempts: readonly Attempt[], rules: Rules): { sat: Sat; grade: Grade } {
  const grade = gradeFor(graded(attempts), null, rules)
  return {
    grade,
    sat: {
      passed: grade.passed,
      percent: grade.percent,
      undecided: grade.undecided,
      missed: missedOf(attempts),
      attempts: attempts.map(({ number, state, handedInAt }) => ({
        number,
        state: state === 'open' ? 'sitting' : state,
        handedInAt,
      })),
    },
  }
}
