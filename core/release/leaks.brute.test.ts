/**
 * What is told as a leak, against trying everything on a grid of quarters of an hour: every start, every row of attempts of
 * no length, every instant of sight. The oracle asks `maySit` and `visibleFacets`, and nothing that `leaks` works with.
 */
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { at, sampleRules, sampleStudent } from '../../tests/fixtures/core'
import { minute, plus, type End, type Instant } from '../kit/time'
import { usualRules, type Rules, type Window } from '../quiz'
import { assignedTo, limitsFor, maySit, scheduleFor, type AttemptFact, type Sat } from '../schedule'
import { endsOf, leaks, visibleFacets, type Assigned, type Moment } from '.'
import { noAccommodation } from '../quiz'

const quarter = (n: number): Instant => plus(at('00:00'), n * 15 * minute)
const hours = 14
const grid = Array.from({ length: hours * 4 }, (_, i) => quarter(i))
/** Sights fall on half hours: all that is made up below does. */
const instants = Array.from({ length: 80 }, (_, i) => quarter(2 * i))

const hour = (n: number) => quarter(4 * n)
const maybe = (max: number) => fc.option(fc.integer({ min: 0, max }), { freq: 2 })
const window = fc
  .record({
    classes: fc.constantFrom<string[]>(['tue'], ['sat'], ['tue', 'sat']),
    opens: fc.integer({ min: 0, max: 8 }),
    length: fc.integer({ min: 1, max: 5 }),
    due: maybe(6),
    latest: fc.option(fc.integer({ min: -1, max: 4 }), { freq: 3 }),
  })
  .map(({ classes, opens, length, due, latest }): Window => ({
    id: '',
    classes,
    opens: hour(opens),
    closes: hour(opens + length),
    due: due === null ? null : hour(opens + due),
    latestStart: latest === null ? null : hour(opens + latest),
    groups: [],
    students: [],
    closedAt: null,
    password: null,
  }))
const offset = fc.constantFrom(0, 60, 120)
const moment: fc.Arbitrary<Moment> = fc.oneof(
  { weight: 4, arbitrary: offset.map((minutes): Moment => ({ at: 'handIn', offset: minutes })) },
  { weight: 3, arbitrary: offset.map((minutes): Moment => ({ at: 'due', offset: minutes })) },
  offset.map((minutes): Moment => ({ at: 'attemptsUsed', offset: minutes })),
  fc.constant<Moment>({ at: 'windowClosed', offset: 0 }),
  fc.constant<Moment>({ at: 'everyoneDone', offset: 0 }),
  fc.constant<Moment>({ at: 'teacher' }),
  fc.integer({ min: 0, max: 14 }).map((n): Moment => ({ at: 'instant', instant: hour(n) })),
)
const situation = fc.record({
  windows: fc.array(window, { minLength: 1, maxLength: 3 }),
  limit: fc.constantFrom(60, 180, null),
  atClosing: fc.constantFrom('clock' as const, 'window' as const),
  grace: fc.constantFrom(0, 30),
  accepted: fc.boolean(),
  count: fc.constantFrom(1, 2, 3, null),
  wait: fc.constantFrom(0, 60, 240),
  untilPassed: fc.boolean(),
  untilShare: fc.constantFrom(null, null, 40, 80),
  pass: fc.boolean(),
  again: fc.boolean(),
  ifPassed: fc.boolean(),
  until: maybe(14),
  from: moment,
})
type Situation = typeof situation extends fc.Arbitrary<infer T> ? T : never
const never: Moment = { at: 'never' }

const rulesOf = (given: Situation): Rules =>
  sampleRules({
    windows: given.windows.map((each, i) => ({ ...each, id: `w${i}` })),
    limit: given.limit,
    atClosing: given.atClosing,
    grace: given.grace,
    late: { accepted: given.accepted, costPerDay: 0, lastDays: null },
    attempts: {
      count: given.count,
      wait: given.wait,
      draw: 'fresh',
      untilPassed: given.untilPassed,
      untilShare: given.untilShare,
      cost: 0,
      again: given.again,
    },
    grade: { ...usualRules.grade, pass: given.pass ? { by: 'percent', value: 50 } : null },
    release: {
      ...usualRules.release,
      marks: { ...usualRules.release.marks, from: never },
      comments: { ...usualRules.release.comments, from: never },
      key: {
        from: given.from,
        until: given.until === null ? null : hour(given.until),
        once: false,
        ifPassed: given.ifPassed,
        wrongOnly: false,
      },
    },
  })

const fact = (number: number, handedInAt: Instant): AttemptFact => ({ number, state: 'handed', handedInAt })
/** Rows of attempts of no length: where each was handed in, and in which window it began. */
interface Row {
  facts: AttemptFact[]
  windows: string[]
  passed: boolean
  percent: string
}
const mostRows = 2

/** All rows of one or two attempts, and the quickest of more: a third and a fourth only ever use attempts up. */
function rowsOf(rules: Rules, { schedule }: Assigned): Row[] {
  const rows: Row[] = []
  const grow = (facts: AttemptFact[], windows: string[]) => {
    for (const start of grid.filter((_, i) => i % 4 === 0)) {
      if (facts.length && start < facts.at(-1)!.handedInAt!) continue
      const may = maySit(
        'open',
        schedule,
        { attempts: facts, passed: false, percent: facts.length ? '0.0' : null, undecided: false },
        start,
        'UTC',
      )
      if (!may.may) continue
      const [next, where] = [
        [...facts, fact(facts.length + 1, start)],
        [...windows, may.window],
      ]
      // The pass mark is 50 %: below it, between it and the greatest share that ends attempts, and above both.
      for (const percent of ['0.0', '60.0', '90.0'])
        rows.push({ facts: next, windows: where, passed: Number(percent) >= 50, percent })
      if (next.length < (rules.attempts.count ?? 1) && next.length < 3) grow(next, where)
      if (next.length >= mostRows) return
    }
  }
  grow([], [])
  return rows
}

/** Until when a paper of no length may be taken up again: the first of due time (or close) and the end of its time. */
function againOf({ attempts, limit, atClosing, late }: Rules, { schedule }: Assigned, id: string, from: Instant): End {
  if (!attempts.again) return { is: 'beforeAll' }
  const { due, closes } = schedule.windows.find((each) => each.id === id)!
  const ends = [
    due ?? closes!,
    ...(limit === null ? [closes!] : [plus(from, limit * minute)]),
    ...(atClosing === 'window' ? [closes!] : []),
    ...(due !== null && !late.accepted ? [due] : []),
  ]
  return { is: 'at', at: ends.sort()[0]! }
}

interface Found {
  at: Instant
  own: boolean
}

/** The first instant of sight, and the first at which the viewer can still sit again. */
function bruteSights(
  rules: Rules,
  viewer: Assigned,
  everyone: Assigned[],
): { first: Instant | null; own: Instant | null } {
  const ends = endsOf(everyone)
  const found: Found[] = []
  const { untilPassed, untilShare } = rules.attempts
  for (const { facts, windows, passed, percent } of rowsOf(rules, viewer)) {
    const sat = { attempts: facts, passed: rules.grade.pass ? passed : null, percent, undecided: false }
    const used =
      facts.length === rules.attempts.count ||
      (untilPassed && sat.passed) ||
      (untilShare !== null && Number(percent) >= untilShare)
        ? facts.at(-1)!.handedInAt
        : null
    const stop = lastStop(viewer, sat, facts.at(-1)!.handedInAt!)
    for (const [i, { handedInAt }] of facts.entries())
      for (const now of instants) {
        // What has not happened yet is not known yet.
        if (facts.at(-1)!.handedInAt! > now) continue
        const context = {
          handedInAt,
          markedAt: handedInAt,
          passed: sat.passed,
          attemptsUsedAt: used,
          due: viewer.schedule.windows.find(({ id }) => id === windows[i])!.due,
          classEnd: ends.ofClasses(viewer.classes),
          everyoneEnd: ends.everyone,
          releasedAt: null,
          againUntil: againOf(rules, viewer, windows[i]!, handedInAt!),
          viewed: [],
        }
        if (!visibleFacets(rules.release, context, now).facets.key.shown) continue
        const again = stop === null ? false : stop > now
        found.push({ at: now, own: again })
      }
  }
  const earliest = (all: Found[]) => all.map((each) => each.at).sort()[0] ?? null
  return { first: earliest(found), own: earliest(found.filter((each) => each.own)) }
}

/** The latest hard stop that a start from an instant on gives; null where none is possible. */
function lastStop({ schedule }: Assigned, sat: Sat, from: Instant): Instant | null {
  return grid
    .filter((start) => start >= from)
    .flatMap((start) => {
      const may = maySit('open', schedule, sat, start, 'UTC')
      return may.may ? (limitsFor(schedule, { startedAt: start, window: may.window }).hardStop ?? '~') : []
    })
    .reduce<Instant | null>((last, stop) => (last === null || stop > last ? stop : last), null)
}
const fresh: Sat = { attempts: [], passed: null, percent: null, undecided: false }

it('tells exactly the leaks that trying everything finds', () => {
  let [leaking, calm, owns] = [0, 0, 0]
  fc.assert(
    fc.property(situation, (given) => {
      const rules = rulesOf(given)
      const everyone = assignedTo(
        [
          sampleStudent({ id: 'ann', classes: ['tue'] }),
          sampleStudent({ id: 'ben', classes: ['sat'] }),
          sampleStudent({ id: 'cleo', classes: ['tue', 'sat'] }),
        ],
        rules,
      )
      const told = leaks(rules, everyone)
      for (const viewer of everyone) {
        const { id } = viewer
        const { first, own } = bruteSights(rules, viewer, everyone)
        const sitters =
          first === null
            ? []
            : everyone
                .filter((each) => each.id !== id && (lastStop(each, fresh, '') ?? '') > first)
                .map((each) => each.id)
        const mine = told.filter(({ viewers }) => viewers.includes(id))
        const atFirst = mine.find((leak) => leak.at === first)
        expect([id, (atFirst?.sitters ?? []).filter((each) => each !== id).sort()]).toEqual([id, sitters.sort()])
        expect(mine.every((leak) => leak.at === first || leak.at === own)).toBe(true)
        if (own !== null) expect([id, mine.find((leak) => leak.at === own)?.own]).toEqual([id, true])
        else
          expect([id, mine.length ? mine.every((leak) => leak.viewers.length > 1 || !leak.own) : true]).toEqual([
            id,
            true,
          ])
        if (sitters.length) leaking++
        else calm++
        if (own !== null) owns++
      }
    }),
    { numRuns: 400, endOnFailure: true },
  )
  expect(Math.min(leaking, calm, owns)).toBeGreaterThan(15)
}, 60_000)

it('is worked out for 2,000 students of 60 classes, each with an accommodation of their own, in no time', () => {
  const classes = Array.from({ length: 60 }, (_, i) => `c${i}`)
  const windows = classes.map((name, i): Window => ({
    id: `w${i}`,
    classes: [name],
    opens: hour(i % 20),
    closes: hour((i % 20) + 4),
    due: hour((i % 20) + 3),
    latestStart: null,
    groups: [],
    students: [],
    closedAt: null,
    password: null,
  }))
  const from: Moment = { at: 'handIn', offset: 0 }
  const rules = sampleRules({
    windows,
    limit: 60,
    release: { ...usualRules.release, key: { ...usualRules.release.key, from } },
  })
  const everyone = Array.from({ length: 2000 }, (_, i) => {
    const student = sampleStudent({
      id: `s${i}`,
      classes: [classes[i % 60]!],
      accommodations: [
        {
          ...noAccommodation,
          factor: 1 + (i % 50) / 100,
          extraMinutes: i % 7,
          stretchWindow: i % 2 === 0,
        },
      ],
    })
    return { schedule: scheduleFor(rules, student), classes: student.classes }
  })
  leaks(rules, everyone.slice(0, 200))
  /** Of the processor's own time, which what else runs at the moment takes least of; one after another, the least of four. */
  const time = (some: Assigned[]) => {
    const began = process.cpuUsage()
    expect(leaks(rules, some).length).toBeGreaterThan(10)
    return process.cpuUsage(began).user / 1000
  }
  const rounds = [1, 2, 3, 4].map(() => [time(everyone.slice(0, 1000)), time(everyone)] as const)
  // Twice as many take about twice as long: not four times.
  const [half, whole] = [Math.min(...rounds.map(([each]) => each)), Math.min(...rounds.map(([, each]) => each))]
  console.log(`leaks: ${half.toFixed(0)} ms for 1,000, ${whole.toFixed(0)} ms for 2,000`)
  expect(whole).toBeLessThan(Math.max(3.2 * half, 400))
})
