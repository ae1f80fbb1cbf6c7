import { describe, expect, it } from 'vitest'
import {
  checkedQuestion,
  factsNamed,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleQuestion,
  sampleRules,
} from '../../../tests/fixtures/core'
import { at } from '../../../tests/fixtures/core'
import { readingOf, type Question, type Reading } from '../../question'
import { checkQuiz } from '../checks'
import { applyEdit } from '../edits'
import type { Content, Quiz, Row, Rules } from '../schema'
import type { Check, CheckedQuestion } from './check'

const plain: Reading = {
  stem: '',
  key: '',
  options: [],
  inOrder: false,
  byHand: false,
  keyless: false,
  languages: ['en'],
}
const read = (over: Partial<Reading>) => ({ reading: { ...plain, ...over } })
const choice = (right: number, words: string[]): Partial<Reading> => ({
  options: words.map((each, i) => ({ words: each, fixed: false, right: i === right })),
})

interface Case {
  rows: Row[]
  questions: Record<string, Partial<CheckedQuestion>>
  content?: Partial<Content>
  rules?: Partial<Rules>
  order?: 'kept' | 'shuffled'
}
function found({ rows, questions, content = {}, rules = {}, order = 'kept' }: Case): { quiz: Quiz; checks: Check[] } {
  const base = sampleContent(rows)
  const quiz: Quiz = {
    content: { ...base, ...content, sections: [{ ...base.sections[0]!, rows, order }] },
    rules: sampleRules(rules),
  }
  return { quiz, checks: run(quiz, questions) }
}
const run = (quiz: Quiz, questions: Case['questions']) =>
  checkQuiz(quiz, {
    now: at('08:00'),
    zone: 'UTC',
    questions: new Map(Object.entries(questions).map(([id, each]) => [id, checkedQuestion(`Question ${id}`, each)])),
    scales: [],
    names: new Map([['tue', 'Tuesday']]),
    objectives: new Map(),
    students: [],
  })
const codes = (from: Case) => found(from).checks.map(({ code }) => code)
/** The remedy of a check makes it go away. */
function mends(from: Case, code: string) {
  const { quiz, checks } = found(from)
  const check = checks.find((each) => each.code === code)
  expect(check, `${code} in ${checks.map((each) => each.code).join()}`).toBeDefined()
  const remedy = check!.remedy
  if (!remedy || !('edit' in remedy)) throw new Error('Its remedy is no edit.')
  const after = applyEdit(quiz, remedy.edit).quiz
  expect(run(after, from.questions).map((each) => each.code)).not.toContain(code)
}
const two = [questionRow('q1'), questionRow('q2')]

describe('checks of texts', () => {
  it('names what colleagues doubt, and what is newer than what is sat', () => {
    const questions = { q1: { ...read({}), doubts: 2 }, q2: { ...read({}), newer: true } }
    const { checks } = found({ rows: two, questions })
    expect(checks.find(({ code }) => code === 'doubted:q1')).toMatchObject({ remedy: { open: 'q1' } })
    expect(checks.find(({ code }) => code === 'newer-versions')).toMatchObject({ remedy: { open: 'q2' } })
  })
  it('two that look alike on one paper, but not two of which each paper gets one', () => {
    const questions = { q1: { ...read({}), near: 'x' }, q2: { ...read({}), near: 'x' } }
    mends({ rows: two, questions }, 'near:q2')
    expect(codes({ rows: [poolRow('p', ['q1', 'q2'], 1)], questions })).not.toContain('near:q2')
    expect(codes({ rows: [poolRow('p', ['q1', 'q2'], 2)], questions })).toContain('near:q2')
  })
  it('a stem that holds another’s key, as whole words', () => {
    const key = read({ stem: 'What is the level below which the tide seldom falls?', key: 'Chart datum' })
    const tells = read({ stem: 'Depths are measured from chart datum. How deep is it here?' })
    mends({ rows: two, questions: { q1: key, q2: tells } }, 'giveaway:q1')
    const silent = read({ stem: 'Chart datums of two countries differ. Why?' })
    expect(codes({ rows: two, questions: { q1: key, q2: silent } })).not.toContain('giveaway:q1')
    const numbers = read({ stem: 'How much is it?', key: '4.8 12 000' })
    const other = read({ stem: 'The range is 4.8 12 000 m.' })
    expect(codes({ rows: two, questions: { q1: numbers, q2: other } })).not.toContain('giveaway:q1')
    const own = read({ stem: 'Is chart datum the level of the lowest tide?', key: 'Chart datum' })
    expect(codes({ rows: two, questions: { q1: own, q2: tells } })).not.toContain('giveaway:q1')
  })
  it.each([
    ['Use your answer to question 3.', true],
    ['See the previous question.', true],
    ['Which of A and C is heavier?', true],
    ['How high is HAT above chart datum?', false],
    ['How deep is it below the bridge?', false],
    ['A vessel is under way.', false],
  ])('a stem that speaks of its place in a shuffled section: %s', (stem, speaks) => {
    const questions = { q1: read({ stem }), q2: read({}) }
    expect(codes({ rows: two, questions, order: 'shuffled' }).includes('order-stem:q1')).toBe(speaks)
    expect(codes({ rows: two, questions })).not.toContain('order-stem:q1')
    if (speaks) mends({ rows: two, questions, order: 'shuffled' }, 'order-stem:q1')
  })
  it('“none of these” that shuffling may put anywhere', () => {
    const loose = { q1: read(choice(0, ['Red', 'Green', 'None of these'])), q2: read({}) }
    const of = (questions: Case['questions'], shuffleOptions: boolean) =>
      codes({ rows: two, questions, content: { shuffleOptions } })
    expect(of(loose, true)).toContain('order-option:q1')
    expect(of(loose, false)).not.toContain('order-option:q1')
    const options = loose.q1.reading.options.map((option, i) => ({ ...option, fixed: i === 2 }))
    expect(of({ ...loose, q1: read({ options }) }, true)).not.toContain('order-option:q1')
    expect(of({ ...loose, q1: read({ ...choice(0, ['Red', 'Both A and C', 'Blue']) }) }, true)).toContain(
      'order-option:q1',
    )
  })
  it('an author who always writes the right one longest, or first', () => {
    const ids = names('q', 8)
    const of = (right: (i: number) => number, words: string[]) =>
      Object.fromEntries(ids.map((id, i) => [id, read(choice(right(i), words))]))
    const rows = ids.map((id) => questionRow(id))
    const longest = { rows, questions: of(() => 1, ['Short', 'The one that is long', 'Brief']) }
    expect(codes(longest)).toContain('longest-right')
    expect(codes({ rows, questions: of((i) => i % 3, ['Short', 'The one that is long', 'Brief']) })).not.toContain(
      'longest-right',
    )
    const first = { rows, questions: of(() => 0, ['One', 'Two', 'Six']), content: { shuffleOptions: false } }
    mends(first, 'same-place')
    expect(codes({ ...first, content: { shuffleOptions: true } })).not.toContain('same-place')
  })
})

describe('checks of figures', () => {
  const facts = factsNamed(names('q', 12), (i) => ({ difficulty: i < 6 ? 1 : 5, seconds: 120 }))
  const questions = Object.fromEntries(names('q', 12).map((id) => [id, { facts: facts.get(id)! }]))
  it('papers that differ, and the luck of the draw: mended by spreading', () => {
    const uneven = { rows: [poolRow('p', names('q', 12), 4)], questions }
    mends(uneven, 'uneven-papers')
    mends(uneven, 'luck')
    expect(codes({ rows: [poolRow('p', names('q', 6), 4)], questions })).not.toContain('uneven-papers')
  })
  it('less time than nine in ten need', () => {
    const rows = names('q', 10).map((id) => questionRow(id))
    mends({ rows, questions, rules: { limit: 20 } }, 'too-little-time')
    expect(codes({ rows, questions, rules: { limit: 60 } })).not.toContain('too-little-time')
    expect(codes({ rows, questions, rules: { limit: null } })).not.toContain('too-little-time')
  })
  it('a score at once where somebody has to mark', () => {
    const release = sampleRules().release
    const at = { ...release, score: { ...release.score, from: { at: 'handIn' as const, offset: 0 } } }
    const byHand = { q1: read({ byHand: true }), q2: read({}) }
    mends({ rows: two, questions: byHand, rules: { release: at } }, 'marked-by-hand')
    expect(codes({ rows: two, questions: { q1: read({}), q2: read({}) }, rules: { release: at } })).not.toContain(
      'marked-by-hand',
    )
  })
  it('more than five to a page', () => {
    const pages = { by: 'count' as const, count: 8 }
    mends({ rows: two, questions: {}, content: { pages } }, 'long-pages')
    expect(codes({ rows: two, questions: {}, content: { pages: { by: 'count', count: 5 } } })).not.toContain(
      'long-pages',
    )
  })
})

describe('reading a question', () => {
  it('tells its words, its key and which options are right', () => {
    const question = sampleQuestion('choice') as Extract<Question, { kind: 'choice' }>
    const reading = readingOf(question)
    expect(reading.stem).toBe('A question of kind choice')
    expect(reading.options.map(({ right }) => right)).toEqual(question.body.options.map(({ credit }) => credit === 1))
    expect(reading.key).not.toBe('')
    expect(readingOf(sampleQuestion('written'))).toMatchObject({ byHand: true, key: '', options: [] })
  })
})
