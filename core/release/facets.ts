import { earlier, instantOfEnd, later, minute, plus, type End, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { releaseOf } from './under-rules'
import { telling } from './names'
import { facetNames, type FacetName, type FacetRule, type Moment, type ReleaseRules } from './schema'

/** What the moments of one attempt depend on. Instants that are not known yet are null. */
export interface ReleaseContext {
  /** When this attempt was handed in; null while it is under way. */
  handedInAt: Instant | null
  /** When its last mark was given. */
  markedAt: Instant | null
  /** Whether the counting grade passes; null while undecided. */
  passed: boolean | null
  /** When the last allowed attempt was handed in, or the reason for more fell away. */
  attemptsUsedAt: Instant | null
  due: Instant | null
  /** The greatest end in the student's class. */
  classEnd: End
  /** The greatest end over everybody assigned. */
  everyoneEnd: End
  /** When the teacher released it to the student's class. */
  releasedAt: Instant | null
  /** Until when the paper may be taken up again: what gives the key away waits for that (semantics §6). */
  againUntil: End
  /** Facets shown "once" that have been viewed. */
  viewed: FacetName[]
}

export interface FacetSight {
  shown: boolean
  /** From when it is or will be shown; null when that is not known or never. */
  from: Instant | null
  moment: Moment['at']
  ifPassed: boolean
  /** Only of questions that were not answered fully right. */
  wrongOnly: boolean
}

export interface Visible {
  facets: Record<FacetName, FacetSight>
  /** The next instant at which something changes by itself, or null. */
  changesAt: Instant | null
}

/** Where nobody is left to wait for, handing in is enough. */
const ended = (end: End, { handedInAt }: ReleaseContext): Instant | null =>
  end.is === 'beforeAll' ? handedInAt : instantOfEnd(end)

/** What a moment with an offset begins from. */
function baseOf(at: Exclude<Moment['at'], 'never' | 'instant' | 'teacher'>, context: ReleaseContext): Instant | null {
  switch (at) {
    case 'handIn':
      return context.handedInAt
    case 'marked':
      return context.markedAt
    case 'attemptsUsed':
      // Without a further attempt to come, the end of the last window uses them up.
      return earlier(context.attemptsUsedAt, ended(context.classEnd, context))
    case 'due':
      return context.due
    case 'windowClosed':
      return ended(context.classEnd, context)
    case 'everyoneDone':
      return ended(context.everyoneEnd, context)
  }
}

/** The instant that a moment means in a context, or null while it is not known (or never comes). */
export function instantOf(moment: Moment, context: ReleaseContext): Instant | null {
  switch (moment.at) {
    case 'never':
      return null
    case 'instant':
      return moment.instant
    case 'teacher':
      return context.releasedAt
    default: {
      const base = baseOf(moment.at, context)
      return base === null || moment.offset === 0 ? base : plus(base, moment.offset * minute)
    }
  }
}

/** The instant from which a facet is shown by its moment, or later: nothing gives the key to a paper that may be taken up again. */
export function heldBack(
  name: FacetName,
  { wrongOnly }: Pick<FacetRule, 'wrongOnly'>,
  from: Instant | null,
  { againUntil }: Pick<ReleaseContext, 'againUntil'>,
): Instant | null {
  if (from === null || againUntil.is === 'beforeAll' || !(telling.includes(name) || wrongOnly)) return from
  return againUntil.is === 'never' ? null : later(from, againUntil.at)
}

/**
 * What a student may see of an attempt at an instant (semantics §7). Moments are recomputed, not latched. Nothing
 * is shown of an attempt that is under way.
 */
export function visibleFacets(rules: ReleaseRules, context: ReleaseContext, now: Instant): Visible {
  let changesAt: Instant | null = null
  const facets = {} as Record<FacetName, FacetSight>
  for (const name of facetNames) {
    const rule = rules[name]
    const from = heldBack(name, rule, instantOf(rule.from, context), context)
    const allowed =
      context.handedInAt !== null &&
      !(rule.ifPassed && context.passed !== true) &&
      !(rule.once && context.viewed.includes(name))
    // What ends before it begins is never shown, and changes nothing.
    const ever = allowed && from !== null && (rule.until === null || from < rule.until)
    const shown = ever && from <= now && (rule.until === null || now < rule.until)
    if (ever && from > now) changesAt = earlier(changesAt, from)
    if (shown && rule.until !== null) changesAt = earlier(changesAt, rule.until)
    facets[name] = { shown, from, moment: rule.from.at, ifPassed: rule.ifPassed, wrongOnly: rule.wrongOnly }
  }
  return { facets, changesAt }
}

/**
 * Whether a list (My quizzes, a gradebook) may show a facet. What may be viewed once is viewed in the review: a list
 * that shows it in passing would use the one viewing up, or show it a second time.
 */
export function shownInLists(rules: ReleaseRules, visible: Visible, name: FacetName): boolean {
  return visible.facets[name].shown && !rules[name].once
}

/** Whether any facet waits for the teacher's own release. */
export const releasedByHand = (rules: Pick<Rules, 'counts' | 'anonymous' | 'release'>): boolean =>
  Object.values(releaseOf(rules)).some((rule) => rule.from.at === 'teacher')
