import fc from 'fast-check'
import { expect, it } from 'vitest'
import { endsByRules } from '../release'
import { noAccommodation, usualRules, type Rules, type Student } from '../quiz'
import { iso, latest } from '../kit/time'
import { assignedTo, namedIn, oneOfEach, type Audience } from './assigned'
import { alike } from './schedule'

const classes = ['a', 'b', 'c']
const student = fc.record({
  classes: fc.subarray(classes, { minLength: 1 }),
  groups: fc.subarray(['g', 'h']),
  accommodations: fc.array(
    fc.record({
      factor: fc.constantFrom(1, 1.25, 1.5),
      extraMinutes: fc.constantFrom(0, 10),
      stretchWindow: fc.boolean(),
      language: fc.constant(null),
      largerType: fc.boolean(),
      breakMinutes: fc.constantFrom(0, 20),
      moreAttempts: fc.constantFrom(0, 1),
      laterMinutes: fc.constantFrom(0, 60),
    }),
    { maxLength: 2 },
  ),
})
const window = fc.record({
  classes: fc.subarray(classes),
  groups: fc.subarray(['g', 'h']),
  students: fc.subarray(['s0', 't1', 's2']),
  opens: fc.integer({ min: 0, max: 5 }),
  hours: fc.option(fc.integer({ min: 1, max: 6 }), { freq: 2 }),
  due: fc.option(fc.integer({ min: 1, max: 6 }), { freq: 2 }),
  latest: fc.option(fc.integer({ min: 1, max: 6 }), { freq: 2 }),
  closed: fc.boolean(),
})
type Window = typeof window extends fc.Arbitrary<infer T> ? T : never
const need = fc.record({
  students: fc.subarray(['s0', 't0', 's3']),
  groups: fc.subarray(['g', 'h']),
  instead: fc.boolean(),
  factor: fc.constantFrom(1, 2),
  extraMinutes: fc.constantFrom(0, 5),
  stretchWindow: fc.boolean(),
  language: fc.constant(null),
  largerType: fc.constant(false),
  breakMinutes: fc.constantFrom(0, 40),
  moreAttempts: fc.constantFrom(0, 2),
  laterMinutes: fc.constantFrom(0, 120),
})
const hour = 3_600_000
const rulesOf = (
  windows: (Audience & Window)[],
  limit: number | null,
  needs: Omit<Rules['needs'][number], 'id'>[],
): Rules => ({
  ...usualRules,
  limit,
  needs: needs.map((each, i) => ({ ...each, id: `n${i}` })),
  windows: windows.map(({ classes: meant, groups, students, opens, hours, due, latest, closed }, i) => {
    const after = (n: number | null) => (n === null ? null : iso((opens + n) * hour))
    const closes = after(hours)
    return {
      id: `w${i}`,
      classes: meant,
      groups,
      students,
      opens: iso(opens * hour),
      closes,
      due: after(due),
      latestStart: after(latest),
      closedAt: closed ? closes : null,
      password: null,
    }
  }),
})

it('one student of each sort has all the ends that all of them have', () => {
  let fewer = 0
  fc.assert(
    fc.property(
      fc.array(student, { maxLength: 12 }),
      fc.array(window, { maxLength: 4 }),
      fc.constantFrom(null, 45),
      fc.array(need, { maxLength: 3 }),
      (sorts, windows, limit, needs) => {
        const students: Student[] = sorts.flatMap((each, i) => [
          { ...each, id: `s${i}`, name: 'x' },
          { ...each, classes: [...each.classes].reverse(), id: `t${i}`, name: 'y' },
        ])
        const rules = rulesOf(windows, limit, needs)
        const some = oneOfEach(students, new Set(namedIn(rules)))
        if (some.length < students.length) fewer++
        expect(endsByRules(assignedTo(some, rules))).toEqual(endsByRules(assignedTo(students, rules)))
      },
    ),
    { numRuns: 300 },
  )
  expect(fewer).toBeGreaterThan(150)
})

it('those who are reckoned with as one have the end that each has alone', () => {
  let together = 0
  fc.assert(
    fc.property(
      fc.array(student, { minLength: 1, maxLength: 4 }),
      fc.array(window, { minLength: 1, maxLength: 2 }),
      fc.constantFrom(null, 45),
      (sorts, windows, limit) => {
        const rules = rulesOf(windows, limit, [])
        // Each with a twin to whom one thing more is given: twins are what could be taken for one.
        const twin = (each: (typeof sorts)[number], i: number) => ({
          ...each,
          accommodations: each.accommodations.map((given) => ({
            ...given,
            ...([{ laterMinutes: 90 }, { extraMinutes: 7 }, { breakMinutes: 9 }, { factor: 2 }] as const)[i % 4],
          })),
        })
        const everyone = assignedTo(
          sorts
            .flatMap((each, i) => [each, each, twin(each, i)])
            .map((each, i) => ({ ...each, id: `s${i}`, name: 'x' })),
          rules,
        )
        if (alike(everyone).length < everyone.length) together++
        const alone = everyone.map((each) => endsByRules([each]).everyone)
        expect(endsByRules(everyone).everyone).toEqual(latest(alone))
      },
    ),
    { numRuns: 600 },
  )
  expect(together).toBeGreaterThan(200)
})
it('a later latest start tells two apart, where nothing else is later', () => {
  const of = (id: string, laterMinutes: number): Student => ({
    id,
    name: id,
    classes: ['a'],
    groups: [],
    accommodations: [{ ...noAccommodation, laterMinutes }],
  })
  const open = { classes: ['a'], groups: [], students: [], opens: 0, hours: null, due: null, latest: 1, closed: false }
  const rules = rulesOf([open], 45, [])
  const ends = [[0], [0, 30]].map(
    (all) =>
      endsByRules(
        assignedTo(
          all.map((n) => of(`s${n}`, n)),
          rules,
        ),
      ).everyone,
  )
  expect(ends).toEqual([
    { is: 'at', at: iso(hour + 45 * 60_000 + rules.grace * 60_000) },
    { is: 'at', at: iso(hour + 75 * 60_000 + rules.grace * 60_000) },
  ])
})

it('what students need tells them apart', () => {
  const of = (more: Partial<Student>): Student => ({
    id: 'x',
    name: 'x',
    classes: ['a'],
    groups: [],
    accommodations: [noAccommodation],
    ...more,
  })
  expect(oneOfEach([of({}), of({ id: 'y', name: 'y' })])).toHaveLength(1)
  expect(
    oneOfEach([
      of({}),
      of({ classes: ['b'] }),
      of({ accommodations: [{ ...noAccommodation, factor: 1.25 }] }),
      of({ accommodations: [] }),
      of({ groups: ['g'] }),
    ]),
  ).toHaveLength(5)
  expect(oneOfEach([of({}), of({ id: 'y', name: 'y' })], new Set(['y']))).toHaveLength(2)
})
