/** Rules of time that hold for all rules, students and starts (semantics §5). */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { instantOfEnd, minute, ms, plus, type End, type Instant } from '../kit/time'
import type { Accommodation, Rules } from '../quiz'
import { clockFor, lastStartOf, limitsFor, neverShorter } from './clock'
import { latestEnd } from './starts'
import { notSat } from './attempts'
import { maySit } from './may-sit'
import { mostGenerous, scheduleFor } from './schedule'

const opens = at('09:00')
const after = (minutes: number): Instant => plus(opens, minutes * minute)
const maybe = (arbitrary: fc.Arbitrary<number>) => fc.option(arbitrary, { nil: null })
const ruleSets = fc
  .record({
    limit: maybe(fc.integer({ min: 1, max: 240 })),
    grace: fc.integer({ min: 0, max: 60 }),
    atDeadline: fc.constantFrom('handIn' as const, 'finish' as const, 'unsent' as const),
    overrun: maybe(fc.integer({ min: 0, max: 120 })),
    atClosing: fc.constantFrom('clock' as const, 'window' as const),
    closes: maybe(fc.integer({ min: 1, max: 600 })),
    due: maybe(fc.integer({ min: 0, max: 600 })),
    latestStart: maybe(fc.integer({ min: 0, max: 600 })),
    lateAccepted: fc.boolean(),
  })
  .map(({ closes, due, latestStart, lateAccepted, ...rules }): Rules => {
    const instant = (minutes: number | null) => (minutes === null ? null : after(minutes))
    return sampleRules({
      ...rules,
      late: { accepted: lateAccepted, costPerDay: 0, lastDays: null },
      windows: [
        { ...sampleWindow, opens, closes: instant(closes), due: instant(due), latestStart: instant(latestStart) },
      ],
    })
  })
const accommodations: fc.Arbitrary<Accommodation> = fc.record({
  factor: fc.integer({ min: 100, max: 300 }).map((n) => n / 100),
  extraMinutes: fc.integer({ min: 0, max: 60 }),
  stretchWindow: fc.boolean(),
  language: fc.constant(null),
  largerType: fc.boolean(),
  breakMinutes: fc.constantFrom(0, 15),
  moreAttempts: fc.constantFrom(0, 1),
  laterMinutes: fc.constantFrom(0, 90),
})
const scheduleOf = (rules: Rules, own: Accommodation[] = []) =>
  scheduleFor(rules, sampleStudent({ accommodations: own.length ? own : [mostGenerous([])] }))
const starts = fc.integer({ min: 0, max: 700 })
const rankOfEnd = (end: End) => (end.is === 'beforeAll' ? -Infinity : rank(instantOfEnd(end)))
const rank = (instant: Instant | null) => (instant === null ? Infinity : ms(instant))

describe('limits of an attempt', () => {
  it('a deadline never exceeds what the rules allow', () => {
    fc.assert(
      fc.property(ruleSets, starts, (rules, start) => {
        const schedule = scheduleOf(rules)
        const { deadline } = limitsFor(schedule, { startedAt: after(start), window: 'w1' })
        const [window] = rules.windows
        if (rules.limit !== null) expect(rank(deadline)).toBeLessThanOrEqual(rank(after(start + rules.limit)))
        if (rules.limit === null || rules.atClosing === 'window')
          expect(rank(deadline)).toBeLessThanOrEqual(rank(window!.closes))
        if (!rules.late.accepted) expect(rank(deadline)).toBeLessThanOrEqual(rank(window!.due))
      }),
    )
  })
  it('deadline ≤ on time ≤ hard stop, and grace is exactly what lies between the first two', () => {
    fc.assert(
      fc.property(ruleSets, starts, (rules, start) => {
        const limits = limitsFor(scheduleOf(rules), { startedAt: after(start), window: 'w1' })
        expect(rank(limits.deadline)).toBeLessThanOrEqual(rank(limits.onTimeUntil))
        expect(rank(limits.onTimeUntil)).toBeLessThanOrEqual(rank(limits.hardStop))
        if (limits.deadline) expect(ms(limits.onTimeUntil!) - ms(limits.deadline)).toBe(rules.grace * minute)
        if (rules.atDeadline !== 'finish') expect(limits.hardStop).toBe(limits.onTimeUntil)
        const [window] = rules.windows
        if (!rules.late.accepted && window!.due)
          expect(rank(limits.hardStop)).toBeLessThanOrEqual(rank(plus(window!.due, rules.grace * minute)))
      }),
    )
  })
  it('extra time never takes anything away', () => {
    fc.assert(
      fc.property(ruleSets, starts, fc.array(accommodations, { minLength: 1, maxLength: 3 }), (rules, start, own) => {
        const started = { startedAt: after(start), window: 'w1' }
        const [plain, generous] = [limitsFor(scheduleOf(rules), started), limitsFor(scheduleOf(rules, own), started)]
        for (const name of ['deadline', 'onTimeUntil', 'hardStop'] as const)
          expect(rank(generous[name])).toBeGreaterThanOrEqual(rank(plain[name]))
        expect(rankOfEnd(latestEnd(scheduleOf(rules, own)))).toBeGreaterThanOrEqual(
          rankOfEnd(latestEnd(scheduleOf(rules))),
        )
      }),
    )
  })
  it('a later start never ends earlier', () => {
    fc.assert(
      fc.property(ruleSets, starts, starts, (rules, a, b) => {
        const [first, second] = [Math.min(a, b), Math.max(a, b)].map((start) =>
          limitsFor(scheduleOf(rules), { startedAt: after(start), window: 'w1' }),
        )
        expect(rank(second!.hardStop)).toBeGreaterThanOrEqual(rank(first!.hardStop))
      }),
    )
  })
  it('phases only go forward as time does, and what remains is never below 0', () => {
    const order = ['running', 'grace', 'overrun', 'ended']
    fc.assert(
      fc.property(ruleSets, starts, starts, starts, (rules, start, a, b) => {
        const at = (offset: number) =>
          clockFor(scheduleOf(rules), { startedAt: after(start), window: 'w1' }, after(start + offset))
        const [earlier, later] = [at(Math.min(a, b)), at(Math.max(a, b))]
        expect(order.indexOf(later.phase)).toBeGreaterThanOrEqual(order.indexOf(earlier.phase))
        if (later.remaining !== null) expect(later.remaining).toBeGreaterThanOrEqual(0)
      }),
    )
  })
  it('new rules never shorten what is under way', () => {
    fc.assert(
      fc.property(ruleSets, ruleSets, starts, (rules, changed, start) => {
        const started = { startedAt: after(start), window: 'w1' }
        const before = limitsFor(scheduleOf(rules), started)
        const kept = neverShorter(before, limitsFor(scheduleOf(changed), started))
        for (const name of ['deadline', 'onTimeUntil', 'hardStop'] as const)
          expect(rank(kept[name])).toBeGreaterThanOrEqual(rank(before[name]))
      }),
    )
  })
})

describe('starting', () => {
  it('is allowed in the window, before the last start, and at no other time', () => {
    fc.assert(
      fc.property(ruleSets, fc.integer({ min: -60, max: 700 }), (rules, minutes) => {
        const schedule = scheduleOf(rules)
        const now = after(minutes)
        const last = lastStartOf(schedule, schedule.windows[0]!)
        const may = maySit('open', schedule, notSat, now, 'UTC')
        expect(may.may).toBe(now >= opens && rank(now) < rank(last))
        expect(may.sentence).toMatch(/\.$/)
        if (!may.may && may.from !== null) expect(may.from > now).toBe(true)
      }),
    )
  })
  it('once started, an attempt may be gone on with and no second one begun', () => {
    fc.assert(
      fc.property(ruleSets, fc.integer({ min: 0, max: 700 }), (rules, minutes) => {
        const sitting = { number: 1, state: 'sitting' as const, handedInAt: null, marked: false, passed: null }
        expect(
          maySit('open', scheduleOf(rules), { ...notSat, attempts: [sitting] }, after(minutes), 'UTC'),
        ).toMatchObject({
          may: false,
          sitting: 1,
        })
      }),
    )
  })
  it('nobody starts what is drafted, withdrawn or filed', () => {
    fc.assert(
      fc.property(ruleSets, fc.constantFrom('draft', 'withdrawn', 'filed'), starts, (rules, state, minutes) => {
        expect(maySit(state as 'draft', scheduleOf(rules), notSat, after(minutes), 'UTC').may).toBe(false)
      }),
    )
  })
})
