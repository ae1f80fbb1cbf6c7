import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { names, poolRow, questionRow, sampleContent, sampleEdition, sampleQuestion } from '../../tests/fixtures/core'
import { seededRandom } from '../kit/random'
import type { Edition } from '../quiz'
import { compilePaper } from './compile'
import { drawQuotas, quotaPatterns } from './spread'

const sizes = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 })
const drawn = sizes.chain((each) =>
  fc.tuple(fc.constant(each), fc.integer({ min: 0, max: each.reduce((a, b) => a + b) })),
)

describe('quotas', () => {
  it('are the floor or ceiling of each stratum’s share, and keep every question’s chance', () => {
    fc.assert(
      fc.property(drawn, ([each, draw]) => {
        const total = each.reduce((a, b) => a + b)
        const patterns = quotaPatterns(each, draw)
        expect(patterns.reduce((all, { chance }) => all + chance, 0)).toBeCloseTo(1, 12)
        for (const { quotas } of patterns) {
          expect(quotas.reduce((a, b) => a + b, 0)).toBe(draw)
          quotas.forEach((quota, i) => {
            expect(quota).toBeGreaterThanOrEqual(Math.floor((draw * each[i]!) / total))
            expect(quota).toBeLessThanOrEqual(Math.ceil((draw * each[i]!) / total))
          })
        }
        each.forEach((size, i) => {
          const mean = patterns.reduce((all, { quotas, chance }) => all + (chance * quotas[i]!) / size, 0)
          expect(mean).toBeCloseTo(draw / total, 12)
        })
      }),
    )
  })
  it('as drawn are one of the patterns, each about as often as it should', () => {
    const [each, draw] = [[3, 5, 2, 4], 6]
    const random = seededRandom('00', ['quotas'])
    const found = new Map<string, number>()
    for (let i = 0; i < 4000; i++) {
      const key = drawQuotas(each, draw, random).join()
      found.set(key, (found.get(key) ?? 0) + 1)
    }
    const patterns = quotaPatterns(each, draw)
    expect([...found.keys()].sort()).toEqual([...new Set(patterns.map(({ quotas }) => quotas.join()))].sort())
    for (const { quotas, chance } of patterns) expect(found.get(quotas.join())! / 4000).toBeCloseTo(chance, 1)
  })
})

describe('papers of a pool that is spread', () => {
  const describedEdition = (rows: Parameters<typeof sampleContent>[0]): Edition => {
    const edition = sampleEdition(sampleContent(rows))
    for (const [id, held] of Object.entries(edition.questions)) {
      const i = Number(id.slice(1))
      held.question = sampleQuestion('choice', {
        difficulty: (i % 3) + 1,
        objectives: [i % 2 ? 'odd' : 'even', 'also'],
      })
    }
    return edition
  }
  const counted = (
    edition: Edition,
    student: string,
    of: (question: Edition['questions'][string]['question']) => string,
  ) => {
    const counts = new Map<string, number>()
    for (const { question } of compilePaper(edition, student, 1, []).items) {
      const key = of(edition.questions[question]!.question)
      counts.set(key, (counts.get(key) ?? 0) + 1)
    }
    return counts
  }
  it('hold each difficulty by its share', () => {
    const edition = describedEdition([poolRow('p', names('q', 12), 6, { spread: 'difficulty' })])
    for (const student of names('s', 60))
      expect([...counted(edition, student, ({ difficulty }) => String(difficulty)).values()]).toEqual([2, 2, 2])
  })
  it('hold each main objective by its share, also where pools overlap and another question is claimed', () => {
    const edition = describedEdition([
      questionRow('q12'),
      poolRow('p', names('q', 12), 4, { spread: 'objectives' }),
      poolRow('r', names('q', 16).slice(8), 3),
    ])
    for (const student of names('s', 60)) {
      const { items } = compilePaper(edition, student, 1, [])
      const given = items.filter(({ row }) => row === 'p').map(({ question }) => Number(question.slice(1)) % 2)
      // Six odd and five even: 4·6/11 is 2.18, so two or three odd ones.
      expect([2, 3]).toContain(given.filter(Boolean).length)
      expect(new Set(items.map(({ question }) => question)).size).toBe(8)
    }
  })
  it('what leaves the other pools satisfiable goes before what is spread', () => {
    // The second pool needs all even ones there are: the first can only give odd ones.
    const odd = ['q1', 'q3', 'q5', 'q7']
    const even = ['q2', 'q4', 'q6', 'q8']
    const edition = describedEdition([
      poolRow('p', [...odd, ...even], 4, { spread: 'objectives' }),
      poolRow('r', even, 4),
    ])
    for (const student of names('s', 20)) {
      const { items } = compilePaper(edition, student, 1, [])
      expect(
        items
          .filter(({ row }) => row === 'p')
          .map(({ question }) => question)
          .sort(),
      ).toEqual(odd)
    }
  })
  it('prefer what was not seen within what each stratum gives', () => {
    const edition = describedEdition([poolRow('p', names('q', 12), 6, { spread: 'difficulty' })])
    for (const student of names('s', 20)) {
      const first = compilePaper(edition, student, 1, [])
      const second = compilePaper(edition, student, 2, [first])
      const seen = new Set(first.items.map(({ question }) => question))
      expect(second.items.filter(({ question }) => seen.has(question))).toEqual([])
    }
  })
  it('do not stand in the order of their strata', () => {
    const edition = describedEdition([poolRow('p', names('q', 12), 6, { spread: 'difficulty' })])
    const firsts = new Set(
      names('s', 40).map((student) => {
        const { items } = compilePaper(edition, student, 1, [])
        return edition.questions[items[0]!.question]!.question.difficulty
      }),
    )
    expect(firsts.size).toBe(3)
  })
})
