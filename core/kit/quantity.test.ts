import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Fraction } from './exact'
import { readQuantity } from './quantity'
import { convert, unitNamed, unitNames } from './units'

const asked = (unit: string, unitAsked = false, style: 'point' | 'comma' = 'point') => ({ unit, unitAsked, style })
const read = (text: string, as: ReturnType<typeof asked>) => {
  const result = readQuantity(text, as)
  return result.ok ? `${result.value.toFraction()} ${result.unit}`.trim() : result.reason
}

describe('a quantity as it is typed', () => {
  it.each([
    ['3.9', asked('m'), '39/10 m'],
    ['3.9 m', asked('m'), '39/10 m'],
    ['390 cm', asked('m'), '39/10 m'],
    ['3,9 metres', asked('m', true), '39/10 m'],
    ['2 fathoms', asked('ft', true), '12 ft'],
    ['1 M', asked('km', true), '463/250 km'],
    ['10 kn', asked('m/s', true), '463/90 m/s'],
    ['1013 mbar', asked('hPa', true), '1013 hPa'],
    ['085', asked('°'), '85 °'],
    ['085 deg', asked('°', true), '85 °'],
    ['4', asked('boats'), '4 boats'],
    ['4 boats', asked('boats'), '4 boats'],
    ['7', asked(''), '7'],
    ['5.35 × 10¹¹', asked(''), '535000000000'],
    ['5.35 x 10^11 m', asked('m', true), '535000000000 m'],
    ['6,02·10^(23)', asked('', false, 'comma'), '602000000000000000000000'],
    ['1.6 × 10⁻³ m', asked('m', true), '1/625 m'],
    ['2 × 10² KM', asked('m', true), '200000 m'],
  ])('“%s” is %j', (text, as, expected) => expect(read(text, as)).toBe(expected))
  it.each([
    ['3.9', asked('m', true), /Write the unit after the number/],
    ['3.9 kg', asked('m'), /not measured in “kg”/],
    ['3.9 parsecs', asked('m'), /“parsecs” is not a unit that is known/],
    ['3.9 m', asked(''), /Write the number alone/],
    ['about 4', asked('m'), /digits/],
    ['1,000 m', asked('m'), /two ways/],
    ['1 Nm', asked('km'), /“Nm” is not a unit/],
    ['1 Nm', asked('nm', true), /“Nm” is not a unit/],
    ['10 kN', asked('kn'), /“kN” is not a unit/],
    ['10 KN', asked('m/s'), /“KN” is not a unit/],
    ['3 Mm', asked('mm', true), /“Mm” is not a unit/],
    ['5 × 4', asked(''), /Write the number alone/],
  ])('“%s” asked as %j is asked back', (text, as, reason) => expect(read(text, as)).toMatch(reason))
})

describe('units', () => {
  it('there and back is where one was, exactly', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...unitNames),
        fc.constantFrom(...unitNames),
        fc.integer({ min: -1_000_000, max: 1_000_000 }),
        (from, to, n) => {
          const value = new Fraction(n, 1000)
          const there = convert(value, from, to)
          if (there) expect(convert(there, to, from)!.equals(value)).toBe(true)
          else expect(convert(value, to, from)).toBeUndefined()
        },
      ),
    )
  })
  it('every unit is known by its own name, and none by two', () => {
    for (const name of unitNames) expect(unitNamed(name)).toBe(name)
    expect([unitNamed('KM'), unitNamed('Knots'), unitNamed('metre'), unitNamed('mm'), unitNamed('MM')]).toEqual([
      'km',
      'kn',
      'm',
      'mm',
      'mm',
    ])
    expect([unitNamed(''), unitNamed('furlong'), unitNamed('pa')]).toEqual([undefined, undefined, undefined])
    for (const name of ['constructor', 'toString', '__proto__', 'hasOwnProperty'])
      expect(unitNamed(name), name).toBeUndefined()
  })
})
