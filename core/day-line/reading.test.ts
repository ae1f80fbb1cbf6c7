/** The day line as it is read: an instant of it, its list, its scales, and lanes of many students. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { minute, ms, plus } from '../kit/time'
import { noAccommodation, type Rules } from '../quiz'
import { assignedTo, scheduleFor } from '../schedule'
import { dayLine } from './day-line'
import { dayScale, trueScale } from './day-scale'
import { eventsOf } from './events'
import { atInstant } from './instant'

const rules = (over: Partial<Rules> = {}): Rules =>
  sampleRules({
    limit: 60,
    grace: 0,
    windows: [
      { ...sampleWindow, due: at('11:00') },
      { ...sampleWindow, id: 'w2', classes: ['sat'], opens: at('10:00'), closes: at('14:00') },
    ],
    ...over,
  })
const classes = [
  { id: 'tue', name: 'Tuesday', students: 2 },
  { id: 'sat', name: 'Saturday', students: 1 },
]
const pupils = [
  sampleStudent({ id: 'a', name: 'Ada Brook' }),
  sampleStudent({ id: 'b', name: 'Ben Carr', accommodations: [{ ...noAccommodation, factor: 2 }] }),
  sampleStudent({ id: 'c', name: 'Cleo Dunn', classes: ['sat'] }),
]
const lineOf = (each: Rules, students = pupils) =>
  dayLine(
    each,
    classes,
    assignedTo(students, each),
    (id) => scheduleFor(each, sampleStudent({ id: `class ${id}`, classes: [id] })),
    at('08:00'),
  )
const told = (time: string, each = rules()) => atInstant(lineOf(each), assignedTo(pupils, each), classes, at(time))

describe('an instant of the line', () => {
  it('tells who can start, who may be at work and who sees what', () => {
    expect(told('08:30')).toEqual({
      start: 'Nobody can start.',
      work: 'Nobody can be at work any more, or yet.',
      see: 'Nothing is shown of a paper.',
    })
    expect(told('09:30').start).toBe('2 students can start: all 2 of Tuesday.')
    expect(told('10:30').start).toBe('3 students can start: all 2 of Tuesday and the one student of Saturday.')
    expect(told('12:30')).toMatchObject({
      start: '1 student can start: the one student of Saturday.',
      work: '3 students may be at work.',
    })
    // Ben's two hours may reach 13:59, Ada's one 12:59.
    expect(told('13:30').work).toBe('2 students may be at work.')
    expect(told('13:30').see).toMatch(/^Tuesday and Saturday may see score of the attempt/)
    expect(told('16:00').see).toMatch(/correct answers/)
  })
})

describe('its list', () => {
  it('has every mark of the line once, in order, with all who are meant', () => {
    const events = eventsOf(lineOf(rules()))
    expect(events.map((event) => event.at)).toEqual(events.map((event) => event.at).sort())
    expect(events.find(({ words }) => words === 'may start')).toMatchObject({
      at: at('09:00'),
      who: 'Tuesday and Ben Carr',
    })
    expect(events.find(({ sort }) => sort === 'due')).toMatchObject({ at: at('11:00'), who: 'Tuesday and Ben Carr' })
    expect(events.filter(({ sort }) => sort === 'reach').map((event) => event.at)).toEqual([
      at('12:59'),
      at('13:59'),
      at('15:00'),
    ])
  })
})

describe('lanes of many', () => {
  it('five hundred students with forty accommodations share as many lanes as there are sorts', () => {
    const many = Array.from({ length: 500 }, (_, i) =>
      sampleStudent({
        id: `s${i}`,
        name: `Student ${i}`,
        accommodations: [{ ...noAccommodation, ...(i < 40 ? { extraMinutes: 5 * (1 + (i % 4)) } : {}) }],
      }),
    )
    const lanes = lineOf(rules(), many).sitting.filter(({ isClass }) => !isClass)
    expect(lanes.map(({ name, students, note }) => [name, students.length, note])).toEqual(
      [0, 1, 2, 3].map((i) => [`Student ${i} and 9 more`, 10, `+${5 * (i + 1)} min`]),
    )
  })
})

describe('scales', () => {
  const instant = fc.integer({ min: 0, max: 60 * 24 * 90 }).map((n) => plus('2030-01-01T00:00:00.000Z', n * minute))
  it('give back the instant of a place, to the minute', () => {
    fc.assert(
      fc.property(fc.uniqueArray(instant, { minLength: 2, maxLength: 12 }), instant, (known, other) => {
        const sorted = [...known].sort()
        const [first, last] = [sorted[0]!, sorted.at(-1)!]
        const inside = other < first ? first : other > last ? last : other
        for (const scale of [dayScale(known, 'UTC'), trueScale(first, last, 'UTC')])
          expect(Math.abs(ms(scale.from(scale.at(inside))) - ms(inside))).toBeLessThanOrEqual(minute)
      }),
    )
  })
  it.each([
    ['20 minutes', 20, '09:00', 5],
    ['a day', 1440, '09:00', 9],
    ['a month', 30 * 1440, 'Tue 28 May', 5],
    ['a year', 365 * 1440, '1 Jul', 13],
  ])('to scale: %s has some ticks at round times of the school’s clock', (_what, minutes, label, most) => {
    const from = at('08:57')
    const { ticks } = trueScale(from, plus(from, minutes * minute), 'UTC')
    expect(ticks.length).toBeGreaterThan(1)
    expect(ticks.length).toBeLessThanOrEqual(most)
    expect(ticks.map((tick) => tick.label).join(', ')).toContain(label)
    expect(ticks.map((tick) => tick.at)).toEqual(ticks.map((tick) => tick.at).sort((a, b) => a - b))
  })
  it('to scale: days stay days where the clocks change', () => {
    const labels = (from: string, to: string) => trueScale(from, to, 'Europe/London').ticks.map(({ label }) => label)
    expect(labels('2026-10-23T11:00:00.000Z', '2026-11-01T11:00:00.000Z')).toContain('Mon 26 Oct')
    expect(labels('2026-10-24T20:00:00.000Z', '2026-10-27T13:00:00.000Z')).toEqual([
      'Sun 25 00:00',
      'Sun 25 12:00',
      'Mon 26 00:00',
      'Mon 26 12:00',
      'Tue 27 00:00',
      'Tue 27 12:00',
    ])
  })
})
