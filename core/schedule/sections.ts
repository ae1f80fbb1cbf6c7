import { exact } from '../kit/exact'
import { duration } from '../kit/phrases'
import { later, minute, plus, type Instant } from '../kit/time'
import type { Content, Section } from '../quiz/schema'
import type { Schedule } from './schedule'

/** When the clock of a section that has been entered ends. */
export interface SectionLimits {
  deadline: Instant
  /** The last instant at which anything of it is taken: what was written before the deadline may arrive with grace. */
  stops: Instant
}

/** Minutes that a student has for a section of its own clock, by the formula of the whole limit (semantics §5). */
export function sectionMinutes(schedule: Pick<Schedule, 'factor' | 'extraMinutes'>, minutes: number): number {
  return exact(minutes).mul(exact(schedule.factor)).add(exact(schedule.extraMinutes)).valueOf()
}

/** The limits of a section that was entered at an instant. The sitting's own hard stop ends it as well, whatever these say. */
export function sectionLimits(
  schedule: Pick<Schedule, 'factor' | 'extraMinutes' | 'grace'>,
  section: Pick<Section, 'limit'> & { limit: number },
  enteredAt: Instant,
): SectionLimits {
  const deadline = plus(enteredAt, sectionMinutes(schedule, section.limit) * minute)
  return { deadline, stops: plus(deadline, schedule.grace * minute) }
}

/** Nothing shortens a section under way. */
export const neverShorterSection = (before: SectionLimits, next: SectionLimits): SectionLimits => ({
  deadline: later(before.deadline, next.deadline)!,
  stops: later(before.stops, next.stops)!,
})

/** Sections that have a clock of their own. */
export const clockedSections = (content: Content): (Section & { limit: number })[] =>
  content.sections.filter((section): section is Section & { limit: number } => section.limit !== null)

/** What students are told of them before they start. */
export function toldOfSections(content: Content, schedule: Pick<Schedule, 'factor' | 'extraMinutes'>): string[] {
  const clocked = clockedSections(content)
  if (!clocked.length) return []
  return [
    ...clocked.map(
      (section) =>
        `“${section.title}” has a clock of its own: ${duration(sectionMinutes(schedule, section.limit))} from when you enter it.`,
    ),
    'A section with a clock of its own is closed when you leave it, and when its time is up.',
  ]
}
