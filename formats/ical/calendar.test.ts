/** iCalendar out, read again by a parser of somebody else's (ical.js), and by what RFC 5545 asks of lines. */
import ICAL from 'ical.js'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { CalendarEvent } from '../../core/schedule/calendar'
import { calendarFile } from './calendar'

const written = '2030-05-01T08:00:00.000Z'
function read(text: string) {
  const component = new ICAL.Component(ICAL.parse(text) as unknown[])
  return component.getAllSubcomponents('vevent').map((each) => {
    const event = new ICAL.Event(each)
    return {
      uid: event.uid,
      title: event.summary,
      starts: event.startDate.toJSDate().toISOString(),
      ends: event.endDate.toJSDate().toISOString(),
    }
  })
}

describe('a calendar', () => {
  it('says who made it, in which version, and each event with its stamp (RFC 5545 3.6, 3.6.1)', () => {
    const text = calendarFile('My quizzes', [{ uid: 'q-w', title: 'Tides', starts: written, ends: null }], written)
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2\.0\r\nPRODID:/)
    expect(text).toMatch(/\r\nUID:q-w@thistle\r\n/)
    expect(text).toMatch(/\r\nDTSTAMP:20300501T080000Z\r\n/)
    expect(text).toMatch(/\r\nDTSTART:20300501T080000Z\r\n/)
  })
  it('whatever the titles, another parser reads what was written; no line is longer than 75 octets (3.1)', () => {
    const instant = fc.integer({ min: 0, max: 4_000_000_000 }).map((seconds) => iso(seconds * 1000))
    const event = fc.record({
      uid: fc.stringMatching(/^[a-z0-9-]{1,30}$/),
      title: fc
        .string({ unit: 'grapheme', maxLength: 120 })
        // What a title of a quiz never has: signs that control, and spaces at its ends.
        .map((text) => text.replace(/\p{Cc}/gu, '').trim()),
      starts: instant,
      length: fc.option(fc.integer({ min: 1, max: 1_000_000 })),
    })
    fc.assert(
      fc.property(fc.array(event, { maxLength: 6 }), (made) => {
        const events = made.map(({ uid, title, starts, length }, i): CalendarEvent => ({
          uid: `${uid}${i}`,
          title,
          starts,
          ends: length === null ? null : iso(Date.parse(starts) + length * 1000),
        }))
        const text = calendarFile('My quizzes', events, written)
        for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
        expect(read(text)).toEqual(
          events.map(({ uid, title, starts, ends }) => ({
            uid: `${uid}@thistle`,
            title,
            starts,
            ends: ends ?? starts,
          })),
        )
      }),
      { numRuns: 200 },
    )
  })
})
