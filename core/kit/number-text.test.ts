import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exact, Fraction } from './exact'
import { isNumberText, nearestNumberText, numberForPeople, numberText, numberTextOf } from './number-text'

describe('a number as a file writes it', () => {
  it.each([
    ['6.02E23', '6.02e23'],
    ['1.6e-19', '1.6e-19'],
    ['+5', '5'],
    ['.5', '0.5'],
    ['5.', '5'],
    ['-0.50', '-0.5'],
    ['1e+3', '1000'],
    ['0', '0'],
    ['-0', '0'],
    ['0e99', '0'],
    ['1e300', '1e300'],
    ['-1e-300', '-1e-300'],
    ['123456789012345', '123456789012345'],
    ['1234567890123456', '1.234567890123456e15'],
    ['0.000000000000001', '0.000000000000001'],
    ['0.0000000000000001', '1e-16'],
  ])('%s is %s', (written, held) => {
    expect(numberTextOf(written)).toBe(held)
    expect(isNumberText(held)).toBe(true)
  })
  it.each([
    '',
    'INF',
    'NaN',
    '0x10',
    '1e301',
    '1e-301',
    '1e9999',
    '1,5',
    '12345678901234567',
    '1 000',
    'e5',
    '.',
    '--1',
  ])('“%s” is none that a question holds', (written) => expect(numberTextOf(written)).toBe(null))
})

describe('an exact number', () => {
  const digits = fc.bigInt({ min: 1n, max: 10n ** 16n - 1n })
  const power = fc.integer({ min: -280, max: 280 })
  it('is written so that it reads back as itself', () => {
    fc.assert(
      fc.property(digits, power, fc.boolean(), (n, p, below) => {
        const value = new Fraction(below ? -n : n).mul(new Fraction(10).pow(p)!)
        const written = numberText(value)!
        expect(isNumberText(written)).toBe(true)
        expect(exact(written).equals(value)).toBe(true)
        expect(numberTextOf(written)).toBe(written)
      }),
    )
  })
  it('without end is written to 15 digits, no further off than half of the last', () => {
    fc.assert(
      fc.property(digits, fc.integer({ min: 1, max: 999_999 }), power, (n, d, p) => {
        const value = new Fraction(n, BigInt(d)).mul(new Fraction(10).pow(p)!)
        const off = exact(nearestNumberText(value)).sub(value)
        expect(off.abs().div(value).compare('1/100000000000000')).toBeLessThan(0)
        expect(exact(nearestNumberText(value, true)).compare(value)).toBeLessThanOrEqual(0)
      }),
    )
  })
  it('too small or too large for the powers allowed is the nearest there is', () => {
    const third = (p: number) => new Fraction(1, 3).mul(new Fraction(10).pow(p)!)
    expect([third(-400), third(400), third(-400).neg()].map((value) => nearestNumberText(value))).toEqual([
      '0',
      '9e300',
      '0',
    ])
  })
})

describe('for people', () => {
  it.each([
    ['6.02e23', false, '6.02 × 10²³'],
    ['-1.6e-19', true, '−1,6 × 10⁻¹⁹'],
    ['-3.5', false, '−3.5'],
    ['north', false, 'north'],
    ['1/3', false, '1/3'],
  ] as const)('%s', (text, comma, shown) => expect(numberForPeople(text, comma)).toBe(shown))
})
