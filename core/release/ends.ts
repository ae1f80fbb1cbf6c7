import { latest, type End } from '../kit/time'
import { latestEnd } from '../schedule/starts'
import { alike, type Schedule } from '../schedule/schedule'

export interface Assigned {
  schedule: Schedule
  classes: string[]
}

/** Those who share a class with somebody. @param classes theirs */
export function classmates<T extends { classes: readonly string[] }>(
  everyone: readonly T[],
  classes: readonly string[],
): T[] {
  return everyone.filter((each) => each.classes.some((name) => classes.includes(name)))
}

/** The ends that moments of release wait for (semantics §7), worked out once for all students of a quiz. */
export interface Ends {
  /** Everyone done. */
  everyone: End
  /** Closed for them: the greatest end over those who share one of these classes. */
  ofClasses(classes: readonly string[]): End
}

/** An end that a sitting under way has whatever the rules say by now, with the classes of who sits. */
export interface OpenEnd {
  end: End
  classes: readonly string[]
}

/** Latest ends of everybody and by class, as data: it is kept, and added to. */
export interface LatestEnds {
  everyone: End
  byClass: ReadonlyMap<string, End>
}

/** The latest ends of some; with `before`, of those and of whoever was counted before. */
export function latestEnds(
  each: readonly OpenEnd[],
  before: LatestEnds = { everyone: latest([]), byClass: new Map() },
): LatestEnds {
  const byClass = new Map(before.byClass)
  for (const { end, classes } of each)
    for (const name of classes) byClass.set(name, latest([end, ...(byClass.has(name) ? [byClass.get(name)!] : [])]))
  return { everyone: latest([before.everyone, ...each.map(({ end }) => end)]), byClass }
}

/** What students by their schedules wait for, before any sitting under way. */
export const endsByRules = (assigned: readonly Assigned[]): LatestEnds =>
  latestEnds(
    alike(assigned).flatMap(({ schedule, students }) => {
      const end = latestEnd(schedule)
      return students.map(({ classes }) => ({ end, classes }))
    }),
  )

/** The ends that moments of release ask. */
export function endsFrom({ everyone, byClass }: LatestEnds): Ends {
  return {
    everyone,
    // Whoever is in no class of the quiz any more waits for everyone.
    ofClasses(classes) {
      const known = classes.flatMap((name) => byClass.get(name) ?? [])
      return known.length ? latest(known) : everyone
    },
  }
}

/** @param open ends of sittings under way: a rule that was shortened since does not shorten them */
export const endsOf = (assigned: readonly Assigned[], open: readonly OpenEnd[] = []): Ends =>
  endsFrom(latestEnds(open, endsByRules(assigned)))
