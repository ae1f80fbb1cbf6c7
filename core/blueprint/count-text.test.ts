import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { countText, readCount } from './count-text'

describe('counts as people type them', () => {
  it.each([
    ['4', { atLeast: 4, atMost: 4 }],
    [' 0-2 ', { atLeast: 0, atMost: 2 }],
    ['1 – 3', { atLeast: 1, atMost: 3 }],
    ['1 to 3', { atLeast: 1, atMost: 3 }],
    ['3+', { atLeast: 3, atMost: null }],
    ['', null],
    ['–', null],
    ['0', null],
    ['3-1', undefined],
    ['four', undefined],
    ['1.5', undefined],
    ['999', undefined],
    ['-2', undefined],
  ])('%s', (typed, count) => {
    expect(readCount(typed)).toEqual(count)
  })
  it('read what is written', () => {
    fc.assert(
      fc.property(fc.nat(200), fc.option(fc.nat(200)), (a, b) => {
        const count = { atLeast: b === null ? a : Math.min(a, b), atMost: b === null ? null : Math.max(a, b) }
        if (count.atMost !== 0) expect(readCount(countText(count))).toEqual(count)
      }),
    )
  })
})
