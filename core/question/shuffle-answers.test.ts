import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../tests/fixtures/core'
import { kindNames, questionFaults, scoreAnswer, type Question } from '.'
import { withAnswersShuffled } from './shuffle-answers'

const optionsOf = (question: Question): string[] =>
  'options' in question.body
    ? question.body.options.map(({ id }) => id)
    : question.kind === 'gaps'
      ? question.body.gaps.flatMap((gap) => (gap.as === 'list' ? gap.body.options.map(({ id }) => id) : []))
      : []

describe('answers shuffled for good', () => {
  it.each(['choice', 'choices', 'gaps'] as const)('%s: every order comes, and nothing else changes', (kind) => {
    const question = sampleQuestion(kind)
    const orders = new Set<string>()
    for (let seed = 0; seed < 400; seed++) {
      const next = withAnswersShuffled(question, seed)
      expect(questionFaults(next)).toEqual([])
      expect([...optionsOf(next)].sort()).toEqual([...optionsOf(question)].sort())
      orders.add(optionsOf(next).join())
    }
    const n = optionsOf(question).length
    expect(orders.size).toBe(n === 3 ? 6 : 24)
  })
  it('what is fixed or in order stays, and the key with its option', () => {
    const base = sampleQuestion('choice')
    const last = {
      ...base,
      body: {
        ...base.body,
        options: (base.body as { options: object[] }).options.map((each, i) => ({ ...each, fixed: i === 3 })),
      },
    } as Question
    for (let seed = 0; seed < 30; seed++) expect(optionsOf(withAnswersShuffled(last, seed))[3]).toBe('d')
    const kept = { ...base, body: { ...base.body, inOrder: true } } as Question
    expect(withAnswersShuffled(kept, 5)).toEqual(kept)
    expect(scoreAnswer(withAnswersShuffled(base, 3), {}, { chosen: ['b'] }).fraction).toBe('1')
  })
  it.each(kindNames.filter((kind) => !['choice', 'choices', 'gaps'].includes(kind)))('%s is left as it is', (kind) => {
    const question = sampleQuestion(kind)
    expect(withAnswersShuffled(question, 7)).toBe(question)
  })
})
