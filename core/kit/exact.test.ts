import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exact, fixed, pointsText, roundHalfAway, roundToFigures } from './exact'

describe('rounding', () => {
  it.each([
    ['0.5', 0, '1'],
    ['-0.5', 0, '-1'],
    ['2.345', 2, '2.35'],
    ['1.005', 2, '1.01'],
    ['59.95', 1, '60'],
    ['1/3', 3, '0.333'],
  ] as const)('%s to %i decimals is %s', (value, decimals, expected) => {
    expect(roundHalfAway(exact(value), decimals).equals(exact(expected))).toBe(true)
  })
  it.each([
    ['1234.5', 2, '1200'],
    ['0.0012345', 3, '0.00123'],
    ['9.96', 2, '10'],
    ['0', 2, '0'],
    ['-1550', 2, '-1600'],
  ] as const)('%s to %i significant figures is %s', (value, figures, expected) => {
    expect(roundToFigures(exact(value), figures).equals(exact(expected))).toBe(true)
  })
  it('never moves a value by more than half a unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e6, max: 1e6 }),
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: 0, max: 3 }),
        (n, d, decimals) => {
          const value = exact(`${n}/${d}`)
          return (
            roundHalfAway(value, decimals)
              .sub(value)
              .abs()
              .mul(10 ** decimals)
              .compare('1/2') <= 0
          )
        },
      ),
    )
  })
})

describe('text for people', () => {
  it('keeps the decimals asked for', () => {
    expect([fixed(exact('7.5'), 2), fixed(exact(7), 0), fixed(exact('-1/8'), 2), fixed(exact('1/20'), 1)]).toEqual([
      '7.50',
      '7',
      '−0.13',
      '0.1',
    ])
  })
  it('shows points without idle zeros', () => {
    expect(['2', 0.5, '4/3', 10].map((value) => pointsText(value))).toEqual(['2', '0.5', '1.33', '10'])
  })
  it('reads typed decimals exactly', () => {
    expect(exact(0.1).add(exact(0.2)).equals(exact('0.3'))).toBe(true)
  })
})
