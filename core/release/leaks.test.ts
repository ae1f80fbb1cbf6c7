/** What is told as a leak, against trying every start and every instant on a grid. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent } from '../../tests/fixtures/core'
import { instantOfEnd, minute, plus, type Instant } from '../kit/time'
import { usualRules, type Rules, type Window } from '../quiz'
import { latestEnd, limitsFor, maySit, notSat, scheduleFor } from '../schedule'
import { endsOf, leaks, visibleFacets, type Assigned, type Moment } from '.'
import { noAccommodation } from '../quiz'

const hour = (n: number): Instant => plus(at('00:00'), n * 60 * minute)
const window = (id: string, classes: string[], opens: number, closes: number, due: number | null): Window => ({
  id,
  classes,
  opens: hour(opens),
  closes: hour(closes),
  due: due === null ? null : hour(due),
  latestStart: null,
  groups: [],
  students: [],
  closedAt: null,
  password: null,
})

const moments: fc.Arbitrary<Moment> = fc.oneof(
  fc.constant<Moment>({ at: 'handIn', offset: 0 }),
  fc.constant<Moment>({ at: 'marked', offset: 60 }),
  fc.constant<Moment>({ at: 'due', offset: 0 }),
  fc.constant<Moment>({ at: 'windowClosed', offset: 0 }),
  fc.constant<Moment>({ at: 'everyoneDone', offset: 0 }),
  fc.integer({ min: 0, max: 40 }).map((n): Moment => ({ at: 'instant', instant: hour(n) })),
)
const situations = fc.record({
  first: fc.record({ opens: fc.integer({ min: 0, max: 20 }), length: fc.integer({ min: 1, max: 10 }) }),
  second: fc.record({ opens: fc.integer({ min: 0, max: 20 }), length: fc.integer({ min: 1, max: 10 }) }),
  limit: fc.constantFrom(60, 180, null),
  atClosing: fc.constantFrom('clock' as const, 'window' as const),
  grace: fc.constantFrom(0, 30),
  hasDue: fc.boolean(),
  extra: fc.constantFrom(0, 60),
  from: moments,
})
type Situation = typeof situations extends fc.Arbitrary<infer T> ? T : never

function rulesOf({ first, second, limit, atClosing, grace, hasDue, from }: Situation): Rules {
  const due = ({ opens, length }: Situation['first']) => (hasDue ? opens + length : null)
  return sampleRules({
    windows: [
      window('w1', ['tue'], first.opens, first.opens + first.length, due(first)),
      window('w2', ['sat'], second.opens, second.opens + second.length, due(second)),
    ],
    limit,
    atClosing,
    grace,
    attempts: { count: 1, wait: 0, draw: 'fresh', untilPassed: false, untilShare: null, cost: 0, again: false },
    release: {
      ...usualRules.release,
      marks: { ...usualRules.release.marks, from: { at: 'never' } },
      comments: { ...usualRules.release.comments, from: { at: 'never' } },
      key: { from, until: null, once: false, ifPassed: false, wrongOnly: false },
    },
  })
}
function everyoneOf(situation: Situation): Assigned[] {
  const accommodation = {
    ...noAccommodation,
    factor: 1,
    extraMinutes: situation.extra,
    stretchWindow: true,
  }
  const students = [
    sampleStudent({ id: 'ann', classes: ['tue'] }),
    sampleStudent({ id: 'ben', classes: ['sat'], accommodations: [accommodation] }),
  ]
  return students.map((student) => ({
    schedule: scheduleFor(rulesOf(situation), student),
    classes: student.classes,
  }))
}

/** The first instant on the grid at which a student who starts and hands in at once sees the key. */
function firstSight(rules: Rules, viewer: Assigned, everyone: Assigned[]): Instant | null {
  for (let start = 0; start <= 32; start++) {
    const may = maySit('open', viewer.schedule, notSat, hour(start), 'UTC')
    if (!may.may) continue
    const context = {
      handedInAt: hour(start),
      markedAt: hour(start),
      passed: true,
      attemptsUsedAt: hour(start),
      due: viewer.schedule.windows.find((each) => each.id === may.window)?.due ?? null,
      classEnd: endsOf(everyone).ofClasses(viewer.classes),
      everyoneEnd: endsOf(everyone).everyone,
      releasedAt: null,
      againUntil: { is: 'beforeAll' as const },
      viewed: [],
    }
    for (let now = start; now <= 80; now++)
      if (visibleFacets(rules.release, context, hour(now)).facets.key.shown) return hour(now)
    // Who starts later sees nothing sooner.
    return null
  }
  return null
}
/** The last hard stop that a start on the grid gives. */
function lastStop(student: Assigned): Instant {
  let last = ''
  for (let start = 0; start <= 32 * 60; start += 30) {
    const now = plus(at('00:00'), start * minute)
    const may = maySit('open', student.schedule, notSat, now, 'UTC')
    if (may.may) {
      const { hardStop } = limitsFor(student.schedule, { startedAt: now, window: may.window })
      if (hardStop! > last) last = hardStop!
    }
  }
  return last
}

describe('leaks', () => {
  it('whoever can be found to see the key while another still sits is told', () => {
    fc.assert(
      fc.property(situations, (situation) => {
        const [rules, everyone] = [rulesOf(situation), everyoneOf(situation)]
        const told = leaks(rules, everyone)
        for (const viewer of everyone) {
          const sight = firstSight(rules, viewer, everyone)
          for (const sitter of everyone.filter((each) => each !== viewer)) {
            if (sight === null || lastStop(sitter) <= sight) continue
            const leak = told.find((each) => each.viewers.includes(viewer.schedule.student))
            expect(leak?.sitters).toContain(sitter.schedule.student)
            expect(leak!.at <= sight).toBe(true)
          }
        }
      }),
      { numRuns: 80 },
    )
  })
  it('none is told where the key waits until everyone is done', () => {
    fc.assert(
      fc.property(situations, (situation) => {
        const calm = { ...situation, from: { at: 'everyoneDone', offset: 0 } as Moment }
        expect(leaks(rulesOf(calm), everyoneOf(calm))).toEqual([])
      }),
      { numRuns: 150 },
    )
  })
  it('nobody’s end lies before a hard stop that a start can give', () => {
    fc.assert(
      fc.property(situations, (situation) => {
        for (const student of everyoneOf(situation))
          expect(instantOfEnd(latestEnd(student.schedule))! >= lastStop(student)).toBe(true)
      }),
      { numRuns: 150 },
    )
  })
})
