import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { beforeAll, endAt, minute, ms, never, plus } from '../kit/time'
import type { Rules } from '../quiz'
import { clockFor, limitsFor, neverShorter } from './clock'
import { latestEnd } from './starts'
import { notSat, type AttemptFact, type Sat } from './attempts'
import { maySit } from './may-sit'
import { scheduleFor } from './schedule'
import { dayScale } from '../day-line/day-scale'
import { noAccommodation } from '../quiz'

const schedule = (over: Partial<Rules> = {}, student = sampleStudent()) =>
  scheduleFor(sampleRules({ limit: 60, ...over }), student)
const started = (time: string) => ({ startedAt: at(time), window: 'w1' })

describe('deadline and hard stop', () => {
  it('hand in what is there: grace only lets arrive what was written before', () => {
    expect(limitsFor(schedule({ grace: 2 }), started('09:30'))).toEqual({
      deadline: at('10:30'),
      onTimeUntil: at('10:32'),
      hardStop: at('10:32'),
    })
  })
  it('let them finish: until the greatest overrun, or the window’s end', () => {
    expect(limitsFor(schedule({ atDeadline: 'finish', overrun: 30 }), started('09:30')).hardStop).toBe(at('11:00'))
    expect(limitsFor(schedule({ atDeadline: 'finish', overrun: null }), started('09:30')).hardStop).toBe(at('11:59'))
    // A clock that runs past the window still has its grace.
    expect(limitsFor(schedule({ atDeadline: 'finish', overrun: null, grace: 1 }), started('11:30')).hardStop).toBe(
      at('12:31'),
    )
  })
  it('let them finish: never past the due time where nothing is taken late', () => {
    const windows = [{ ...sampleWindow, closes: null, due: at('10:31') }]
    const strict = { atDeadline: 'finish' as const, overrun: null, windows, grace: 1 }
    expect(
      limitsFor(schedule({ ...strict, late: { accepted: false, costPerDay: 0, lastDays: null } }), started('09:30')),
    ).toEqual({
      deadline: at('10:30'),
      onTimeUntil: at('10:31'),
      hardStop: at('10:32'),
    })
    expect(
      limitsFor(schedule({ ...strict, late: { accepted: true, costPerDay: 0, lastDays: null } }), started('09:30'))
        .hardStop,
    ).toBeNull()
  })
  it('no limit: the window’s end; neither: never', () => {
    expect(limitsFor(schedule({ limit: null }), started('09:30')).deadline).toBe(at('11:59'))
    expect(
      limitsFor(schedule({ limit: null, windows: [{ ...sampleWindow, closes: null }] }), started('09:30')),
    ).toEqual({ deadline: null, onTimeUntil: null, hardStop: null })
  })
  it('“late not possible” caps the deadline at the due time', () => {
    const windows = [{ ...sampleWindow, due: at('10:00') }]
    expect(
      limitsFor(schedule({ windows, late: { accepted: false, costPerDay: 0, lastDays: null } }), started('09:30'))
        .deadline,
    ).toBe(at('10:00'))
    expect(limitsFor(schedule({ windows }), started('09:30')).deadline).toBe(at('10:30'))
  })
  it('late papers are taken until a last day: nobody starts after it, and a clock ends with it', () => {
    const windows = [{ ...sampleWindow, closes: null, due: at('10:00') }]
    const late = { accepted: true, costPerDay: 0, lastDays: 2 }
    const last = '2030-05-16T10:00:00.000Z'
    const mine = schedule({ late, windows, limit: null })
    expect(limitsFor(mine, started('09:30'))).toMatchObject({ deadline: last })
    const running = schedule({ late, windows, limit: 60 })
    expect(limitsFor(running, { startedAt: '2030-05-16T09:30:00.000Z', window: 'w1' }).deadline).toBe(last)
    expect(limitsFor(running, started('09:30')).deadline).toBe(at('10:30'))
    const ask = (now: string) => maySit('open', running, notSat, now, 'UTC').may
    expect([ask('2030-05-16T09:59:00.000Z'), ask(last)]).toEqual([true, false])
    expect(latestEnd(schedule({ late, windows, grace: 0 }))).toEqual(endAt(last))
    // Without a due time there is no day to count from.
    expect(
      limitsFor(schedule({ late, windows: [{ ...sampleWindow, closes: null }], limit: null }), started('09:30'))
        .deadline,
    ).toBeNull()
  })
  it.each(['clock', 'window'] as const)(
    'breaks stop the clock when the %s wins, never past a window that wins',
    (wins) => {
      const broken = (time: string) =>
        limitsFor(schedule({ atClosing: wins }), { ...started(time), breaks: 5 * minute }).deadline
      expect(broken('09:30')).toBe(at('10:35'))
      expect(broken('10:57')).toBe(wins === 'window' ? at('11:59') : at('12:02'))
    },
  )
  it('a stretched window without a limit grows by the measure of the extra time', () => {
    const student = (accommodation: object) =>
      sampleStudent({
        accommodations: [{ ...noAccommodation, factor: 1, extraMinutes: 0, stretchWindow: true, ...accommodation }],
      })
    // 09:00 to 11:59 are 179 minutes.
    const ends = (accommodation: object) =>
      limitsFor(schedule({ limit: null }, student(accommodation)), started('09:30')).deadline
    expect(ends({ factor: 2 })).toBe(at('14:58'))
    expect(ends({ extraMinutes: 30 })).toBe(at('12:29'))
    expect(ends({ factor: 2, stretchWindow: false })).toBe(at('11:59'))
  })
  it('phases follow one another', () => {
    const phase = (time: string) =>
      clockFor(schedule({ grace: 1, atDeadline: 'finish', overrun: 10 }), started('09:30'), at(time)).phase
    expect(['09:31', '10:30', '10:31', '10:35', '10:40', '10:41'].map(phase)).toEqual([
      'running',
      'running',
      'grace',
      'overrun',
      'overrun',
      'ended',
    ])
  })
  it('a deadline never exceeds what the rules allow, and nothing shortens it', () => {
    const rulesOf = fc.record({
      limit: fc.option(fc.integer({ min: 1, max: 300 })),
      grace: fc.integer({ min: 0, max: 60 }),
      atClosing: fc.constantFrom('clock' as const, 'window' as const),
      atDeadline: fc.constantFrom('handIn' as const, 'finish' as const, 'unsent' as const),
      accepted: fc.boolean(),
    })
    fc.assert(
      fc.property(
        rulesOf,
        rulesOf,
        fc.integer({ min: 0, max: 178 }),
        fc.double({ min: 1, max: 3, noNaN: true }),
        fc.nat(60),
        (first, second, minutes, factor, extraMinutes) => {
          const student = sampleStudent({
            accommodations: [
              {
                ...noAccommodation,
                factor: Math.round(factor * 100) / 100,
                extraMinutes,
                stretchWindow: false,
              },
            ],
          })
          const startedAt = plus(at('09:00'), minutes * minute)
          const limits = [first, second].map(({ accepted, ...rules }) => {
            const mine = schedule(
              {
                ...rules,
                late: { accepted, costPerDay: 0, lastDays: null },
                windows: [{ ...sampleWindow, due: at('11:00') }],
              },
              student,
            )
            const result = limitsFor(mine, { startedAt, window: 'w1' })
            const most = rules.limit === null ? ms(at('11:59')) : ms(startedAt) + mine.limit! * minute
            expect(ms(result.deadline!)).toBeLessThanOrEqual(Math.max(most, 0))
            if (rules.atClosing === 'window') expect(result.deadline! <= at('11:59')).toBe(true)
            if (!accepted) expect(result.deadline! <= at('11:00')).toBe(true)
            expect(result.deadline! <= result.onTimeUntil! && result.onTimeUntil! <= result.hardStop!).toBe(true)
            return result
          })
          const kept = neverShorter(limits[0]!, limits[1]!)
          expect(kept.hardStop! >= limits[0]!.hardStop!).toBe(true)
        },
      ),
    )
  })
})

describe('the latest end', () => {
  it('is the hard stop of a start at the last instant', () => {
    expect(latestEnd(schedule({ grace: 1 }))).toEqual(endAt(at('13:00')))
    expect(latestEnd(schedule({ grace: 1, windows: [{ ...sampleWindow, latestStart: at('10:00') }] }))).toEqual(
      endAt(at('11:01')),
    )
    expect(latestEnd(schedule({ windows: [{ ...sampleWindow, closes: null }] }))).toEqual(never)
    expect(latestEnd(schedule({ windows: [] }))).toEqual(beforeAll)
  })
})

describe('maySit', () => {
  const attempt = (over: Partial<AttemptFact> = {}): AttemptFact => ({
    number: 1,
    state: 'handed',
    handedInAt: at('09:40'),
    ...over,
  })
  const ask = (
    time: string,
    attempts: AttemptFact[],
    rules: Partial<Rules['attempts']> = {},
    windows = [sampleWindow],
    grade: Partial<Sat> = {},
  ) =>
    maySit(
      'open',
      schedule({
        windows,
        attempts: {
          count: 2,
          wait: 30,
          draw: 'fresh',
          untilPassed: false,
          untilShare: null,
          cost: 0,
          again: false,
          ...rules,
        },
      }),
      { ...notSat, ...grade, attempts },
      at(time),
      'UTC',
    )
  it('decides in one place, with a sentence', () => {
    expect(ask('08:00', [])).toMatchObject({ may: false, from: at('09:00'), sentence: 'It opens Tue 14 May, 09:00.' })
    expect(ask('09:00', [])).toMatchObject({ may: true, window: 'w1', attempt: 1 })
    expect(ask('11:59', [])).toMatchObject({ may: false, sentence: 'It closed Tue 14 May, 11:59.' })
    expect(ask('10:00', [attempt()])).toMatchObject({ may: false, from: at('10:10') })
    expect(ask('10:10', [attempt()])).toMatchObject({ may: true, attempt: 2 })
    expect(ask('10:30', [attempt(), attempt({ number: 2 })])).toMatchObject({
      may: false,
      sentence: 'You have used all 2 attempts.',
    })
    expect(ask('10:30', [attempt({ state: 'sitting', handedInAt: null })])).toMatchObject({ may: false, sitting: 1 })
  })
  it('until passed: nothing after passing, and nothing new while a mark is missing', () => {
    const untilPassed = (grade: Partial<Sat>) => ask('11:00', [attempt()], { untilPassed: true }, undefined, grade)
    expect(untilPassed({ passed: true }).sentence).toMatch(/You have passed/)
    expect(untilPassed({ undecided: true }).sentence).toMatch(/still being marked/)
    expect(untilPassed({ passed: false }).may).toBe(true)
  })
  it('until a share is reached: what people read decides, and nothing is begun while it is open', () => {
    const until = (grade: Partial<Sat>) => ask('11:00', [attempt()], { untilShare: 80 }, undefined, grade)
    expect(until({ percent: '79.9' }).may).toBe(true)
    expect(until({ percent: '80.0' })).toMatchObject({
      may: false,
      why: 'reached',
      sentence: 'You have reached 80 %; there is no further attempt.',
    })
    expect(until({ undecided: true }).sentence).toMatch(/still being marked/)
    expect(until({ percent: null }).may).toBe(true)
  })
  it('a draft or withdrawn quiz is not open to anybody', () => {
    for (const state of ['draft', 'withdrawn', 'filed'] as const)
      expect(maySit(state, schedule(), notSat, at('10:00'), 'UTC')).toMatchObject({
        may: false,
        sentence: 'This quiz is not open.',
      })
  })
})

describe('the scale of the day line', () => {
  it('keeps the order of instants and gives small gaps room', () => {
    const scale = dayScale([at('09:00'), at('09:30'), at('12:00'), '2030-05-20T12:00:00.000Z'], 'UTC')
    const places = [
      at('08:00'),
      at('09:00'),
      at('09:15'),
      at('09:30'),
      at('12:00'),
      '2030-05-20T12:00:00.000Z',
      '2031-01-01T00:00:00.000Z',
    ].map((instant) => scale.at(instant))
    expect(places).toEqual([...places].sort((a, b) => a - b))
    expect([places[0], places.at(-1)]).toEqual([0, 1])
    expect(places[3]!).toBeGreaterThan(0.08)
    expect(scale.ticks[0]!.label).toBe('Wed 15 May')
  })
})
