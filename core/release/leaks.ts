import { hasEnded, instantOfEnd, latest, type End, type Instant } from '../kit/time'
import { latestEnd } from '../schedule/clock'
import type { Rules } from '../quiz/schema'
import { earliestSight } from './earliest'
import { endsOf, type Assigned } from './ends'
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
export const telling: readonly FacetName[] = ['key', 'comments', 'marks']

/**
 * What gives the key away before everybody has sat: at each viewer's earliest possible sight against every latest
 * possible end. Viewers who see it at the same instant are told together. Earliest first.
 */
export function leaks(rules: Rules, everyone: readonly Assigned[]): Leak[] {
  const ends = endsOf(everyone)
  const sitters = everyone
    .filter(({ schedule }) => schedule.windows.length)
    .map(({ schedule }): Sitter => ({ id: schedule.student, end: latestEnd(schedule) }))
  const found: Leak[] = []
  for (const facet of telling) {
    const bySight = new Map<Instant, string[]>()
    for (const { schedule, classes } of everyone) {
      const window = schedule.windows[0]
      const at = window ? earliestSight(rules, facet, window, classes, ends) : null
      if (at === null) continue
      const known = bySight.get(at)
      if (known) known.push(schedule.student)
      else bySight.set(at, [schedule.student])
    }
    for (const [at, viewers] of bySight) found.push(...leaksAt(rules, facet, at, viewers, sitters))
  }
  return found.sort((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : telling.indexOf(a.facet) - telling.indexOf(b.facet),
  )
}

interface Sitter {
  id: string
  end: End
}

function leaksAt(rules: Rules, facet: FacetName, at: Instant, viewers: string[], sitters: readonly Sitter[]): Leak[] {
  const ids = new Set(viewers)
  const open = sitters.filter(({ end }) => !hasEnded(end, at))
  // One viewer alone cannot tell themself; another who sees it as early still can be told by the first.
  const others = open.filter(({ id }) => viewers.length > 1 || !ids.has(id))
  const own = rules.attempts.count !== 1 && open.some(({ id }) => ids.has(id))
  if (!others.length && !own) return []
  return [
    {
      facet,
      viewers,
      at,
      sitters: others.map(({ id }) => id),
      until: instantOfEnd(latest((others.length ? others : open).map(({ end }) => end))),
      own,
    },
  ]
}
