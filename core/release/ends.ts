import { latest, type End } from '../kit/time'
import { latestEnd } from '../schedule/starts'
import type { Schedule } from '../schedule/schedule'

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

/** @param open ends of sittings under way: a rule that was shortened since does not shorten them */
export function endsOf(assigned: readonly Assigned[], open: readonly OpenEnd[] = []): Ends {
  const each = [...assigned.map(({ schedule, classes }): OpenEnd => ({ end: latestEnd(schedule), classes })), ...open]
  const byClass = new Map<string, End>()
  for (const { end, classes } of each)
    for (const name of classes) byClass.set(name, latest([end, ...(byClass.has(name) ? [byClass.get(name)!] : [])]))
  const everyone = latest(each.map(({ end }) => end))
  return {
    everyone,
    // Whoever is in no class of the quiz any more waits for everyone.
    ofClasses(classes) {
      const known = classes.flatMap((name) => byClass.get(name) ?? [])
      return known.length ? latest(known) : everyone
    },
  }
}
