/** Leaks between quizzes that share questions, against trying every instant; and who has seen what already. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, questionRow, sampleContent, sampleRules, sampleStudent, sampleWindow } from '../../../tests/fixtures/core'
import { minute, plus, type Instant } from '../../kit/time'
import { leakBetween } from '../../release/between'
import { endsOf, visibleFacets, type Assigned } from '../../release'
import { assignedTo, limitsFor, maySit, notSat } from '../../schedule'
import { applyEdit, checkQuiz, usualRules, type Quiz, type Rules } from '..'
import type { CheckContext } from './check'

const half = (n: number): Instant => plus(at('00:00'), n * 30 * minute)
const rulesOf = (opens: number, long: number, limit: number | null, moment: Rules['release']['key']['from']): Rules =>
  sampleRules({
    windows: [{ ...sampleWindow, opens: half(opens), closes: half(opens + long) }],
    limit,
    grace: 0,
    atClosing: 'clock',
    release: {
      ...usualRules.release,
      marks: { ...usualRules.release.marks, from: { at: 'never' } },
      comments: { ...usualRules.release.comments, from: { at: 'never' } },
      key: { ...usualRules.release.key, from: moment },
    },
  })
const everyone = (rules: Rules) =>
  assignedTo([sampleStudent({ id: 'ann', classes: ['tue'] }), sampleStudent({ id: 'ben', classes: ['tue'] })], rules)
const moments = fc.oneof(
  fc.constant({ at: 'handIn' as const, offset: 0 }),
  fc.constant({ at: 'everyoneDone' as const, offset: 0 }),
  fc.constant({ at: 'windowClosed' as const, offset: 60 }),
  fc.nat(40).map((n) => ({ at: 'instant' as const, instant: half(n) })),
)
const shape = fc.tuple(fc.nat(16), fc.integer({ min: 1, max: 8 }), fc.constantFrom(30, 60, null), moments)

/** By trying: the first half hour at which somebody who sat at once sees the key, and whether anybody can be at work on the other after it. */
function tried(one: Rules, other: Rules): { at: Instant; until: Instant } | null {
  const viewers = everyone(one)
  const ends = endsOf(viewers)
  const stops = everyone(other).flatMap(({ schedule }) =>
    Array.from({ length: 60 }, (_, n) => half(n)).flatMap((start) =>
      maySit('open', schedule, notSat, plus(start, -1), 'UTC').may
        ? (limitsFor(schedule, { startedAt: start, window: 'w1' }).hardStop ?? [])
        : [],
    ),
  )
  const until = stops.sort().at(-1)
  for (let n = 0; n < 80; n++) {
    const now = half(n)
    const sees = viewers.some(({ schedule, classes }) => {
      const [window] = schedule.windows
      const context = {
        handedInAt: window!.opens,
        markedAt: window!.opens,
        passed: true,
        attemptsUsedAt: null,
        due: null,
        classEnd: ends.ofClasses(classes),
        everyoneEnd: ends.everyone,
        releasedAt: null,
        againUntil: { is: 'beforeAll' as const },
        viewed: [],
      }
      return window!.opens <= now && visibleFacets(one.release, context, now).facets.key.shown
    })
    if (sees) return until !== undefined && until > now ? { at: now, until } : null
  }
  return null
}

describe('quizzes that share questions', () => {
  it('leak exactly when the first sight of one comes before the last end of the other', () => {
    let [leaking, calm] = [0, 0]
    fc.assert(
      fc.property(shape, shape, (a, b) => {
        const [one, other] = [rulesOf(...a), rulesOf(...b)]
        const found = leakBetween({ rules: one, everyone: everyone(one) }, everyone(other))
        const expected = tried(one, other)
        expect(found && { at: found.at, until: found.until }).toEqual(expected)
        if (expected) leaking++
        else calm++
      }),
      { numRuns: 300 },
    )
    expect(Math.min(leaking, calm)).toBeGreaterThan(40)
  })

  const quiz = (rules: Rules): Quiz => ({ content: sampleContent([questionRow('q1')]), rules })
  const context = (rules: Rules, more: Partial<CheckContext>): CheckContext => ({
    now: at('08:00'),
    zone: 'UTC',
    students: everyone(rules) as unknown as CheckContext['students'],
    questions: new Map(),
    objectives: new Map(),
    scales: [],
    names: new Map([['tue', 'Tuesday evening']]),
    ...more,
  })
  it('are told in both directions, and the remedy mends what this quiz gives away', () => {
    const early = rulesOf(18, 2, 30, { at: 'handIn', offset: 0 })
    const late = rulesOf(30, 4, 30, { at: 'handIn', offset: 0 })
    const others = [
      { id: 'o', title: 'Lights', shared: 3, rules: late, students: everyone(late) as unknown as Assigned[] },
    ]
    const codes = (rules: Rules) =>
      checkQuiz(quiz(rules), context(rules, { others }))
        .filter(({ code }) => code.startsWith('shared'))
        .map(({ code, remedy }) => [code, remedy?.label ?? null])
    expect(codes(early)).toEqual([['shared-out:o', 'Show it when “Lights” is over']])
    const [found] = checkQuiz(quiz(early), context(early, { others })).filter(({ code }) => code === 'shared-out:o')
    expect(found!.sentence).toMatch(/3 questions are in “Lights” as well, which 2 students can still sit/)
    const mended = applyEdit(quiz(early), (found!.remedy as { edit: Parameters<typeof applyEdit>[1] }).edit).quiz
    expect(codes(mended.rules)).toEqual([])
    const later = rulesOf(40, 4, 30, { at: 'handIn', offset: 0 })
    expect(codes(later)).toEqual([['shared-in:o', null]])
  })

  it('who has seen the answers is named while others can still sit, and only then', () => {
    const rules = rulesOf(18, 10, 30, { at: 'handIn', offset: 0 })
    const seen = [
      { student: 'ann', name: 'Ann Reed', facet: 'key' as const, at: at('09:30') },
      { student: 'ann', name: 'Ann Reed', facet: 'score' as const, at: at('09:10') },
    ]
    const told = (more: Partial<CheckContext>) =>
      checkQuiz(quiz(rules), context(rules, { seen, ...more })).find(({ code }) => code === 'seen-already')
    expect(told({})!.sentence).toMatch(/^Ann Reed has seen “correct answers”, first .*09:30; .* can still sit/)
    expect(told({ seen: seen.slice(1) })).toBeUndefined()
    expect(told({ begun: new Map([['ben', 1]]) })).toBeUndefined()
    expect(told({ now: at('20:00') })).toBeUndefined()
  })
})
