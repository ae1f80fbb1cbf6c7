import { describe, expect, it } from 'vitest'
import { kindNames, question, questionFaults, stimulus } from '../../core/question'
import { bank } from '.'
import { withPictures } from './pictures'
import { stimuli } from './stimuli'

const placed = bank.map(
  ({ id, question: each }) => [id, withPictures(each, () => `/api/media/${'0'.repeat(64)}`)] as const,
)

describe('the demo bank', () => {
  it('has at least 150 whole questions, of every kind, with names of their own', () => {
    expect(bank.length).toBeGreaterThanOrEqual(150)
    expect(new Set(bank.map(({ id }) => id)).size).toBe(bank.length)
    expect(new Set(bank.map((each) => each.question.kind))).toEqual(new Set(kindNames))
  })
  it('has two stimuli, each shared by several questions', () => {
    expect(stimuli.length).toBeGreaterThanOrEqual(2)
    for (const { id, stimulus: each } of stimuli) {
      expect(stimulus.safeParse(each).error?.issues).toBeUndefined()
      expect(bank.filter(({ question: shared }) => shared.stimulus === id).length).toBeGreaterThan(2)
    }
  })
  it('has ten questions that vary', () =>
    expect(bank.filter((each) => each.question.vary).length).toBeGreaterThanOrEqual(10))
  it.each(placed)('%s reads and can be marked', (_id, each) => {
    expect(question.safeParse(each).error?.issues).toBeUndefined()
    expect(questionFaults(each)).toEqual([])
  })
})
