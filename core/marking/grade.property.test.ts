/** What holds of grades for all attempts and rules (semantics §1 and §6). */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleRules } from '../../tests/fixtures/core'
import { exact } from '../kit/exact'
import { gradeMethods, type Rules } from '../quiz'
import { gradeFor, shareOf, type GradedAttempt } from './grade'
import { lateness } from './late'

const attempts = fc
  .array(
    fc.record({
      score: fc.option(fc.tuple(fc.nat(120), fc.integer({ min: 1, max: 9 })), { nil: null, freq: 6 }),
      daysLate: fc.nat(4),
      state: fc.constantFrom('handed' as const, 'handed' as const, 'unsent' as const),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((list) =>
    list.map(({ score, daysLate, state }, i): GradedAttempt => ({
      number: i + 1,
      state,
      score: score && `${score[0]}/${score[1]}`,
      possible: '12',
      daysLate,
    })),
  )
const ruleSets = fc
  .record({
    method: fc.constantFrom(...gradeMethods),
    decimals: fc.integer({ min: 0, max: 3 }),
    pass: fc.option(
      fc.record({
        by: fc.constantFrom('percent' as const, 'points' as const),
        value: fc.integer({ min: 0, max: 100 }),
      }),
      { nil: null },
    ),
    further: fc.integer({ min: 0, max: 100 }),
    perDay: fc.integer({ min: 0, max: 100 }),
  })
  .map(({ method, decimals, pass, further, perDay }): Rules => {
    const base = sampleRules()
    return {
      ...base,
      grade: { ...base.grade, method, decimals, pass },
      attempts: { ...base.attempts, count: null, cost: further },
      late: { accepted: true, costPerDay: perDay, lastDays: null },
    }
  })
const marked = (list: GradedAttempt[]) => list.every((each) => each.state === 'unsent' || each.score !== null)

describe('a grade', () => {
  it('passes exactly when what people read reaches the pass mark', () => {
    fc.assert(
      fc.property(attempts, ruleSets, (list, rules) => {
        const grade = gradeFor(list, null, rules)
        const { pass } = rules.grade
        if (grade.undecided || pass === null) {
          expect(grade.passed).toBeNull()
          return
        }
        const read = Number(pass.by === 'percent' ? grade.percent : grade.points)
        expect(grade.passed).toBe(read >= pass.value)
      }),
      { numRuns: 500 },
    )
  })
  it('is never below 0, is read with its decimals, and is undecided only while a mark is missing', () => {
    fc.assert(
      fc.property(attempts, ruleSets, (list, rules) => {
        const grade = gradeFor(list, null, rules)
        if (grade.undecided) {
          expect(marked(list)).toBe(false)
          expect([grade.percent, grade.passed]).toEqual([null, null])
          return
        }
        expect(exact(grade.share!).compare(0)).toBeGreaterThanOrEqual(0)
        expect(grade.percent!.split('.')[1]?.length ?? 0).toBe(rules.grade.decimals)
        expect(Math.abs(Number(grade.percent) - exact(grade.share!).valueOf() * 100)).toBeLessThanOrEqual(
          0.5 * 10 ** -rules.grade.decimals + 1e-9,
        )
      }),
      { numRuns: 500 },
    )
  })
  it('costs only ever take away, and never more than there is', () => {
    fc.assert(
      fc.property(attempts, ruleSets, (list, rules) => {
        const free = {
          ...rules,
          attempts: { ...rules.attempts, cost: 0 },
          late: { accepted: true, costPerDay: 0, lastDays: null },
        }
        for (const attempt of list) {
          const [dear, cheap] = [shareOf(attempt, rules), shareOf(attempt, free)]
          if (dear === null || cheap === null) {
            expect([dear, cheap]).toEqual([null, null])
            continue
          }
          expect(dear.compare(0)).toBeGreaterThanOrEqual(0)
          expect(dear.compare(cheap)).toBeLessThanOrEqual(0)
          // The first attempt, in time, costs nothing.
          if (attempt.number === 1 && attempt.daysLate === 0) expect(dear.equals(cheap)).toBe(true)
        }
      }),
    )
  })
  it('lies between the lowest and the highest, whatever the method', () => {
    fc.assert(
      fc.property(attempts, ruleSets, (list, rules) => {
        fc.pre(marked(list))
        const by = (method: Rules['grade']['method']) =>
          exact(gradeFor(list, null, { ...rules, grade: { ...rules.grade, method } }).share!)
        const [lowest, highest] = [by('lowest'), by('highest')]
        for (const method of gradeMethods) {
          expect(by(method).compare(lowest)).toBeGreaterThanOrEqual(0)
          expect(by(method).compare(highest)).toBeLessThanOrEqual(0)
        }
      }),
    )
  })
  it('an override stands whatever was sat, and keeps to the decimals', () => {
    fc.assert(
      fc.property(attempts, ruleSets, fc.integer({ min: 0, max: 100 }), (list, rules, percent) => {
        const grade = gradeFor(list, { percent: String(percent), excused: false }, rules)
        expect([Number(grade.percent), grade.overridden, grade.undecided]).toEqual([percent, true, false])
        expect(gradeFor(list, { percent: null, excused: true }, rules)).toMatchObject({ excused: true, passed: null })
      }),
    )
  })
})

describe('being late', () => {
  it('counts started days and minutes, none where it was in time', () => {
    const at = (seconds: number) => new Date(Date.UTC(2030, 4, 14) + seconds * 1000).toISOString()
    fc.assert(
      fc.property(fc.integer({ min: -500_000, max: 500_000 }), (seconds) => {
        const { daysLate, minutesOver } = lateness(at(seconds), at(0), at(0))
        expect(daysLate).toBe(seconds <= 0 ? 0 : Math.ceil(seconds / 86_400))
        expect(minutesOver).toBe(seconds <= 0 ? 0 : Math.ceil(seconds / 60))
        expect(lateness(at(seconds), null, null)).toEqual({ daysLate: 0, minutesOver: 0 })
      }),
    )
  })
})
