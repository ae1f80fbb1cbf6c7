import { describe, expect, it } from 'vitest'
import { longestInOrder } from '../question/kinds/ordering'
import { arrangements, choose, longestIncreasing, share, successions } from './counting'

function permutations(n: number): number[][] {
  if (n === 0) return [[]]
  return permutations(n - 1).flatMap((rest) =>
    Array.from({ length: n }, (_, at) => [...rest.slice(0, at), n - 1, ...rest.slice(at)]),
  )
}
const tally = (n: number, size: number, of: (permutation: number[]) => number) => {
  const counts = Array.from({ length: size }, () => 0n)
  for (const permutation of permutations(n)) counts[of(permutation)]! += 1n
  return counts
}

describe('counting', () => {
  it('agrees with every permutation of up to seven things', () => {
    for (let n = 1; n <= 7; n++) {
      expect(longestIncreasing(n)).toEqual(tally(n, n + 1, longestInOrder))
      const follow = (order: number[]) => order.slice(1).filter((each, i) => each === order[i]! + 1).length
      expect(successions(n)).toEqual(tally(n, n, follow))
    }
  })
  it('adds up to all permutations of thirty things', () => {
    const all = arrangements(30, 30)
    expect(longestIncreasing(30).reduce((a, b) => a + b)).toBe(all)
    expect(successions(30).reduce((a, b) => a + b)).toBe(all)
  })
  it('chooses and arranges none outside its range', () => {
    expect([choose(5, 2), choose(5, 6), choose(5, -1), choose(0, 0)]).toEqual([10n, 0n, 0n, 1n])
    expect([arrangements(5, 2), arrangements(5, 6), arrangements(5, 0)]).toEqual([20n, 0n, 1n])
  })
  it('forms shares of numbers that no float holds', () => {
    expect(share(1n, 4n)).toBe(0.25)
    expect(share(choose(2000, 1000), 2n ** 2000n)).toBeCloseTo(0.017839, 5)
    expect(share(1n, 10n ** 400n)).toBe(0)
    expect(share(10n ** 400n, 3n * 10n ** 400n)).toBeCloseTo(1 / 3, 15)
    expect(share(0n, 5n)).toBe(0)
    expect(share(7n, 7n)).toBe(1)
  })
})
