import { hasEnded, instantOfEnd, latest, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { releaseClasses } from '../schedule/assigned'
import { alike } from '../schedule/schedule'
import { latestEnd, startsOf } from '../schedule/starts'
import { earliestSight } from './earliest'
import { endsOf, type Assigned } from './ends'
import { telling, type FacetName } from './names'

/** A quiz that gives away questions which another asks as well. */
export interface LeakBetween {
  facet: FacetName
  /** Who may see it first, and when. */
  viewers: string[]
  at: Instant
  /** Who can still sit the other then, the viewers among them, and until when; null for no end. */
  sitters: string[]
  until: Instant | null
}

/**
 * The first instant at which a quiz shows what gives its key away, against every latest possible end of another that shares
 * questions with it (semantics §7). Null where nobody can sit the other any more by then.
 */
export function leakBetween(
  from: { rules: Rules; everyone: readonly Assigned[] },
  to: readonly Assigned[],
): LeakBetween | null {
  const ends = endsOf(from.everyone)
  const sights = alike(from.everyone, ({ classes }) => classes.join()).flatMap(({ schedule, students }) => {
    const starts = startsOf(schedule)
    const classes = releaseClasses(from.rules, students[0]!.classes)
    return telling.flatMap((facet) => {
      const at = earliestSight(from.rules, facet, schedule, classes, ends, starts)
      return at === null ? [] : [{ facet, at, ids: students.map((each) => each.schedule.student) }]
    })
  })
  const [first] = sights.sort((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : telling.indexOf(a.facet) - telling.indexOf(b.facet),
  )
  if (!first) return null
  const still = alike(to)
    .map(({ schedule, students }) => ({ end: latestEnd(schedule), students }))
    .filter(({ end }) => !hasEnded(end, first.at))
  if (!still.length) return null
  return {
    facet: first.facet,
    at: first.at,
    viewers: sights.filter(({ at, facet }) => at === first.at && facet === first.facet).flatMap(({ ids }) => ids),
    sitters: still.flatMap(({ students }) => students.map((each) => each.schedule.student)),
    until: instantOfEnd(latest(still.map(({ end }) => end))),
  }
}
