import { hasEnded, instantOfEnd, latest, minute, plus, type End, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { releaseClasses } from '../schedule/assigned'
import { alike } from '../schedule/schedule'
import { latestEndFrom, startsOf, type Starts } from '../schedule/starts'
import { sightsOf, toldAtWork, type Sight } from './earliest'
import { endsOf, type Assigned } from './ends'
import { telling, type FacetName } from './names'

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

/** Students of one schedule and the same classes, with what is worked out of it once. */
interface Sort extends Assigned {
  ids: string[]
  starts: Starts[]
  end: End
}

const sortsOf = (everyone: readonly Assigned[]): Sort[] =>
  alike(everyone, ({ classes }) => classes.join()).map(({ schedule, students }) => {
    const starts = startsOf(schedule)
    const ids = students.map((each) => each.schedule.student)
    return { schedule, classes: students[0]!.classes, ids, starts, end: latestEndFrom(schedule, starts, '') }
  })

/** Who sees a facet first at an instant, and whose own next attempts are given away then, until when. */
interface Group {
  viewers: Set<string>
  own: End[]
}

/**
 * What gives the key away before everybody has sat: at each viewer's earliest possible sight against every latest
 * possible end, and against what the viewer may still sit. Viewers who see it at the same instant are told together.
 * Earliest first. Students with the same schedule and classes are worked out once.
 */
export function leaks(rules: Rules, everyone: readonly Assigned[], facets: readonly FacetName[] = telling): Leak[] {
  const ends = endsOf(everyone)
  const sorts = sortsOf(everyone)
  const sitters = sorts.filter(({ starts }) => starts.length)
  return facets
    .flatMap((facet) => {
      const groups = new Map<Instant, Group>()
      const group = (at: Instant, { ids }: Sort) => {
        const known = groups.get(at) ?? { viewers: new Set(), own: [] }
        groups.set(at, known)
        for (const id of ids) known.viewers.add(id)
        return known
      }
      for (const sort of sorts) {
        const sights = sightsOf(rules, facet, sort.schedule, releaseClasses(rules, sort.classes), ends, sort.starts)
        const first = earliest(sights)
        if (!first) continue
        group(first.at, sort)
        const own = earliest(sights.filter((sight) => !hasEnded(ownEnd(rules, facet, sort, sight), sight.at)))
        if (own) group(own.at, sort).own.push(ownEnd(rules, facet, sort, own))
      }
      return [...groups].flatMap(([at, { viewers, own }]) => leaksAt(facet, at, viewers, own, sitters))
    })
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : facets.indexOf(a.facet) - facets.indexOf(b.facet)))
}

const earliest = (sights: readonly Sight[]): Sight | undefined =>
  sights.reduce<Sight | undefined>((first, sight) => (!first || sight.at < first.at ? sight : first), undefined)

/** Until when somebody who has sat once and seen a facet may still sit again; before all where no rule gives another attempt. */
function ownEnd(rules: Rules, facet: FacetName, { schedule, starts }: Sort, { handedInAt }: Sight): End {
  const { count, wait, untilPassed, untilShare } = schedule.attempts
  const { pass } = rules.grade
  // Whoever passes has no further attempt: by passing, or by a share that passing reaches.
  const passingEnds = untilPassed || (untilShare !== null && pass?.by === 'percent' && untilShare <= pass.value)
  if (count === 1) return { is: 'beforeAll' }
  const { from, ifPassed } = rules.release[facet]
  const isLast = from.at === 'attemptsUsed' || (passingEnds && ifPassed)
  // What was told at work was told before anything was used up or passed.
  if (isLast && !toldAtWork(rules, facet)) return { is: 'beforeAll' }
  return latestEndFrom(schedule, starts, plus(handedInAt, wait * minute))
}

function leaksAt(
  facet: FacetName,
  at: Instant,
  viewers: ReadonlySet<string>,
  own: readonly End[],
  sitters: readonly Sort[],
): Leak[] {
  const still = sitters.filter(({ end }) => !hasEnded(end, at))
  // One viewer alone cannot tell themself; another who sees it as early still can be told by the first.
  const alone = viewers.size === 1 ? [...viewers][0] : undefined
  const others = still
    .map(({ ids, end }) => ({ ids: alone === undefined ? ids : ids.filter((id) => id !== alone), end }))
    .filter(({ ids }) => ids.length)
  if (!others.length && !own.length) return []
  return [
    {
      facet,
      viewers: [...viewers],
      at,
      sitters: others.flatMap(({ ids }) => ids),
      until: instantOfEnd(latest([...others.map(({ end }) => end), ...own])),
      own: own.length > 0,
    },
  ]
}
