import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  factsNamed,
  groupRow,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleEdition,
} from '../../tests/fixtures/core'
import { figuresFor } from '../figures'
import { compilePaper } from '../paper'
import { addTo, applyEdit, EditError, removeFrom, setAt, together, type Edit } from './edits'
import { usualRules } from '../rules'
import { allRows, drawRows, fixedOf, fixedQuestions, questionsOf, questionsUsed, rowPoints, rowSize } from './walk'

const bank = names('q', 12)
const content = sampleContent([
  questionRow('q1', { points: 0.1 }),
  poolRow('p', bank.slice(1, 5), 3, { points: 0.1 }),
  groupRow('all', ['q6', 'q7'], { points: 2 }),
  groupRow('some', ['q8', 'q9', 'q10'], { draw: 2 }),
  { type: 'text', id: 't', html: '<p>Words</p>' },
])

describe('rows', () => {
  it('tell what they give and what they are worth', () => {
    expect(allRows(content).map((row) => [row.id, rowSize(row), rowPoints(row)])).toEqual([
      ['r-q1', 1, 0.1],
      ['p', 3, 0.3],
      ['all', 2, 4],
      ['some', 2, 2],
      ['t', 0, 0],
    ])
  })
  it('a group that gives all its questions is fixed; one that gives some draws', () => {
    expect(fixedQuestions(content)).toEqual(['q1', 'q6', 'q7'])
    expect(drawRows(content).map((row) => row.id)).toEqual(['p', 'some'])
    expect(allRows(content).flatMap(fixedOf)).toEqual(fixedQuestions(content))
    expect(questionsUsed(content)).toHaveLength(10)
  })
  it('figures count what papers hold', () => {
    const facts = factsNamed(bank, (i) => ({ objectives: [bank[i]! < 'q6' ? 'a' : 'b'] }))
    const figures = figuresFor(content, usualRules, facts)
    expect(figures).toMatchObject({ questions: 8, points: 6.4, seconds: 480, papers: '12', about: false })
    // Fixed questions are shared always; from a pool of N drawing n, n²/N (hypergeometric mean).
    expect(figures.shared).toBeCloseTo(3 + 9 / 4 + 4 / 3, 9)
    const paper = compilePaper(sampleEdition(content), 'x', 1, [])
    expect(paper.items).toHaveLength(figures.questions)
    expect(paper.items.reduce((sum, item) => sum + item.points, 0)).toBeCloseTo(figures.points, 9)
  })
})

describe('edits of a stimulus group', () => {
  const quiz = { content, rules: usualRules }
  const rowNamed = (id: string) => allRows(content).find((each) => each.id === id)!
  const row = (edit: Edit) => allRows(applyEdit(quiz, edit).quiz.content).find((each) => each.id === 'some')
  it('set its order, its questions and how many it gives; undo takes that back', () => {
    const edit = together([
      setAt(quiz, ['rows', 'some', 'order'], 'shuffled'),
      removeFrom(quiz, ['rows', 'some', 'questions'], questionsOf(rowNamed('some'))),
      addTo(['rows', 'some', 'questions'], null, ['q9', 'q8']),
      setAt(quiz, ['rows', 'some', 'draw'], 1),
    ])!
    expect(row(edit)).toMatchObject({ order: 'shuffled', questions: ['q9', 'q8'], draw: 1, stimulus: 'st1' })
    const { quiz: after, inverse } = applyEdit(quiz, edit)
    expect(applyEdit(after, inverse).quiz).toEqual(quiz)
  })
  it.each([
    ['draw', 0, /at least one/],
    ['order', 'by size', /./],
  ])('%s %s is refused', (name, value, sentence) =>
    expect(() => row(setAt(quiz, ['rows', 'some', name], value))).toThrow(sentence),
  )
  it('a name is refused, which a group has not', () =>
    expect(() => row({ do: 'set', path: ['rows', 'some', 'title'], was: '', value: 'A name' })).toThrow(EditError))
  it('papers of any group hold as many as it gives, never one twice', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 0, max: 4 }),
        fc.string({ minLength: 1, maxLength: 5 }),
        (draw, fixed, student) => {
          const rows = [
            ...bank.slice(8, 8 + fixed).map((id) => questionRow(id)),
            groupRow('g', bank.slice(0, 4), { draw }),
          ]
          const items = compilePaper(sampleEdition(sampleContent(rows)), student, 1, []).items.map(
            (item) => item.question,
          )
          expect([items.length, new Set(items).size]).toEqual([fixed + draw, fixed + draw])
        },
      ),
    )
  })
})
