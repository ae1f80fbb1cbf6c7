import { describe, expect, it } from 'vitest'
import { poolRow, questionRow, sampleContent } from '../../../tests/fixtures/core'
import { ruleTitle, usualRules } from '../../rules'
import { addRows, addTo, moveRow, removeFrom, removeRow, setAt, together } from './make'
import { editInWords } from './words'

const quiz = {
  content: sampleContent([questionRow('q1'), poolRow('p', ['q2', 'q3'], 1, { title: 'Levels' }), questionRow('q4')]),
  rules: usualRules,
}
const section = quiz.content.sections[0]!
const naming = { quiz, question: (id: string) => (id === 'q1' ? 'What is chart datum?' : undefined), rule: ruleTitle }
const words = (edit: Parameters<typeof editInWords>[0]) => editInWords(edit, naming)

describe('an edit in words', () => {
  it('says what was set, from what to what', () => {
    expect(words(setAt(quiz, ['rows', 'r-q1', 'points'], 2))).toEqual([
      'Set the points of “What is chart datum?”: 1 → 2',
    ])
    expect(words(setAt(quiz, ['sections', section.id, 'title'], 'Terms'))).toEqual([
      `Set the title of the section “${section.title}”: ${section.title} → Terms`,
    ])
    expect(words(setAt(quiz, ['content', 'title'], 'Tides'))[0]).toContain('Set the title')
    expect(words(setAt(quiz, ['rules', 'limit'], 30))).toEqual(['Set limit: 45 → 30'])
    // Rich text is not told letter by letter.
    expect(words(setAt(quiz, ['content', 'intro'], '<p>Bring a pencil.</p>'))).toEqual(['Set what is read first'])
  })
  it('says what came in, what went and what moved', () => {
    expect(words(addRows(section.id, null, [questionRow('q9')]))).toEqual(['Put in “a question”'])
    expect(words(removeRow(quiz, 'r-q1'))).toEqual(['Took out “What is chart datum?”'])
    expect(words(addTo(['rows', 'p', 'questions'], null, ['q5', 'q6']))).toEqual([
      'Put in 2 questions into the pool “Levels”',
    ])
    expect(words(removeFrom(quiz, ['rows', 'p', 'questions'], ['q2']))).toEqual([
      'Took out 1 question of the pool “Levels”',
    ])
    expect(words(moveRow(quiz, 'r-q4', section.id, null))).toEqual(['Moved “a question”'])
  })
  it('several at once are a line each, and what is gone by now is said so', () => {
    const both = together([setAt(quiz, ['rows', 'r-q1', 'points'], 3), removeRow(quiz, 'p')])!
    expect(words(both)).toHaveLength(2)
    const gone = { ...naming, quiz: { ...quiz, content: sampleContent([]) } }
    expect(editInWords(setAt(quiz, ['rows', 'r-q1', 'points'], 2), gone)).toEqual([
      'Set the points of a row that is gone: 1 → 2',
    ])
  })
})
