import { describe, expect, it } from 'vitest'
import { readOwnValue, type OwnField } from './own-fields'

const field = (sort: OwnField['sort']): OwnField => ({ id: 'f', name: 'Field', sort, choices: ['Red', 'Blue'] })

describe('values of own fields', () => {
  it.each([
    ['text', '  Ada \u202E Brook ', 'Ada Brook'],
    ['text', '', ''],
    ['number', '3,5', '3.5'],
    ['number', '\u221212', '-12'],
    ['day', '2028-02-29', '2028-02-29'],
    ['choice', 'Red', 'Red'],
    ['choice', ' ', ''],
  ] as const)('%s: “%s” is kept', (sort, typed, value) => {
    expect(readOwnValue(field(sort), typed)).toEqual({ value })
  })
  it.each([
    ['text', 'a'.repeat(201), /at most 200/],
    ['number', '1.2.3', /is a number/],
    ['number', '1e9', /is a number/],
    ['day', '2027-02-29', /is a day/],
    ['day', '1.9.2026', /is a day/],
    ['choice', 'red', /one of: Red, Blue/],
  ] as const)('%s: “%s” is told', (sort, typed, fault) => {
    const read = readOwnValue(field(sort), typed)
    expect('fault' in read && read.fault).toMatch(fault)
  })
})
