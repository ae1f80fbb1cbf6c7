import { minute, plus, type Instant } from '../kit/time'
import type { Rules, Window } from '../quiz/schema'
import type { Ends } from './ends'
import { instantOf } from './facets'
import type { FacetName } from './schema'

/**
 * The earliest instant at which somebody who sits in a window can see a facet: after an attempt of no length, begun as
 * the window opens, and as many as it takes without a pause (semantics §7). Null where that is not foreseen or never.
 */
export function earliestSight(
  rules: Rules,
  facet: FacetName,
  window: Window,
  classes: readonly string[],
  ends: Ends,
): Instant | null {
  const { count, wait } = rules.attempts
  return instantOf(rules.release[facet].from, {
    handedInAt: window.opens,
    markedAt: window.opens,
    attemptsUsedAt: count === null ? null : plus(window.opens, (count - 1) * wait * minute),
    passed: true,
    due: window.due,
    classEnd: ends.ofClasses(classes),
    everyoneEnd: ends.everyone,
    // A release by hand is the teacher's own choice of a moment: it is not foreseen.
    releasedAt: null,
    viewed: [],
  })
}
