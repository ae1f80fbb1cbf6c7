/** What checks and hints cost, against a sum in whole hundredths; and when a question is closed by a check. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleContent, sampleEdition, sampleQuestion, questionRow } from '../../tests/fixtures/core'
import { exact } from '../kit/exact'
import { compilePaper } from '../paper'
import { kindOf } from '../question'
import { usualRules } from '../quiz'
import { checkVerdict, closesAfter, costOfHelp, markAttempt } from '.'

const rule = { ...usualRules.working, check: true, cost: 25, hints: true, hintCost: 10 }

describe('the cost of help', () => {
  it.each([
    [{ checks: 0, changedSince: false, hints: 0 }, 0],
    [{ checks: 1, changedSince: false, hints: 0 }, 0],
    // An answer changed after its last check is a further try.
    [{ checks: 1, changedSince: true, hints: 0 }, 0.25],
    [{ checks: 3, changedSince: false, hints: 0 }, 0.5],
    [{ checks: 3, changedSince: true, hints: 2 }, 0.95],
    [{ checks: 0, changedSince: false, hints: 2 }, 0.2],
  ])('of %j is %f of the points', (helped, share) => {
    expect(exact(costOfHelp(rule, helped)).valueOf()).toBe(share)
  })
  it('is taken off what was right, never below nothing, and never off what a person gave', () => {
    const edition = sampleEdition(sampleContent([questionRow('a', { points: 4 })]), { a: sampleQuestion('number') })
    const paper = compilePaper(edition, 'x', 1, [])
    const [{ id } = { id: '' }] = paper.items
    const kind = kindOf('number')
    const right = { [id]: kind.solution(sampleQuestion('number').body) }
    const full = markAttempt(edition, paper, right)
    fc.assert(
      fc.property(fc.nat(8), fc.nat(5), fc.nat(40), fc.nat(40), (checks, hints, cost, hintCost) => {
        const costs = { ...rule, cost, hintCost }
        const lost = costOfHelp(costs, { checks, changedSince: false, hints })
        const hundredths = cost * Math.max(0, checks - 1) + hintCost * hints
        const { score } = markAttempt(edition, paper, right, [], { help: { [id]: lost } })
        const share = exact(full.score!).div(4)
        const left = Math.max(0, share.mul(100).valueOf() - (share.valueOf() > 0 ? hundredths : 0))
        expect(exact(score!).valueOf()).toBeCloseTo((4 * left) / 100, 9)
      }),
    )
    expect(full.score).toBe('4')
    const byHand = { hand: { [id]: '1/2' }, help: { [id]: '1/4' } }
    expect(markAttempt(edition, paper, right, [], byHand).score).toBe('2')
    expect(markAttempt(edition, paper, { [id]: { text: '987654' } }, [], { help: { [id]: '1/4' } }).score).toBe('0')
  })
  it('a question is closed when it is right, or there is no further try', () => {
    expect([checkVerdict('1'), checkVerdict('1/2'), checkVerdict('0'), checkVerdict('-1/3')]).toEqual([
      'right',
      'partly',
      'wrong',
      'wrong',
    ])
    expect([1, 2, 3].map((n) => closesAfter({ ...rule, tries: 2 }, 'wrong', n))).toEqual([false, true, true])
    expect(closesAfter({ ...rule, tries: null }, 'wrong', 99)).toBe(false)
    expect(closesAfter({ ...rule, tries: null }, 'right', 1)).toBe(true)
  })
})
