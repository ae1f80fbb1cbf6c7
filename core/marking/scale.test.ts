import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandOf, gradeText, scaleBands, scaleFault, type ScaleBand } from './scale'

const letters: ScaleBand[] = [
  { from: 70, label: 'B' },
  { from: 85, label: 'A' },
  { from: 0, label: 'C' },
]

describe('bands', () => {
  it.each([
    [[], /at least one band/],
    [[{ from: 10, label: 'A' }], /Below 10 % there is no band/],
    [
      [
        { from: 0, label: 'A' },
        { from: 0, label: 'B' },
      ],
      /Two bands begin at 0 %/,
    ],
    [
      [
        { from: 0, label: 'A' },
        { from: 50, label: 'A' },
      ],
      /Two bands are called “A”/,
    ],
  ])('%j', (bands, fault) => {
    expect(scaleFault(bands)).toMatch(fault)
    expect(scaleBands.safeParse(bands).success).toBe(false)
  })
  it('in whatever order, a percentage is in the highest that it reaches', () => {
    expect(scaleFault(letters)).toBeNull()
    expect(['0.0', '69.9', '70.0', '84.99', '85', '100.0', '120.0'].map((percent) => bandOf(letters, percent))).toEqual(
      ['C', 'C', 'B', 'B', 'A', 'A', 'A'],
    )
  })
  it('cover all of 0 to 100 once: each percentage is in the band whose stretch it is in (an oracle that looks at each stretch)', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 10_000 }), { maxLength: 8 }),
        fc.integer({ min: 0, max: 10_000 }),
        (inner, hundredths) => {
          const starts = [0, ...inner].sort((a, b) => a - b)
          const bands = starts.map((from, i) => ({ from: from / 100, label: `band ${i}` }))
          const expected = starts.findIndex(
            (from, i) => hundredths >= from && (i === starts.length - 1 || hundredths < starts[i + 1]!),
          )
          expect(bandOf([...bands].reverse(), (hundredths / 100).toFixed(2))).toBe(`band ${expected}`)
        },
      ),
    )
  })
})

it('a grade is told as its scale says, and as percent where that says nothing', () => {
  const grade = { percent: '72.5', points: '14.5', passed: true }
  const bands = { by: 'bands' as const, id: 's', name: 'Letters', bands: letters }
  expect([
    gradeText(grade, { by: 'percent' }, '20'),
    gradeText(grade, { by: 'points' }, '20'),
    gradeText({ ...grade, points: null }, { by: 'points' }, null),
    gradeText(grade, { by: 'passed' }, '20'),
    gradeText({ ...grade, passed: false }, { by: 'passed' }, '20'),
    gradeText({ ...grade, passed: null }, { by: 'passed' }, '20'),
    gradeText(grade, bands, '20'),
    gradeText({ ...grade, percent: null }, bands, '20'),
  ]).toEqual(['72.5 %', '14.5 of 20 points', '72.5 %', 'passed', 'not passed', '72.5 %', 'B', null])
})
