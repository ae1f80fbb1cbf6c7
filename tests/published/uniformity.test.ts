/**
 * Shuffles and draws against uniformity by the chi-square test. Critical values at α = 0.001: NIST/SEMATECH e-Handbook
 * of Statistical Methods, section 1.3.6.7.4, table of upper critical values of the chi-square distribution (written from
 * memory, and checked against jStat's inverse in the first test). Seeds are fixed, so the outcome is too.
 */
import jstat from 'jstat'
import { describe, expect, it } from 'vitest'
import { seededRandom, shuffled, shuffledAround } from '../../core/kit/random'
import { compilePaper, drawPools } from '../../core/paper'
import { names, poolRow, questionRow, sampleContent, sampleEdition } from '../fixtures/core'

const critical: Record<number, number> = { 5: 20.515, 9: 27.877, 11: 31.264, 23: 49.728 }
const secret = 'cd'.repeat(32)
const papers = 24_000

function chiSquare(counts: Map<string, number>, cells: number): number {
  const expected = [...counts.values()].reduce((a, b) => a + b, 0) / cells
  return (
    [...counts.values()].reduce((total, count) => total + (count - expected) ** 2 / expected, 0) +
    (cells - counts.size) * expected
  )
}

function tally(trial: (i: number) => string): Map<string, number> {
  const counts = new Map<string, number>()
  for (let i = 0; i < papers; i++) {
    const outcome = trial(i)
    counts.set(outcome, (counts.get(outcome) ?? 0) + 1)
  }
  return counts
}

const random = (i: number) => seededRandom(secret, ['uniform', String(i)])

describe('uniformity', () => {
  it.each(Object.entries(critical))('the critical value for %s degrees of freedom is the handbook’s', (dof, value) => {
    expect(jstat.jStat.chisquare.inv(0.999, Number(dof))).toBeCloseTo(value, 2)
  })
  it('all 24 orders of four things are equally likely', () => {
    expect(
      chiSquare(
        tally((i) => shuffled([1, 2, 3, 4], random(i)).join('')),
        24,
      ),
    ).toBeLessThan(critical[23]!)
  })
  it('with a fixed place, the six orders of the other three are', () => {
    const counts = tally((i) => shuffledAround([1, 2, 3, 4], (each) => each === 2, random(i)).join(''))
    expect([...counts.keys()].every((order) => order[1] === '2')).toBe(true)
    expect(chiSquare(counts, 6)).toBeLessThan(critical[5]!)
  })
  it('all ten draws of 2 of 5 are equally likely', () => {
    const demand = [{ id: 'p', holds: names('q', 5), draw: 2 }]
    expect(
      chiSquare(
        tally((i) => drawPools(demand, new Set(), null, random(i)).get('p')!.toSorted().join()),
        10,
      ),
    ).toBeLessThan(critical[9]!)
  })
  it('claimed questions take no part, and the rest stay uniform', () => {
    const demand = [{ id: 'p', holds: names('q', 5), draw: 2 }]
    expect(
      chiSquare(
        tally((i) =>
          drawPools(demand, new Set(['q1']), null, random(i))
            .get('p')!
            .toSorted()
            .join(),
        ),
        6,
      ),
    ).toBeLessThan(critical[5]!)
  })
  it('whole papers: the place of each question in a shuffled section with one kept row', () => {
    const content = sampleContent([questionRow('a', { fixed: true }), questionRow('b'), poolRow('p', names('q', 3), 2)])
    content.sections[0]!.order = 'shuffled'
    const edition = sampleEdition(content)
    // b stands in one of three places, beside one of three pairs: nine outcomes, equally likely.
    const counts = tally((i) => {
      const items = compilePaper(edition, `student ${i}`, 1, []).items.map((item) => item.question)
      return `${items.indexOf('b')} ${items
        .filter((each) => each.startsWith('q'))
        .toSorted()
        .join()}`
    })
    expect([...counts.keys()].some((outcome) => outcome.startsWith('0'))).toBe(false)
    expect(counts.size).toBe(9)
    expect(chiSquare(counts, 9)).toBeLessThan(jstat.jStat.chisquare.inv(0.999, 8))
  }, 60_000)
})

describe('determinism', () => {
  it('the same secret, student and attempt give the same paper; any other another', () => {
    const edition = sampleEdition(sampleContent([poolRow('p', names('q', 30), 10)]))
    const paper = (student: string, attempt: number) =>
      JSON.stringify(compilePaper(edition, student, attempt, []).items)
    expect(paper('a', 1)).toBe(paper('a', 1))
    expect(new Set([paper('a', 1), paper('a', 2), paper('b', 1), paper('a1', 1), paper('', 11)]).size).toBe(5)
    expect(JSON.stringify(compilePaper({ ...edition, secret }, 'a', 1, []).items)).not.toBe(paper('a', 1))
  })
})
