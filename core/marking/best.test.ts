import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bestResults, type BestResults } from './best'

const named = (shares: (string | null)[]) =>
  shares.map((share, i) => ({ id: `s${i}`, name: `Nell ${String.fromCharCode(65 + (i % 26))}sh`, share }))

describe('best results', () => {
  const class8 = named(['1/2', '1', '1', '3/4', null, '0', '1/4', '1/3', '1/5'])
  it('are told by name, by initials, or only the own place; equal ones share one', () => {
    const byName = bestResults(class8, 's3', 'names', 0)!
    expect(byName.list.slice(0, 3).map(({ place, who, percent, own }) => [place, who, percent, own])).toEqual([
      [1, 'Nell Bsh', '100 %', false],
      [1, 'Nell Csh', '100 %', false],
      [3, 'Nell Dsh', '75 %', true],
    ])
    expect([byName.place, byName.of]).toEqual([3, 8])
    expect(bestResults(class8, 's3', 'initials', 0)!.list[0]!.who).toBe('N. B.')
    expect(bestResults(class8, 's3', 'place', 0)).toEqual({ place: 3, of: 8, list: [] })
    expect(bestResults(class8, 's4', 'names', 0)!.place).toBeNull()
  })
  it('are not told of so few that somebody can be worked out', () => {
    expect(bestResults(named(['1', '1', '1', '1', '1', '1', '1']), 's0', 'place', 0)).toBeNull()
  })
  it('a place is one more than those who did better', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 8, maxLength: 30 }), (shares) => {
        const all = named(shares.map((share) => `${share}/5`))
        all.forEach(({ id }, i) => {
          const found: BestResults = bestResults(all, id, 'names', 0)!
          expect(found.place).toBe(1 + shares.filter((share) => share > shares[i]!).length)
          expect(found.list.length).toBeLessThanOrEqual(10)
        })
      }),
    )
  })
})
