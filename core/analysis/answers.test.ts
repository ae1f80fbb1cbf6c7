import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../tests/fixtures/core'
import { countAnswers, mostListed } from './answers'

describe('counts of answers', () => {
  it('of options, in the order written, each once an answer; what is empty or malformed is unanswered', () => {
    const question = sampleQuestion('choices')
    const answers = [
      { chosen: ['a', 'c'] },
      { chosen: ['c', 'c'] },
      { chosen: [] },
      undefined,
      { text: 'x' },
      { chosen: ['b'] },
    ]
    expect(countAnswers(question, answers)).toEqual({
      title: 'A question of kind choices',
      kind: 'choices',
      asked: 6,
      answered: 3,
      counts: [
        { words: 'Option a', n: 1 },
        { words: 'Option b', n: 1 },
        { words: 'Option c', n: 2 },
        { words: 'Option d', n: 0 },
      ],
      more: 0,
    })
  })
  it('of what was written, the most frequent first, alike ones together', () => {
    const answers = ['ebb', 'flood', 'EBB ', '', 'slack'].map((text) => ({ text }))
    expect(countAnswers(sampleQuestion('text'), answers)).toMatchObject({
      asked: 5,
      answered: 4,
      counts: [
        { words: 'ebb', n: 2 },
        { words: 'flood', n: 1 },
        { words: 'slack', n: 1 },
      ],
    })
  })
  it('of what was written where capitals matter, apart', () => {
    const base = sampleQuestion('text')
    const strict = { ...base, body: { ...base.body, caseMatters: true } } as typeof base
    const answers = ['HW', 'hw'].map((text) => ({ text }))
    expect(countAnswers(strict, answers).counts).toHaveLength(2)
    expect(countAnswers(base, answers).counts).toEqual([{ words: 'HW', n: 2 }])
  })
  it('of very many different ones the first are listed, and how many more there are', () => {
    const answers = Array.from({ length: mostListed + 7 }, (_, i) => ({ text: `answer ${i}` }))
    expect(countAnswers(sampleQuestion('text'), answers)).toMatchObject({ more: 7 })
  })
})
