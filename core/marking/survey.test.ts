import { describe, expect, it } from 'vitest'
import {
  poolRow,
  questionRow,
  checkedQuestion,
  sampleContent,
  sampleEdition,
  sampleQuestion,
  sampleRules,
  at,
} from '../../tests/fixtures/core'
import { compilePaper } from '../paper'
import { kindNames, questionFaults, readingOf, scoreAnswer, type Question } from '../question'
import { checkQuiz, type CheckContext, type Quiz } from '../quiz'
import { facetNames } from '../release/names'
import { releaseOf } from '../release'
import { usualRules } from '../rules'
import { gradeFor } from './grade'
import { markAttempt } from './mark'

const bare = (kind: Question['kind'], over: Partial<Question> = {}) => sampleQuestion(kind, { keyless: true, ...over })

describe('a question without a key', () => {
  it.each(kindNames)('%s: it can be asked, or says that it needs a key', (kind) => {
    const needsKey = ['gaps', 'matching', 'sorting', 'ordering', 'spot'].includes(kind)
    expect(questionFaults(bare(kind)).some((fault) => fault.includes('needs a key'))).toBe(needsKey)
  })
  it('needs no option that is right, but options', () => {
    const none = bare('choice')
    const options = (none.body as { options: object[] }).options.map((option) => ({ ...option, credit: 0 }))
    const unkeyed = { ...none, body: { ...none.body, options } } as Question
    expect(questionFaults(unkeyed)).toEqual([])
    expect(questionFaults({ ...unkeyed, keyless: false } as Question)).not.toEqual([])
    expect(questionFaults({ ...unkeyed, body: { ...unkeyed.body, options: [] } } as Question)).not.toEqual([])
    expect(readingOf(unkeyed)).toMatchObject({ keyless: true, key: '' })
  })
  it('is neither right nor wrong, and is not waited for', () => {
    expect(scoreAnswer(bare('choice'), {}, { chosen: ['b'] })).toEqual({ fraction: null, answered: true, parts: [] })
    const edition = sampleEdition(sampleContent([questionRow('a', { points: 0 }), questionRow('w', { points: 5 })]), {
      a: bare('choice'),
      w: bare('written'),
    })
    const paper = compilePaper(edition, 'p1', 1, [])
    const marks = markAttempt(edition, paper, { [paper.items[1]!.id]: { text: 'Words' } })
    expect(marks).toMatchObject({ score: '0', possible: '0' })
    expect(marks.marks[1]).toMatchObject({ answered: true, fraction: null, points: '0', possible: '0' })
  })
})

describe('a survey', () => {
  const edition = sampleEdition(sampleContent([questionRow('a', { points: 3 })]))
  const paper = compilePaper(edition, 'p1', 1, [])
  const item = paper.items[0]!
  const right = { [item.id]: { chosen: [item.options.find(({ option }) => option === 'b')!.id] } }
  it('marks nothing, also what has a key', () => {
    expect(markAttempt(edition, paper, right)).toMatchObject({ score: '3' })
    expect(markAttempt(edition, paper, right, [], { counts: 'survey' })).toMatchObject({
      score: '0',
      possible: '0',
      marks: [{ answered: true, fraction: null, points: '0' }],
    })
  })
  it('makes no grade, and shows nothing that hangs on a key', () => {
    const rules = { ...usualRules, counts: 'survey' as const }
    const attempt = { number: 1, state: 'handed' as const, score: '0', possible: '0', daysLate: 0 }
    expect(gradeFor([attempt], null, rules)).toMatchObject({ percent: null, passed: null })
    const shown = facetNames.filter((name) => releaseOf(rules)[name].from.at !== 'never')
    expect(shown).toEqual(['questions', 'answers'])
    expect(releaseOf(usualRules)).toBe(usualRules.release)
  })
  const context = (keyless: boolean): CheckContext => ({
    now: at('08:00'),
    zone: 'UTC',
    students: [],
    scales: [],
    names: new Map([['tue', 'Tuesday']]),
    objectives: new Map(),
    questions: new Map(
      ['a', 'b'].map((id) => [
        id,
        checkedQuestion(id, { reading: readingOf(id === 'a' && keyless ? bare('choice') : sampleQuestion('choice')) }),
      ]),
    ),
  })
  const codes = (quiz: Quiz, keyless = true) => checkQuiz(quiz, context(keyless)).map(({ code }) => code)
  it.each([
    ['a row of points', [questionRow('a')], 'score', 'keyless:r-a'],
    ['a row of none', [questionRow('a', { points: 0 }), questionRow('b')], 'score', null],
    ['a pool with a key beside it', [poolRow('p', ['a', 'b'], 1)], 'score', 'keyless:p'],
    ['a survey', [questionRow('a')], 'survey', null],
  ] as const)('%s: a question without a key stops only where it would be marked', (_name, rows, counts, code) => {
    const quiz = { content: sampleContent([...rows]), rules: sampleRules({ counts }) }
    expect(codes(quiz).find((each) => each.startsWith('keyless')) ?? null).toBe(code)
    expect(codes(quiz, false).some((each) => each.startsWith('keyless'))).toBe(false)
  })
  it('needs no points', () => {
    const rows = [questionRow('a', { points: 0 })]
    expect(codes({ content: sampleContent(rows), rules: sampleRules({ counts: 'survey' }) })).not.toContain('no-points')
    expect(codes({ content: sampleContent(rows), rules: sampleRules() })).toContain('no-points')
  })
})
