import { later, type Instant } from '../kit/time'
import { latestEnd } from '../schedule/clock'
import type { Schedule } from '../schedule/schedule'

export interface Assigned {
  schedule: Schedule
  classes: string[]
}

/** The greatest end over the students given; null when one of them has no end; "" when nobody has a window. */
export function greatestEnd(assigned: readonly Assigned[], extra: readonly (Instant | null)[] = []): Instant | null {
  return [...assigned.map(({ schedule }) => latestEnd(schedule)), ...extra].reduce<Instant | null>(
    (latest, end) => later(latest, end),
    '',
  )
}

/** The same over those who share a class with a student. */
export function classEnd(
  assigned: readonly Assigned[],
  classes: readonly string[],
  extra: readonly (Instant | null)[] = [],
): Instant | null {
  return greatestEnd(
    assigned.filter((each) => each.classes.some((name) => classes.includes(name))),
    extra,
  )
}
