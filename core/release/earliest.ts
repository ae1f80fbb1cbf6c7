import { releaseOf } from './under-rules'
import { makesGrade } from '../rules/counts'
import { type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { againUntil } from '../schedule/again'
import { limitsFor } from '../schedule/clock'
import type { Schedule } from '../schedule/schedule'
import { earliestUsedUp, quickest, startsOf, windowAt, type Starts } from '../schedule/starts'
import type { Ends } from './ends'
import { heldBack, instantOf } from './facets'
import { ofQuestions, type FacetName } from './schema'

/** A first sight of a facet: after an attempt of no length that was handed in at an instant. */
export interface Sight {
  handedInAt: Instant
  at: Instant
}

/**
 * The earliest sights that a student can have of a facet, one for each stretch of time in which they can start: after an
 * attempt of no length begun as it opens (semantics §7), or as soon as attempts are used up. None where that is never, or not foreseen.
 */
export function sightsOf(
  rules: Rules,
  facet: FacetName,
  schedule: Schedule,
  classes: readonly string[],
  ends: Ends,
  starts: readonly Starts[] = startsOf(schedule),
): Sight[] {
  // What shows only the wrong ones tells which they are.
  if (facet === 'marks') {
    const others = ofQuestions.filter((name) => name !== 'marks' && releaseOf(rules)[name].wrongOnly)
    if (others.length)
      return [facet, ...others].flatMap((name) => ownSights(rules, name, schedule, classes, ends, starts))
  }
  return ownSights(rules, facet, schedule, classes, ends, starts)
}

function ownSights(
  rules: Rules,
  facet: FacetName,
  schedule: Schedule,
  classes: readonly string[],
  ends: Ends,
  starts: readonly Starts[],
): Sight[] {
  const rule = releaseOf(rules)[facet]
  // Without a pass mark nobody passes, nor where nothing counts.
  const canPass = rules.grade.pass !== null && makesGrade(rules.counts)
  if (rule.ifPassed && !canPass) return []
  // Whoever passes, or reaches the share, at once has used them up.
  const { untilPassed, untilShare } = rules.attempts
  const passingEnds = (untilPassed && canPass) || (untilShare !== null && makesGrade(rules.counts))
  // What is told while they work, or by a receipt, is told from their start on, whatever is released afterwards.
  const inHand = facet === 'questions' && rules.receipt === 'answers'
  if (toldAtWork(rules, facet) || inHand) return starts.map(({ from }) => ({ handedInAt: from, at: from }))
  const byUse = rule.from.at === 'attemptsUsed'
  return begun(schedule, starts, byUse && !passingEnds).flatMap(({ window, from: handedInAt }): Sight[] => {
    const attemptsUsedAt = byUse ? earliestUsedUp(schedule, starts, passingEnds, handedInAt) : null
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
    const held = heldBack(facet, rule, from, { againUntil: again })
    if (held === null) return []
    const at = held > handedInAt ? held : handedInAt
    return rule.until !== null && at >= rule.until ? [] : [{ handedInAt, at }]
  })
}

/**
 * Attempts of no length of which one is the first sight: one as each stretch of time opens; and, where the moment hangs on
 * using all up, those of the quickest row, which another begun between them would hold up.
 */
function begun(schedule: Schedule, starts: readonly Starts[], byRow: boolean): Pick<Starts, 'window' | 'from'>[] {
  if (!byRow || schedule.attempts.count === null) return [...starts]
  const row = quickest(schedule, starts, '', schedule.attempts.count).flatMap((from) => {
    const window = windowAt(schedule, from)
    return window ? [{ window, from }] : []
  })
  return [...starts, ...row]
}

/** Whether something that gives the key away is told while a paper is being sat: right or wrong, or comments, of a checked answer. */
export function toldAtWork({ working, counts }: Pick<Rules, 'working' | 'counts'>, facet: FacetName): boolean {
  if (!working.check || counts === 'survey') return false
  return facet === 'marks' || (facet === 'comments' && working.comments)
}

/** The earliest of them, or null. */
export function earliestSight(...given: Parameters<typeof sightsOf>): Instant | null {
  return (
    sightsOf(...given)
      .map(({ at }) => at)
      .sort()[0] ?? null
  )
}
