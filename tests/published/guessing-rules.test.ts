/**
 * The chance to pass by guessing where rules change what a guess is worth (semantics §8): binomial distributions (jStat),
 * and small quizzes of which every course of events is gone through, marked and graded as attempts are.
 */
import fc from 'fast-check'
import jstat from 'jstat'
import { describe, expect, it } from 'vitest'
import { figuresFor } from '../../core/figures'
import { exactText, Fraction, sum } from '../../core/kit/exact'
import { bestOfEach, gradeFor, type GradedAttempt } from '../../core/marking'
import { usualRules, type Content, type Rules } from '../../core/quiz'
import { factsNamed, names, questionRow, sampleContent } from '../fixtures/core'

const passAt = (value: number, over: Partial<Rules> = {}): Rules => ({
  ...usualRules,
  ...over,
  grade: {
    method: 'highest',
    decimals: 1,
    pass: { by: 'percent', value },
    scale: { by: 'percent' },
    sections: [],
    ...over.grade,
  },
})
const ten = sampleContent(names('q', 10).map((id) => questionRow(id)))
const tail = (from: number, n: number, p: number) => 1 - jstat.jStat.binomial.cdf(from - 1, n, p)
const chance = (rules: Rules, content: Content = ten) => figuresFor(content, rules, factsNamed(names('q', 10))).guessing
const attempts = (over: Partial<Rules['attempts']>) => ({ ...usualRules.attempts, ...over })
const working = (over: Partial<Rules['working']>) => ({ ...usualRules.working, check: true, ...over })

describe('ten choices of four, to pass at 60 percent', () => {
  it('three attempts of only the questions missed: each is right with 1 − (3/4)³', () => {
    const { passes, passesError } = chance(passAt(60, { attempts: attempts({ count: 3, draw: 'missed' }) }))
    expect(passes).toBeCloseTo(tail(6, 10, 1 - 0.75 ** 3), 9)
    expect(passes! * 100).toBeCloseTo(57.7, 1)
    expect(passesError).toBe(0)
    // Drawn afresh, one of three has to do it alone.
    expect(chance(passAt(60, { attempts: attempts({ count: 3 }) })).passes! * 100).toBeCloseTo(5.8, 1)
  })
  it('two tries of each are right with 2/4, as many as wanted always', () => {
    expect(chance(passAt(60, { working: working({ tries: 2 }) })).passes).toBeCloseTo(tail(6, 10, 0.5), 9)
    expect(chance(passAt(60, { working: working({ tries: 2 }) })).passes! * 100).toBeCloseTo(37.7, 1)
    expect(chance(passAt(60, { working: working({ tries: null }) })).passes).toBeCloseTo(1, 12)
    expect(chance(passAt(60)).passes! * 100).toBeCloseTo(2, 1)
  })
  it('further tries cost: right at the j-th of four earns 1 − (j − 1)/2 of the points', () => {
    const { mean } = chance(passAt(60, { working: working({ tries: null, cost: 50 }) }))
    expect(mean).toBeCloseTo((1 + 0.5 + 0 + 0) / 4, 12)
  })
  it('two sections of five that each need 60 percent', () => {
    const rows = names('q', 10).map((id) => questionRow(id))
    const [section] = ten.sections
    const content: Content = {
      ...ten,
      sections: [
        { ...section!, id: 's1', rows: rows.slice(0, 5) },
        { ...section!, id: 's2', rows: rows.slice(5) },
      ],
    }
    const sections = ['s1', 's2'].map((id) => ({ id, section: id, percent: 60 }))
    const rules = passAt(60)
    const { passes } = chance({ ...rules, grade: { ...rules.grade, sections } }, content)
    expect(passes).toBeCloseTo(tail(3, 5, 0.25) ** 2, 9)
    expect(passes! * 100).toBeCloseTo(1.1, 1)
  })
})

/** A quiz of two or three choices among two or three, and rules. */
const quizzes = fc.record({
  options: fc.array(fc.integer({ min: 2, max: 3 }), { minLength: 2, maxLength: 3 }),
  points: fc.array(fc.constantFrom(0.5, 1, 2), { minLength: 3, maxLength: 3 }),
  partly: fc.boolean(),
  pass: fc.constantFrom(30, 50, 60, 67, 75, 100),
  method: fc.constantFrom<Rules['grade']['method']>('first', 'latest', 'highest', 'lowest', 'average'),
  count: fc.integer({ min: 1, max: 2 }),
  draw: fc.constantFrom<Rules['attempts']['draw']>('fresh', 'missed'),
  cost: fc.constantFrom(0, 25),
  wrong: fc.constantFrom<Content['wrongCost']>({ by: 'none' }, { by: 'formula' }, { by: 'share', share: 0.5 }),
  tries: fc.constantFrom<number | null | 0>(0, 1, 2, null),
  tryCost: fc.constantFrom(0, 40),
  sectionPass: fc.constantFrom(null, 50, 60),
})
type Drawn = typeof quizzes extends fc.Arbitrary<infer T> ? T : never

/** What somebody gets out of one question, going through every order in which they may give its answers. */
function courses(credits: readonly number[], quiz: Drawn): { points: Fraction; chance: number }[] {
  const tries = quiz.tries === 0 ? 1 : (quiz.tries ?? credits.length)
  const off =
    quiz.wrong.by === 'none'
      ? new Fraction(0)
      : quiz.wrong.by === 'formula'
        ? new Fraction(1, credits.length - 1)
        : new Fraction(quiz.wrong.share)
  const go = (left: readonly number[], tried: number, chanceSoFar: number): { points: Fraction; chance: number }[] =>
    left.flatMap((credit, i) => {
      const here = chanceSoFar / left.length
      if (credit < 1 && tried + 1 < tries)
        return go(
          left.filter((_, at) => at !== i),
          tried + 1,
          here,
        )
      const help = new Fraction(quiz.tries === 0 ? 0 : quiz.tryCost, 100).mul(tried)
      const share = new Fraction(credit)
      const after = share.compare(0) > 0 ? share.sub(help) : share
      const kept = after.compare(0) < 0 ? new Fraction(0) : after
      return [{ points: credit === 0 ? kept.sub(off) : kept, chance: here }]
    })
  return go(credits, 0, 1)
}

const creditsOf = (quiz: Drawn, i: number): number[] =>
  Array.from({ length: quiz.options[i]! }, (_, at) =>
    at === 0 ? 1 : at === 1 && quiz.partly && quiz.options[i] === 3 ? 0.5 : 0,
  )

interface Sat {
  /** By question, in points. */
  earned: Fraction[]
  full: boolean[]
}

/** Every course of all attempts, each with its chance and whether it passes. */
function passesByAll(quiz: Drawn, rules: Rules): number {
  const worth = quiz.options.map((_, i) => new Fraction(quiz.points[i]!))
  const perQuestion = quiz.options.map((_, i) => courses(creditsOf(quiz, i), quiz))
  const section = (i: number) => (i === 0 ? 's1' : 's2')
  const graded = (number: number, earned: readonly Fraction[]): GradedAttempt => {
    const of = (wanted: (i: number) => boolean) => {
      const mine = earned.filter((_, i) => wanted(i))
      const all = sum(mine)
      return {
        score: exactText(all.compare(0) < 0 ? new Fraction(0) : all),
        possible: exactText(sum(worth.filter((_, i) => wanted(i)))),
      }
    }
    return {
      number,
      state: 'handed',
      daysLate: 0,
      ...of(() => true),
      sections: { s1: of((i) => section(i) === 's1'), s2: of((i) => section(i) === 's2') },
    }
  }
  const one = (before: Sat | null): { sat: Sat; chance: number }[] =>
    quiz.options.reduce<{ sat: Sat; chance: number }[]>(
      (all, _, i) =>
        all.flatMap(({ sat, chance: so }) => {
          if (before && quiz.draw === 'missed' && before.full[i])
            return [{ sat: { earned: [...sat.earned, before.earned[i]!], full: [...sat.full, true] }, chance: so }]
          return perQuestion[i]!.map(({ points, chance: here }) => {
            const now = points.mul(worth[i]!)
            const best =
              before && quiz.draw === 'missed'
                ? new Fraction(
                    bestOfEach(
                      [before.earned[i]!, now].map((each) => [
                        { question: 'q', section: 's', points: exactText(each), possible: exactText(worth[i]!) },
                      ]),
                    )[0]!.points!,
                  )
                : now
            return {
              sat: { earned: [...sat.earned, best], full: [...sat.full, best.compare(worth[i]!) >= 0] },
              chance: so * here,
            }
          })
        }),
      [{ sat: { earned: [], full: [] }, chance: 1 }],
    )
  const go = (before: Sat | null, done: GradedAttempt[], so: number): number => {
    if (done.length === quiz.count) return gradeFor(done, null, rules).passed ? so : 0
    return one(before).reduce(
      (all, { sat, chance: here }) => all + go(sat, [...done, graded(done.length + 1, sat.earned)], so * here),
      0,
    )
  }
  return go(null, [], 1)
}

it('is what going through every course of events finds, for every rule', { timeout: 60_000 }, () => {
  let simulated = 0
  let exactly = 0
  fc.assert(
    fc.property(quizzes, (quiz) => {
      const ids = names('q', quiz.options.length)
      const rows = ids.map((id, i) => questionRow(id, { points: quiz.points[i] }))
      const [section] = ten.sections
      const content: Content = {
        ...ten,
        wrongCost: quiz.wrong,
        sections: [
          { ...section!, id: 's1', rows: rows.slice(0, 1) },
          { ...section!, id: 's2', rows: rows.slice(1) },
        ],
      }
      const rules = passAt(quiz.pass, {
        attempts: attempts({ count: quiz.count, draw: quiz.draw, cost: quiz.cost }),
        working: quiz.tries === 0 ? usualRules.working : working({ tries: quiz.tries, cost: quiz.tryCost }),
      })
      const graded: Rules = {
        ...rules,
        grade: {
          ...rules.grade,
          method: quiz.method,
          sections: quiz.sectionPass === null ? [] : [{ id: 's2', section: 's2', percent: quiz.sectionPass }],
        },
      }
      const facts = factsNamed(ids, (i) => ({
        options: quiz.options[i]!,
        guesses: [...new Set(creditsOf(quiz, i))]
          .sort((a, b) => a - b)
          .map((credit) => ({
            value: String(credit),
            chance: creditsOf(quiz, i).filter((each) => each === credit).length / quiz.options[i]!,
          })),
      }))
      const { passes, passesError } = figuresFor(content, graded, facts).guessing
      const wanted = passesByAll(quiz, graded)
      if (passesError) {
        simulated++
        expect(Math.abs(passes! - wanted)).toBeLessThan(2 * passesError + 0.005)
      } else {
        exactly++
        expect(passes).toBeCloseTo(wanted, 9)
      }
    }),
    { numRuns: 120, seed: 22 },
  )
  // Both ways were gone: most rules have a closed form.
  expect(exactly).toBeGreaterThan(70)
  expect(simulated).toBeGreaterThan(3)
})
