import ical, { ICalCalendarMethod } from 'ical-generator'
import type { Instant } from '../../core/kit/time'
import type { CalendarEvent } from '../../core/schedule/calendar'

/**
 * A calendar as iCalendar (RFC 5545). Times are instants in UTC: whatever zone the calendar reads them in, they mean the
 * same.
 * @param written when it was written
 */
export function calendarFile(name: string, events: readonly CalendarEvent[], written: Instant): string {
  const calendar = ical({
    name,
    prodId: { company: 'Thistle', product: 'Calendar', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    // Seconds after which a calendar that subscribes may ask again.
    ttl: 3600,
  })
  for (const { uid, title, starts, ends } of events)
    calendar.createEvent({
      id: `${uid}@thistle`,
      stamp: new Date(written),
      start: new Date(starts),
      // What has no length has no end: it would have to be later than its start (RFC 5545 3.8.2.2).
      ...(ends === null ? {} : { end: new Date(ends) }),
      summary: title,
    })
  return calendar.toString()
}
