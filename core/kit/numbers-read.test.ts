import { describe, expect, it } from 'vitest'
import { readNumber, type NumberStyle } from './numbers-read'

const read = (text: string, style: NumberStyle = 'point') => {
  const result = readNumber(text, style)
  return result.ok ? [result.value.toFraction(), result.rest] : result.reason
}

describe('readNumber', () => {
  it.each([
    ['3.75', 'point', '15/4'],
    ['3,75', 'point', '15/4'],
    ['3.75e0', 'point', '15/4'],
    ['3,75', 'comma', '15/4'],
    ['−2', 'point', '-2'],
    ['-2', 'point', '-2'],
    ['+2', 'point', '2'],
    ['1 000', 'point', '1000'],
    ['12 500.5', 'point', '25001/2'],
    ['.5', 'point', '1/2'],
    ['5.', 'point', '5'],
    ['1,234.5', 'point', '2469/2'],
    ['1.234,5', 'comma', '2469/2'],
    ['1.234.567,0', 'comma', '1234567'],
    ['2e-3', 'point', '1/500'],
  ] as const)('reads %s in style %s as %s', (text, style, value) => {
    expect(read(text, style)).toEqual([value, ''])
  })
  it('keeps what follows', () => {
    expect(read('3.9 m')).toEqual(['39/10', 'm'])
    expect(read('390cm')).toEqual(['390', 'cm'])
  })
  it.each([
    ['1,000', 'point'],
    ['1.000', 'comma'],
    ['1,000,000', 'point'],
  ] as const)('asks back where %s could be read in two ways', (text, style) => {
    expect(read(text, style)).toMatch(/two ways/)
  })
  it('refuses what is no number, with a sentence', () => {
    expect(read('four')).toMatch(/digits/)
    expect(read('1.2.3')).toMatch(/more than one decimal mark/)
    expect(read('')).toMatch(/digits/)
  })
})
