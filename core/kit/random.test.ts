import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { opaqueIds, seededRandom, shuffled, shuffledAround } from './random'

const secret = 'ab'.repeat(32)
const parts = fc.array(fc.string(), { minLength: 1, maxLength: 4 })

describe('seededRandom', () => {
  it('the same names give the same choices; others give others', () => {
    fc.assert(
      fc.property(parts, parts, (a, b) => {
        const draw = (names: string[]) => {
          const random = seededRandom(secret, names)
          return Array.from({ length: 8 }, () => random.below(2 ** 31)).join()
        }
        expect(draw(a) === draw(b)).toBe(JSON.stringify(a) === JSON.stringify(b))
      }),
    )
  })
  it('parts never run into one another', () => {
    const first = (names: string[]) => seededRandom(secret, names).below(2 ** 31)
    expect(first(['ab', 'c'])).not.toBe(first(['a', 'bc']))
    expect(first(['ab', ''])).not.toBe(first(['ab']))
    expect(first(['ä'])).not.toBe(first(['a\u0308']))
  })
  it('stays within its bound, and a bound of one or less needs no chance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2 ** 32 - 1 }), fc.string(), (bound, name) => {
        const value = seededRandom(secret, [name]).below(bound)
        expect(Number.isInteger(value) && value >= 0 && value < bound).toBe(true)
      }),
    )
    expect(seededRandom(secret, ['x']).below(1)).toBe(0)
  })
  it('another secret gives other papers for the same student', () => {
    const draw = (key: string) => shuffled([...'abcdefghij'], seededRandom(key, ['p1', '1'])).join('')
    expect(draw(secret)).not.toBe(draw('cd'.repeat(32)))
  })
})

describe('shuffling', () => {
  it('keeps every member, and leaves what it was given alone', () => {
    fc.assert(
      fc.property(fc.array(fc.integer()), fc.string(), (members, name) => {
        const before = [...members]
        const after = shuffled(members, seededRandom(secret, [name]))
        expect(members).toEqual(before)
        expect([...after].sort((a, b) => a - b)).toEqual([...before].sort((a, b) => a - b))
      }),
    )
  })
  it('around fixed members: those keep their places, the others keep theirs among themselves', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ id: fc.integer(), fixed: fc.boolean() })), fc.string(), (members, name) => {
        const after = shuffledAround(members, (each) => each.fixed, seededRandom(secret, [name]))
        expect(after).toHaveLength(members.length)
        members.forEach((each, place) => {
          expect(after[place]!.fixed).toBe(each.fixed)
          if (each.fixed) expect(after[place]).toBe(each)
        })
        expect(new Set(after)).toEqual(new Set(members))
      }),
    )
  })
})

describe('opaqueIds', () => {
  it('are six letters and digits, and none comes twice', () => {
    fc.assert(
      fc.property(fc.string(), (name) => {
        const next = opaqueIds(seededRandom(secret, [name]))
        const ids = Array.from({ length: 500 }, next)
        expect(new Set(ids).size).toBe(ids.length)
        expect(ids.every((id) => /^[0-9a-z]{6}$/.test(id))).toBe(true)
      }),
      { numRuns: 30 },
    )
  })
})
