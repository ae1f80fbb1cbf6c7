import { minute, plus, type Instant } from '../kit/time'
import { latestEnd } from '../schedule/clock'
import type { Rules } from '../quiz/schema'
import { classEnd, greatestEnd, type Assigned } from './ends'
import { instantOf } from './facets'
import type { FacetName } from './schema'

export interface Leak {
  facet: FacetName
  /** Who may see it first, and when. */
  viewers: string[]
  at: Instant
  /** Who can still sit then, and until when; null for no end. */
  sitters: string[]
  until: Instant | null
  /** The viewers' own next attempts are given away. */
  own: boolean
}

/** What gives the key away (semantics §7): own answers matter only beside marks. */
const telling: FacetName[] = ['key', 'comments', 'marks']

/** The earliest instant at which a student can see a facet: an attempt of no length, begun as the first window opens. */
function earliestSight(
  rules: Rules,
  facet: FacetName,
  viewer: Assigned,
  everyone: readonly Assigned[],
): Instant | null {
  const window = viewer.schedule.windows[0]
  if (!window) return null
  const opens = window.opens
  const { count, wait } = rules.attempts
  return instantOf(rules.release[facet].from, {
    handedInAt: opens,
    markedAt: opens,
    attemptsUsedAt: count === null ? null : plus(opens, (count - 1) * wait * minute),
    passed: true,
    due: window.due,
    classEnd: classEnd(everyone, viewer.classes),
    everyoneEnd: greatestEnd(everyone),
    // A release by hand is the teacher's own choice of a moment: it is not foreseen.
    releasedAt: null,
    viewed: [],
  })
}

const isPast = (end: Instant | null, at: Instant) => end !== null && end <= at

/**
 * What gives the key away before everybody has sat: at each viewer's earliest possible sight against every latest
 * possible end. Viewers who see it at the same instant are told together. Earliest first.
 */
export function leaks(rules: Rules, everyone: readonly Assigned[]): Leak[] {
  const found: Leak[] = []
  for (const facet of telling) {
    const bySight = new Map<Instant, Assigned[]>()
    for (const viewer of everyone) {
      const at = earliestSight(rules, facet, viewer, everyone)
      if (at !== null) bySight.set(at, [...(bySight.get(at) ?? []), viewer])
    }
    for (const [at, viewers] of bySight) found.push(...leaksAt(rules, facet, at, viewers, everyone))
  }
  return found.sort((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : telling.indexOf(a.facet) - telling.indexOf(b.facet),
  )
}

function leaksAt(
  rules: Rules,
  facet: FacetName,
  at: Instant,
  viewers: Assigned[],
  everyone: readonly Assigned[],
): Leak[] {
  const ids = new Set(viewers.map(({ schedule }) => schedule.student))
  const open = everyone.filter(({ schedule }) => schedule.windows.length && !isPast(latestEnd(schedule), at))
  // One viewer alone cannot tell themself; another who sees it as early still can be told by the first.
  const sitters = open.filter(({ schedule }) => viewers.length > 1 || !ids.has(schedule.student))
  const again = rules.attempts.count !== 1
  const own = again && open.some(({ schedule }) => ids.has(schedule.student))
  if (!sitters.length && !own) return []
  return [
    {
      facet,
      viewers: [...ids],
      at,
      sitters: sitters.map(({ schedule }) => schedule.student),
      until: greatestEnd(sitters.length ? sitters : open),
      own,
    },
  ]
}
