import { count } from '../kit/phrases'
import type { Instant } from '../kit/time'
import type { Schedule } from './schedule'

/** Something of a quiz in somebody's calendar. */
export interface CalendarEvent {
  /** The same for the same thing whenever it is asked: a calendar that knows it puts the new one in its place. */
  uid: string
  title: string
  starts: Instant
  /** Null for something that has no length. */
  ends: Instant | null
}

/** What of a quiz stands in a calendar: each window from when one may start to when it closes, and each due time. */
export function calendarEvents(quiz: string, title: string, schedule: Pick<Schedule, 'windows'>): CalendarEvent[] {
  return schedule.windows.flatMap(({ id, opens, closes, due }) => [
    {
      uid: `${quiz}-${id}`,
      title: closes === null ? `${title}: opens` : title,
      starts: opens,
      ends: closes !== null && closes > opens ? closes : null,
    },
    ...(due === null || due === closes
      ? []
      : [{ uid: `${quiz}-${id}-due`, title: `${title}: due`, starts: due, ends: null }]),
  ])
}

/** What waits for a mark by hand, from when its first paper came in: until it is marked it stands in its teachers' calendars. */
export const toMarkEvent = (quiz: string, title: string, papers: number, since: Instant): CalendarEvent => ({
  uid: `${quiz}-to-mark`,
  title: `${title}: ${count(papers, 'paper')} to mark`,
  starts: since,
  ends: null,
})
