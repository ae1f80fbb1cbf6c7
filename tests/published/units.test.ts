/**
 * Unit conversion against published exact factors: SI Brochure, 9th edition (2019), tables 7 and 8 (minute, hour, tonne, bar by
 * prefix) and prefixes; 8th edition, table 8 (nautical mile, knot, bar); NIST Handbook 44, appendix C (foot, fathom). The
 * figures are from memory of these tables.
 */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Fraction } from '../../core/kit/exact'
import { readQuantity } from '../../core/kit/quantity'
import { convert, unitNamed, unitNames } from '../../core/kit/units'

const factors: [from: string, to: string, factor: string][] = [
  ['km', 'm', '1000'],
  ['m', 'cm', '100'],
  ['cm', 'mm', '10'],
  ['nm', 'm', '1852'],
  ['ft', 'm', '381/1250'],
  ['fathom', 'ft', '6'],
  ['fathom', 'm', '1143/625'],
  ['min', 's', '60'],
  ['h', 's', '3600'],
  ['h', 'min', '60'],
  ['kn', 'm/s', '463/900'],
  ['kn', 'km/h', '463/250'],
  ['km/h', 'm/s', '5/18'],
  ['kg', 'g', '1000'],
  ['t', 'kg', '1000'],
  ['hPa', 'Pa', '100'],
  ['bar', 'Pa', '100000'],
  ['bar', 'hPa', '1000'],
]

describe('units', () => {
  it.each(factors)('one %s is exactly so many %s: %s', (from, to, factor) => {
    expect(convert(new Fraction(1), from, to)!.toFraction()).toBe(new Fraction(factor).toFraction())
    expect(convert(new Fraction(factor), to, from)!.toFraction()).toBe('1')
  })
  it('there and back is where one was, exactly, for every pair of units of one quantity', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...unitNames),
        fc.constantFrom(...unitNames),
        fc.integer({ min: -1_000_000, max: 1_000_000 }),
        (from, to, thousandths) => {
          const value = new Fraction(thousandths, 1000)
          const there = convert(value, from, to)
          if (there) expect(convert(there, to, from)!.equals(value)).toBe(true)
        },
      ),
    )
  })
  it('quantities do not mix', () =>
    expect([
      convert(new Fraction(1), 'm', 's'),
      convert(new Fraction(1), 'kn', 'nm'),
      convert(new Fraction(1), '°', '%'),
    ]).toEqual([undefined, undefined, undefined]))
  it('symbols keep their case as SI asks; words do not', () => {
    expect([
      unitNamed('Nautical Miles'),
      unitNamed('hpa'),
      unitNamed('M'),
      unitNamed('m'),
      unitNamed('furlong'),
    ]).toEqual(['nm', 'hPa', 'nm', 'm', undefined])
  })
  it('a quantity is read in the unit asked for', () => {
    expect(readQuantity('12.5 km', { unit: 'm', unitAsked: false, style: 'point' })).toMatchObject({
      ok: true,
      unit: 'm',
    })
    const read = readQuantity('6 fathoms', { unit: 'm', unitAsked: true, style: 'point' })
    expect(read.ok && read.value.toFraction()).toBe(new Fraction('10.9728').toFraction())
  })
})
