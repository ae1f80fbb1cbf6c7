import { hasEnded, instantOfEnd, latest, minute, plus, type End, type Instant } from '../kit/time'
import type { Rules } from '../quiz/schema'
import { latestEndFrom, startsOf, type Starts } from '../schedule/starts'
import { sightsOf, type Sight } from './earliest'
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

/** Somebody assigned, with what is worked out of their schedule once. */
interface Student extends Assigned {
  id: string
  starts: Starts[]
  end: End
}

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
export function leaks(rules: Rules, everyone: readonly Assigned[]): Leak[] {
  const ends = endsOf(everyone)
  const students = everyone.map((each): Student => {
    const starts = startsOf(each.schedule)
    return { ...each, id: each.schedule.student, starts, end: latestEndFrom(each.schedule, starts, '') }
  })
  const sitters = students.filter(({ starts }) => starts.length)
  return telling
    .flatMap((facet) => {
      const groups = new Map<Instant, Group>()
      const group = (at: Instant) => {
        const known = groups.get(at) ?? { viewers: new Set(), own: [] }
        groups.set(at, known)
        return known
      }
      for (const student of students) {
        const sights = sightsOf(rules, facet, student.schedule, student.classes, ends, student.starts)
        const first = earliest(sights)
        if (!first) continue
        group(first.at).viewers.add(student.id)
        const own = earliest(sights.filter((sight) => !hasEnded(ownEnd(rules, facet, student, sight), sight.at)))
        if (!own) continue
        group(own.at).viewers.add(student.id)
        group(own.at).own.push(ownEnd(rules, facet, student, own))
      }
      return [...groups].flatMap(([at, { viewers, own }]) => leaksAt(facet, at, viewers, own, sitters))
    })
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : telling.indexOf(a.facet) - telling.indexOf(b.facet)))
}

const earliest = (sights: readonly Sight[]): Sight | undefined =>
  sights.reduce<Sight | undefined>((first, sight) => (!first || sight.at < first.at ? sight : first), undefined)

/** Until when somebody who has sat once and seen a facet may still sit again; before all where no rule gives another attempt. */
function ownEnd(rules: Rules, facet: FacetName, { schedule, starts }: Student, { handedInAt }: Sight): End {
  const { count, wait, untilPassed } = schedule.attempts
  const isLast = count === 1 || rules.release[facet].from.at === 'attemptsUsed'
  if (isLast || (untilPassed && rules.release[facet].ifPassed)) return { is: 'beforeAll' }
  return latestEndFrom(schedule, starts, plus(handedInAt, wait * minute))
}

function leaksAt(
  facet: FacetName,
  at: Instant,
  viewers: ReadonlySet<string>,
  own: readonly End[],
  sitters: readonly Student[],
): Leak[] {
  // One viewer alone cannot tell themself; another who sees it as early still can be told by the first.
  const others = sitters.filter(({ id, end }) => !hasEnded(end, at) && (viewers.size > 1 || !viewers.has(id)))
  if (!others.length && !own.length) return []
  return [
    {
      facet,
      viewers: [...viewers],
      at,
      sitters: others.map(({ id }) => id),
      until: instantOfEnd(latest([...others.map(({ end }) => end), ...own])),
      own: own.length > 0,
    },
  ]
}
