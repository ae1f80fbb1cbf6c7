/**
 * Correlation against the registry's statistics library jstat; facility and item–rest correlation on open data: five items,
 * 1,000 examinees (R. D. Bock and M. Lieberman, Psychometrika 35 (1970), 179–197; data set `bock` of the R package psych 2.2.9),
 * with the figures that psych::alpha 2.2.9 gives on it.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import jstat from 'jstat'
import { describe, expect, it } from 'vitest'
import { correlation, itemFigures } from '../../core/analysis/item'

const published: [facility: number, itemRest: number][] = [
  [0.924, 0.1128327],
  [0.709, 0.1531781],
  [0.553, 0.1727789],
  [0.763, 0.1444281],
  [0.87, 0.1215964],
]
const people = readFileSync(join(import.meta.dirname, '..', 'fixtures', 'lsat6-patterns.csv'), 'utf8')
  .trim()
  .split('\n')
  .slice(1)
  .flatMap((line) => {
    const [pattern, frequency] = line.trim().split(',') as [string, string]
    return Array.from({ length: Number(frequency) }, () => [...pattern].map(Number))
  })

describe('item figures', () => {
  it.each(published.map((figures, item) => [item + 1, ...figures] as const))(
    'item %i of the five: facility %f, item–rest correlation %f',
    (item, facility, itemRest) => {
      const found = itemFigures(
        people.map((answers) => ({
          share: answers[item - 1]!,
          rest: (answers.reduce((a, b) => a + b, 0) - answers[item - 1]!) / 4,
        })),
      )
      expect(found.n).toBe(1000)
      expect(found.facility).toBeCloseTo(facility, 9)
      expect(found.discrimination).toBeCloseTo(itemRest, 7)
    },
  )
  it('correlate as jstat does', () => {
    const number = fc.integer({ min: -1000, max: 1000 })
    fc.assert(
      fc.property(fc.array(fc.tuple(number, number), { minLength: 3, maxLength: 40 }), (pairs) => {
        const ours = correlation(pairs)
        const [a, b] = [pairs.map(([x]) => x), pairs.map(([, y]) => y)]
        const theirs = (jstat as unknown as { corrcoeff(a: number[], b: number[]): number }).corrcoeff(a, b)
        if (ours === null) expect(new Set(a).size === 1 || new Set(b).size === 1).toBe(true)
        else expect(ours).toBeCloseTo(theirs, 9)
      }),
    )
  })
  it('tell nothing below eight responses', () => {
    const responses = Array.from({ length: 7 }, (_, i) => ({ share: i % 2, rest: i / 7 }))
    expect(itemFigures(responses)).toEqual({ n: 7, facility: null, discrimination: null })
    expect(itemFigures([...responses, { share: 1, rest: 1 }])).toMatchObject({ n: 8, facility: 0.5 })
  })
  it('a question that everybody gets right discriminates nothing', () => {
    expect(itemFigures(Array.from({ length: 20 }, (_, i) => ({ share: 1, rest: i / 20 })))).toMatchObject({
      facility: 1,
      discrimination: null,
    })
  })
})
