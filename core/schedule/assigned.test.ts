import fc from 'fast-check'
import { expect, it } from 'vitest'
import { endsByRules } from '../release'
import { noAccommodation, usualRules, type Rules, type Student } from '../quiz'
import { iso } from '../kit/time'
import { assignedTo, oneOfEach } from './assigned'

const classes = ['a', 'b', 'c']
const student = fc.record({
  classes: fc.subarray(classes, { minLength: 1 }),
  accommodations: fc.array(
    fc.record({
      factor: fc.constantFrom(1, 1.25, 1.5),
      extraMinutes: fc.constantFrom(0, 10),
      stretchWindow: fc.boolean(),
      language: fc.constant(null),
      largerType: fc.boolean(),
    }),
    { maxLength: 2 },
  ),
})
const window = fc.record({
  classes: fc.subarray(classes, { minLength: 1 }),
  opens: fc.integer({ min: 0, max: 5 }),
  hours: fc.integer({ min: 1, max: 6 }),
  closed: fc.boolean(),
})
const hour = 3_600_000
const rulesOf = (
  windows: { classes: string[]; opens: number; hours: number; closed: boolean }[],
  limit: number | null,
): Rules => ({
  ...usualRules,
  limit,
  windows: windows.map(({ classes: meant, opens, hours, closed }, i) => {
    const closes = iso((opens + hours) * hour)
    return {
      id: `w${i}`,
      classes: meant,
      opens: iso(opens * hour),
      closes,
      due: null,
      latestStart: null,
      closedAt: closed ? closes : null,
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
      (sorts, windows, limit) => {
        const students: Student[] = sorts.flatMap((each, i) => [
          { ...each, id: `s${i}`, name: 'x' },
          { ...each, classes: [...each.classes].reverse(), id: `t${i}`, name: 'y' },
        ])
        const rules = rulesOf(windows, limit)
        const some = oneOfEach(students)
        if (some.length < students.length) fewer++
        expect(endsByRules(assignedTo(some, rules))).toEqual(endsByRules(assignedTo(students, rules)))
      },
    ),
    { numRuns: 300 },
  )
  expect(fewer).toBeGreaterThan(200)
})

it('what students need tells them apart', () => {
  const of = (more: Partial<Student>): Student => ({
    id: 'x',
    name: 'x',
    classes: ['a'],
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
    ]),
  ).toHaveLength(4)
})
