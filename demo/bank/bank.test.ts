import { describe, expect, it } from 'vitest'
import { kindNames, question, questionFaults } from '../../core/question'
import { bank } from '.'

describe('the demo bank', () => {
  it('has at least 60 whole questions, of every kind, with names of their own', () => {
    expect(bank.length).toBeGreaterThanOrEqual(60)
    expect(new Set(bank.map(({ id }) => id)).size).toBe(bank.length)
    expect(new Set(bank.map((each) => each.question.kind))).toEqual(new Set(kindNames))
  })
  it.each(bank.map((each) => [each.id, each.question] as const))('%s reads and can be marked', (_id, each) => {
    expect(question.safeParse(each).error?.issues).toBeUndefined()
    expect(questionFaults(each)).toEqual([])
  })
})
