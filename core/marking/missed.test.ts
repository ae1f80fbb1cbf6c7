/** The best of each question over attempts, and pass marks of sections: against adding up by hand, question by question. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleRules } from '../../tests/fixtures/core'
import { exact } from '../kit/exact'
import { usualRules } from '../quiz'
import type { SectionPass } from '../rules/grade'
import { bestOfEach, gradeFor, missedIn, totalsOf, type Earned, type GradedAttempt } from '.'

const worth = 4
const one = (question: string, points: string | null, section = 's1'): Earned => ({
  question,
  section,
  points,
  possible: String(worth),
})

describe('the best of each question', () => {
  it('is what was earned best in any attempt; one that waits for a mark is open', () => {
    const first = [one('a', '4'), one('b', '1'), one('c', '-1', 's2')]
    const second = [one('b', '3'), one('c', '0', 's2')]
    expect(totalsOf(bestOfEach([first, second]))).toEqual({
      score: '7',
      possible: '12',
      sections: { s1: { score: '7', possible: '8' }, s2: { score: '0', possible: '4' } },
    })
    expect([...missedIn([first, second])]).toEqual(['b', 'c'])
    expect(totalsOf(bestOfEach([first, [one('b', null), one('c', '4', 's2')]])).score).toBeNull()
    expect([...missedIn([first, [one('b', null), one('c', '4', 's2')]])]).toEqual(['b'])
  })
  it('never falls with a further attempt, and holds fewer and fewer questions', () => {
    let shrank = 0
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -2, max: worth }), { minLength: 1, maxLength: 6 }),
        fc.array(fc.array(fc.integer({ min: -2, max: worth }), { minLength: 6, maxLength: 6 }), { maxLength: 4 }),
        (first, further) => {
          const attempts: Earned[][] = [first.map((points, i) => one(`q${i}`, String(points)))]
          for (const points of further) {
            const before = missedIn(attempts)
            attempts.push([...before].map((question) => one(question, String(points[Number(question.slice(1))]!))))
            const after = missedIn(attempts)
            expect([...after].every((question) => before.has(question))).toBe(true)
            if (after.size < before.size) shrank++
          }
          // By hand: for each question the greatest number that was ever earned on it.
          const best = first.map((points, i) =>
            Math.max(
              points,
              ...attempts
                .slice(1)
                .flat()
                .filter((e) => e.question === `q${i}`)
                .map((e) => Number(e.points)),
            ),
          )
          const sum = Math.max(
            0,
            best.reduce((a, b) => a + b, 0),
          )
          expect(Number(totalsOf(bestOfEach(attempts)).score)).toBe(sum)
          expect(totalsOf(bestOfEach(attempts)).possible).toBe(String(first.length * worth))
          expect(missedIn(attempts)).toEqual(new Set(best.flatMap((points, i) => (points < worth ? [`q${i}`] : []))))
        },
      ),
    )
    expect(shrank).toBeGreaterThan(20)
  })
})

describe('pass marks of sections', () => {
  const rules = (sections: SectionPass[], method: 'highest' | 'average' = 'highest') =>
    sampleRules({ grade: { ...usualRules.grade, decimals: 0, method, pass: { by: 'percent', value: 50 }, sections } })
  const attempt = (s1: string, s2: string, number = 1): GradedAttempt => ({
    number,
    state: 'handed',
    score: exact(s1).add(exact(s2)).toFraction(),
    possible: '20',
    daysLate: 0,
    sections: { s1: { score: s1, possible: '10' }, s2: { score: s2, possible: '10' } },
  })
  const graded = (attempts: GradedAttempt[], given: ReturnType<typeof rules>) => gradeFor(attempts, null, given)
  it('keep somebody from passing whose whole would do; none of them makes anybody pass', () => {
    const needed = rules([{ id: 'pass-s2', section: 's2', percent: 40 }])
    expect(graded([attempt('10', '3')], needed)).toMatchObject({
      percent: '65',
      passed: false,
      sections: [{ section: 's2', percent: '30', needed: 40, reached: false }],
    })
    expect(graded([attempt('10', '4')], needed).passed).toBe(true)
    expect(graded([attempt('2', '4')], needed).passed).toBe(false)
  })
  it('what is displayed decides: 39.5 % reads 40 %', () => {
    const needed = rules([{ id: 'pass-s2', section: 's2', percent: 40 }])
    expect(graded([attempt('10', '3.95')], needed)).toMatchObject({ passed: true, sections: [{ percent: '40' }] })
    expect(graded([attempt('10', '3.94')], needed)).toMatchObject({ passed: false, sections: [{ percent: '39' }] })
  })
  it('look at the attempts that count, before any deduction; a section that gives no points asks nothing', () => {
    const needed = rules([{ id: 'pass-s2', section: 's2', percent: 40 }], 'average')
    expect(graded([attempt('10', '2'), attempt('10', '6', 2)], needed)).toMatchObject({ passed: true })
    expect(graded([attempt('10', '2'), attempt('10', '5', 2)], needed)).toMatchObject({ passed: false })
    const late = { ...attempt('10', '4'), daysLate: 1 }
    const costly = {
      ...rules([{ id: 'pass-s2', section: 's2', percent: 40 }]),
      late: { accepted: true, costPerDay: 20, lastDays: null },
    }
    expect(graded([late], costly)).toMatchObject({ percent: '56', passed: true, sections: [{ percent: '40' }] })
    expect(graded([attempt('10', '3')], rules([{ id: 'pass-s9', section: 's9', percent: 90 }]))).toMatchObject({
      passed: true,
      sections: [],
    })
    // Where handing in counts, sections are not asked.
    expect(
      gradeFor([attempt('0', '0')], null, {
        ...rules([{ id: 'pass-s2', section: 's2', percent: 40 }]),
        counts: 'completion',
      }).passed,
    ).toBe(true)
  })
})
