import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { poolRow, questionRow, sampleContent, sampleRules } from '../../tests/fixtures/core'
import { applyEdit, conflict, edit as editSchema, EditError, touches, type Edit } from './edits'
import type { Quiz } from './schema'

const start: Quiz = {
  content: sampleContent([questionRow('a'), questionRow('b'), poolRow('p', ['c', 'd', 'e'], 2)], {}),
  rules: sampleRules(),
}
const second = { id: 's2', title: 'Second', intro: '', order: 'shuffled' as const, rows: [questionRow('z')] }

const cases: Edit[] = [
  { do: 'setContent', values: { title: 'New name', shuffleOptions: false } },
  { do: 'setRules', values: { limit: 60, grace: 2 } },
  { do: 'addSection', section: second, after: 's1' },
  { do: 'setSection', section: 's1', values: { order: 'shuffled' } },
  { do: 'addRows', section: 's1', after: 'r-a', rows: [questionRow('x'), questionRow('y')] },
  { do: 'setRow', row: 'p', values: { draw: 3, points: 2 } },
  { do: 'moveRow', row: 'p', section: 's1', after: null },
  { do: 'removeRows', rows: ['r-a', 'p'] },
  {
    do: 'all',
    edits: [
      { do: 'addSection', section: second, after: null },
      { do: 'moveRow', row: 'r-a', section: 's2', after: 'r-z' },
      { do: 'moveSection', section: 's1', after: null },
    ],
  },
]

describe('applyEdit', () => {
  it.each(cases.map((edit) => [edit.do, edit] as const))('%s: the inverse restores the quiz', (_name, edit) => {
    expect(editSchema.safeParse(edit).success).toBe(true)
    const { quiz, inverse } = applyEdit(start, edit)
    expect(quiz).not.toEqual(start)
    expect(applyEdit(quiz, inverse).quiz).toEqual(start)
  })
  it('any sequence of edits is taken back by its inverses', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...cases), { maxLength: 6 }), (edits) => {
        let quiz = start
        const undo: Edit[] = []
        for (const edit of edits) {
          try {
            const step = applyEdit(quiz, edit)
            quiz = step.quiz
            undo.unshift(step.inverse)
          } catch (error) {
            if (!(error instanceof EditError)) throw error
          }
        }
        for (const edit of undo) quiz = applyEdit(quiz, edit).quiz
        expect(quiz).toEqual(start)
      }),
    )
  })
  it('puts rows at the end when the row to follow is gone', () => {
    const { quiz } = applyEdit(start, { do: 'addRows', section: 's1', after: 'gone', rows: [questionRow('x')] })
    expect(quiz.content.sections[0]!.rows.at(-1)!.id).toBe('r-x')
  })
  it.each<[Edit, RegExp]>([
    [{ do: 'setRow', row: 'nope', values: { points: 2 } }, /no longer/],
    [{ do: 'setRow', row: 'p', values: { draw: 0 } }, /at least one/],
    [{ do: 'setRow', row: 'r-a', values: { draw: 3 } }, /./],
    [{ do: 'removeSection', section: 's1' }, /at least one section/],
    [{ do: 'addRows', section: 's1', after: null, rows: [questionRow('a')] }, /already/],
    [{ do: 'setContent', values: { title: ' ' } }, /title/],
  ])('refuses %j with a sentence', (edit, sentence) => {
    expect(() => applyEdit(start, edit)).toThrow(sentence)
  })
})

describe('conflict', () => {
  const points: Edit = { do: 'setRow', row: 'p', values: { points: 3 } }
  it('only edits to the same thing conflict', () => {
    expect(conflict(points, { do: 'setRow', row: 'p', values: { points: 4 } })).toBe(true)
    expect(conflict(points, { do: 'setRow', row: 'p', values: { draw: 1 } })).toBe(false)
    expect(conflict(points, { do: 'removeRows', rows: ['p'] })).toBe(true)
    expect(conflict(points, { do: 'moveRow', row: 'p', section: 's1', after: null })).toBe(false)
    expect(conflict({ do: 'setRules', values: { limit: 5 } }, { do: 'setRules', values: { grace: 5 } })).toBe(false)
  })
  it('every edit names what it touches', () => {
    for (const edit of cases) expect(touches(edit).length).toBeGreaterThan(0)
  })
})
