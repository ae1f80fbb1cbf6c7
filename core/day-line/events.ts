import { facetLabels } from '../release/schema'
import { list } from '../kit/phrases'
import type { Instant } from '../kit/time'
import type { DayLine } from './day-line'

/** Something that happens, in words: for a page too narrow for a line. */
export interface DayEvent {
  at: Instant
  words: string
  /** Who is meant. */
  who: string
  sort: 'opens' | 'closes' | 'reach' | 'due' | 'last' | 'shown' | 'leak'
}

/** What happens when, in order: the same marks as on the line. What happens to several at once is said once. */
export function eventsOf(line: DayLine): DayEvent[] {
  const sitting = line.sitting.flatMap((lane) =>
    lane.spans.flatMap((span): DayEvent[] => {
      const event = (sort: DayEvent['sort'], at: Instant | null, words: string): DayEvent[] =>
        at === null ? [] : [{ at, words, who: lane.name, sort }]
      return [
        ...event('opens', span.opens, 'may start'),
        ...span.marks.flatMap((mark) => event(mark.sort, mark.at, mark.words)),
        ...event('closes', span.closes, 'the window closes'),
        ...(span.closes !== null && span.reach !== null && span.reach > span.closes
          ? event('reach', span.reach, 'the last running clock ends here')
          : []),
      ]
    }),
  )
  const shown = line.release.flatMap((lane) =>
    lane.spans.flatMap((span): DayEvent[] =>
      span.from === null
        ? []
        : [
            {
              at: span.from,
              words: `${facetLabels[lane.facet].toLowerCase()} may be seen${span.leak ? ', while others can still sit' : ''}`,
              who: span.groups.join(', '),
              sort: span.leak ? 'leak' : 'shown',
            },
          ],
    ),
  )
  const alike = new Map<string, DayEvent & { all: string[] }>()
  for (const event of [...sitting, ...shown]) {
    const key = `${event.at} ${event.sort} ${event.words}`
    const known = alike.get(key)
    if (known) known.all.push(event.who)
    else alike.set(key, { ...event, all: [event.who] })
  }
  return [...alike.values()]
    .map(({ all, ...event }) => ({ ...event, who: list(all) }))
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
}
