import { releaseOf } from './under-rules'
import { makesGrade } from '../rules/counts'
import { type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { againUntil } from '../schedule/again'
import { limitsFor } from '../schedule/clock'
import type { Schedule } from '../schedule/schedule'
import { earliestUsedUp, startsOf, type Starts } from '../schedule/starts'
import type { Ends } from './ends'
import { heldBack, instantOf } from './facets'
import type { FacetName } from './schema'

/** A first sight of a facet: after an attempt of no length that was handed in at an instant. */
export interface Sight {
  handedInAt: Instant
  at: Instant
}

/**
 * The earliest sights that a student can have of a facet, one for each stretch of time in which they can start: after an
 * attempt of no length begun as it opens (semantics §7). None where that is never, or not foreseen.
 */
export function sightsOf(
  rules: Rules,
  facet: FacetName,
  schedule: Schedule,
  classes: readonly string[],
  ends: Ends,
  starts: readonly Starts[] = startsOf(schedule),
): Sight[] {
  const rule = releaseOf(rules)[facet]
  // Without a pass mark nobody passes, nor where nothing counts.
  const canPass = rules.grade.pass !== null && makesGrade(rules.counts)
  if (rule.ifPassed && !canPass) return []
  // Whoever passes, or reaches the share, at once has used them up.
  const { untilPassed, untilShare } = rules.attempts
  const passingEnds = (untilPassed && canPass) || (untilShare !== null && makesGrade(rules.counts))
  const attemptsUsedAt = earliestUsedUp(schedule, starts, passingEnds)
  return starts.flatMap(({ window, from: handedInAt }): Sight[] => {
    const again = againUntil(schedule, window, limitsFor(schedule, { startedAt: handedInAt, window: window.id }))
    const from = instantOf(rule.from, {
      handedInAt,
      markedAt: handedInAt,
      attemptsUsedAt,
      passed: true,
      due: window.due,
      classEnd: ends.ofClasses(classes),
      everyoneEnd: ends.everyone,
      // A release by hand is the teacher's own choice of a moment: it is not foreseen.
      releasedAt: null,
      againUntil: again,
      viewed: [],
    })
    const held = heldBack(facet, from, { againUntil: again })
    if (held === null) return []
    const at = held > handedInAt ? held : handedInAt
    return rule.until !== null && at >= rule.until ? [] : [{ handedInAt, at }]
  })
}

/** The earliest of them, or null. */
export function earliestSight(...given: Parameters<typeof sightsOf>): Instant | null {
  return (
    sightsOf(...given)
      .map(({ at }) => at)
      .sort()[0] ?? null
  )
}
