import fc from 'fast-check'
import { expect, it } from 'vitest'
import { endsByRules } from '../release'
import { noAccommodation, usualRules, type Rules, type Student } from '../quiz'
import { iso } from '../kit/time'
import { assignedTo, namedIn, oneOfEach, type Audience } from './assigned'

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
  hours: fc.integer({ min: 1, max: 6 }),
  closed: fc.boolean(),
})
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
  windows: (Audience & { opens: number; hours: number; closed: boolean })[],
  limit: number | null,
  needs: Omit<Rules['needs'][number], 'id'>[],
): Rules => ({
  ...usualRules,
  limit,
  needs: needs.map((each, i) => ({ ...each, id: `n${i}` })),
  windows: windows.map(({ classes: meant, groups, students, opens, hours, closed }, i) => {
    const closes = iso((opens + hours) * hour)
    return {
      id: `w${i}`,
      classes: meant,
      groups,
      students,
      opens: iso(opens * hour),
      closes,
      due: null,
      latestStart: null,
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
