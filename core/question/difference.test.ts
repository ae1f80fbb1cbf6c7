import { describe, expect, it } from 'vitest'
import { creditedQuestions, sampleQuestion } from '../../tests/fixtures/core'
import { differences } from './difference'
import { kindNames, type Question } from '.'

const changed = (question: Question, body: object, over: Partial<Question> = {}) =>
  ({ ...question, ...over, body: { ...question.body, ...body } }) as Question
const told = (before: Question, after: Question) =>
  differences(before, after).map(
    ({ part, pieces }) =>
      `${part}: ${pieces
        .filter((piece) => piece.was)
        .map((piece) => piece.text)
        .join('')} > ${pieces
        .filter((piece) => piece.is)
        .map((piece) => piece.text)
        .join('')}`,
  )

describe('differences between versions', () => {
  it.each(kindNames)('%s: none between a question and itself', (kind) =>
    expect(told(sampleQuestion(kind), sampleQuestion(kind))).toEqual([]),
  )
  const number = sampleQuestion('number') as Extract<Question, { kind: 'number' }>
  const answer = number.body.answers[0]!
  it('are told word by word, in words for people', () => {
    expect(told(number, changed(number, { answers: [{ ...answer, value: '4' }] }))).toEqual([
      'key: 3.9 ± 0.1 m > 4 ± 0.1 m',
    ])
    expect(told(number, changed(number, { unitAsked: true, style: 'comma' }))).toEqual([
      'unit asked: no > yes',
      'style: point > comma',
    ])
    expect(told(number, { ...number, stem: '<p>Another question of kind number</p>', points: 2 } as Question)).toEqual([
      'question: A question of kind number > Another question of kind number',
      'points: 1 > 2',
    ])
  })
  it('what an option earns is told though the key reads the same', () => {
    const choice = sampleQuestion('choice') as Extract<Question, { kind: 'choice' }>
    const options = choice.body.options.map((option) => (option.id === 'd' ? { ...option, credit: 0.5 } : option))
    expect(differences(choice, changed(choice, { options }))).not.toEqual([])
  })
  it('credits of single pairs and ticks are told by what they are for', () => {
    const [matching, , grid] = creditedQuestions() as [
      Extract<Question, { kind: 'matching' }>,
      Question,
      Extract<Question, { kind: 'grid' }>,
    ]
    const [first, ...others] = matching.body.items
    const items = [{ ...first!, credits: { a: 1, d: -1 } }, ...others]
    expect(told(matching, changed(matching, { items }))).toEqual(['items 1 credits, Right d: -2 > -1'])
    const [row, ...rows] = grid.body.rows
    expect(told(grid, changed(grid, { rows: [{ ...row!, credits: { ...row!.credits, z: -1 } }, ...rows] }))).toEqual([
      'rows 1 credits, Column z:  > -1',
    ])
  })
  it('translations, levels and fields count', () => {
    expect(
      told(number, {
        ...number,
        translations: { nl: { stem: '<p>Hoe hoog?</p>' } },
        grade: 'Year 9',
        fields: { book: 'Chapter 3' },
      } as Question),
    ).toEqual(['grade level:  > Year 9', 'own fields:  > Chapter 3', 'question in nl:  > Hoe hoog?'])
  })
})
