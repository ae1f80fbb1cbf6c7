import { describe, expect, it } from 'vitest'
import { poolRow, questionRow, sampleContent, sampleRules } from '../../tests/fixtures/core'
import { asList, intoPool } from './arrange'
import { newRow } from './blank'
import { checkQuiz } from './checks'
import { cappedChecks } from './check/rows'
import { asKept, condition, frozenLists, mostHeld, withHeld } from './condition'
import { completedContent } from './complete'
import { addRows, applyEdit, EditError, removeRow, setAt } from './edits'
import { content as contentSchema, type Quiz } from './schema'
import { questionsUsed } from './walk'

const any = condition.parse({})
const found = newRow({ type: 'pool', id: 'p', questions: [], condition: any, draw: 2, points: 1 })
const quiz: Quiz = { content: sampleContent([questionRow('a'), found]), rules: sampleRules() }
const held = new Map([['p', ['x', 'y', 'z']]])
const met: Quiz = { ...quiz, content: withHeld(quiz.content, held) }

describe('a pool by a condition', () => {
  it('holds what is found, and is frozen as a list', () => {
    expect(questionsUsed(quiz.content)).toEqual(['a'])
    expect(questionsUsed(met.content)).toEqual(['a', 'x', 'y', 'z'])
    expect(contentSchema.safeParse(frozenLists(met.content)).success).toBe(true)
    const without = sampleContent([poolRow('l', ['a'], 1)])
    expect(withHeld(without, held)).toBe(without)
    expect(questionsUsed(withHeld(quiz.content, new Map()))).toEqual(['a'])
  })
  it('has a condition or a list: neither or both is refused', () => {
    for (const parts of [
      { condition: null, questions: [] },
      { condition: any, questions: ['a'] },
    ])
      expect(() => applyEdit(quiz, addRows('s1', null, [{ ...found, ...parts, id: 'n' } as never]))).toThrow(EditError)
    const listed = asList(quiz, 'p', ['x', 'y'])
    const { quiz: after, inverse } = applyEdit(quiz, listed)
    expect(questionsUsed(after.content)).toEqual(['a', 'x', 'y'])
    expect(applyEdit(after, inverse).quiz).toEqual(quiz)
  })
  it('that finds very many says that it holds the first of them', () => {
    const many = Array.from({ length: mostHeld }, (_, i) => `q${i}`)
    const codes = (ids: string[]) =>
      cappedChecks({ ...quiz, content: withHeld(quiz.content, new Map([['p', ids]])) }).map(({ code }) => code)
    expect([codes(many), codes(many.slice(1))]).toEqual([['capped:p'], []])
  })
  it('an older pool is one with a list', () => {
    const { condition: _, ...old } = poolRow('o', ['a', 'b'], 1) as Record<string, unknown>
    const stored = { ...sampleContent([]), sections: [{ ...sampleContent([]).sections[0], rows: [old] }] }
    expect(completedContent(stored).sections[0]!.rows[0]).toMatchObject({ condition: null, questions: ['a', 'b'] })
  })
  it('edits made on what was found fit the quiz that is kept', () => {
    for (const edit of [removeRow(met, 'p'), intoPool(met, ['r-a', 'p'], () => 'n')!]) {
      expect(() => applyEdit(quiz, edit)).toThrow()
      expect(() => applyEdit(quiz, asKept(edit))).not.toThrow()
    }
    const pooled = applyEdit(quiz, asKept(intoPool(met, ['r-a', 'p'], () => 'n')!)).quiz
    expect(questionsUsed(pooled.content)).toEqual(['a', 'x', 'y', 'z'])
  })
  it('checks look at what is found, and every remedy fits the quiz that is kept', () => {
    const context = {
      now: '2030-01-01T00:00:00.000Z',
      zone: 'UTC',
      students: [],
      scales: [],
      names: new Map(),
      objectives: new Map(),
      questions: new Map(
        ['a', 'x', 'y', 'z'].map((id) => [
          id,
          {
            title: id,
            usable: true,
            version: 1,
            doubts: 0,
            near: id < 'y' ? 'alike' : '',
            newer: false,
            reading: {
              stem: id,
              key: '',
              options: [],
              inOrder: false,
              byHand: false,
              keyless: false,
              languages: ['en'],
            },
            facts: null,
          },
        ]),
      ),
    }
    const over = applyEdit(quiz, setAt(quiz, ['rows', 'p', 'draw'], 9)).quiz
    const checks = checkQuiz({ ...over, content: withHeld(over.content, held) }, context)
    const named = checks.map(({ code }) => code)
    expect(named).toContain('pool-short:p')
    expect(named).toContain('near:x')
    for (const { remedy } of checks)
      if (remedy && 'edit' in remedy) expect(() => applyEdit(over, remedy.edit)).not.toThrow()
    const near = checks.find(({ code }) => code === 'near:x')!.remedy as unknown as { edit: never }
    expect(applyEdit(over, near.edit).quiz.content.sections[0]!.rows[1]).toMatchObject({ condition: { except: ['x'] } })
    const none = checkQuiz({ ...quiz, content: withHeld(quiz.content, new Map()) }, context)
    const empty = none.find(({ code }) => code === 'pool-short:p')!.remedy as unknown as { edit: never }
    expect(questionsUsed(applyEdit(quiz, empty.edit).quiz.content)).toEqual(['a'])
  })
})
