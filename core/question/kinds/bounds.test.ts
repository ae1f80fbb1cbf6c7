/** What holds for every kind, whatever is answered: also for answers that no page would send. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { creditedQuestions, sampleQuestion } from '../../../tests/fixtures/core'
import { exact } from '../../kit/exact'
import { kindNames, kindOf, questionFaults, scoreAnswer, type KindName } from '..'
import type { Question } from '../schema'
import { placedAsWritten } from './kind'

const someId = fc.constantFrom(
  'a',
  'b',
  'c',
  'd',
  'e',
  'x',
  'y',
  'g1',
  'g2',
  'g3',
  'r1',
  'r2',
  'true',
  'false',
  'gone',
  'z',
  'constructor',
)
const typed = fc.oneof(
  fc.string({ maxLength: 40 }),
  fc.constantFrom('3.9', '3,9 m', '4', 'ebb', ' EBB ', '1,000', '−2', '1e400', '∞', 'NaN', '0x10', '.', '٣'),
)
const answers: fc.Arbitrary<unknown> = fc.oneof(
  fc.record({ chosen: fc.array(someId, { maxLength: 8 }) }),
  fc.record({ text: typed }),
  fc.record({ order: fc.array(someId, { maxLength: 12 }) }),
  fc.record({ pairs: fc.dictionary(someId, someId) }),
  fc.record({ ticks: fc.dictionary(someId, fc.array(someId, { maxLength: 5 })) }),
  fc.record({ gaps: fc.dictionary(someId, typed) }),
  fc.record({
    points: fc.array(fc.record({ x: fc.integer({ min: 0, max: 500 }), y: fc.integer({ min: 0, max: 500 }) }), {
      maxLength: 20,
    }),
  }),
  fc.constantFrom(undefined, null, 7, '', [], {}, { chosen: 'a' }, { order: { 0: 'a' } }),
)
const automatic = kindNames.filter((kind) => !kindOf(kind).byHand)

/** Samples, and those whose parts add credits of their own, within bounds. */
const samples: [string, KindName, Question][] = [
  ...automatic.map((kind): [string, KindName, Question] => [kind, kind, sampleQuestion(kind)]),
  ...creditedQuestions().map((question): [string, KindName, Question] => [
    `${question.kind} by credits`,
    question.kind,
    question,
  ]),
]

it.each(samples)('%s has a key that can be kept', (_name, _kind, question) =>
  expect(questionFaults(question)).toEqual([]),
)

describe.each(samples)('%s', (_name, kind, question) => {
  const of = kindOf(kind)
  it('earns between nothing and all, exactly, whatever is answered', () => {
    fc.assert(
      fc.property(answers, (answer) => {
        const { fraction, parts, answered } = scoreAnswer(question, {}, answer)
        expect(
          exact(fraction!).compare('lower' in question.body ? Math.sign(question.body.lower) : 0),
        ).toBeGreaterThanOrEqual(0)
        expect(exact(fraction!).compare(1)).toBeLessThanOrEqual(0)
        if (!answered) expect([fraction, parts]).toEqual(['0', []])
        if (fraction === '1') expect(parts.some((part) => part.right)).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
  it('an answer that came by way of a paper never repeats itself or names what is not on it', () => {
    const placed = of.options(question.body).map(({ id }, i) => ({ id: `o${i}`, option: id }))
    fc.assert(
      fc.property(answers, (answer) => {
        const read = of.answer.safeParse(answer)
        if (!read.success) return
        const opened = of.open(read.data, placed) as { chosen?: string[]; order?: string[] }
        for (const list of [opened.chosen, opened.order]) if (list) expect(new Set(list).size).toBe(list.length)
        expect(of.answer.safeParse(opened).success).toBe(true)
        const { fraction } = scoreAnswer(question, {}, opened)
        expect(exact(fraction!).compare(1)).toBeLessThanOrEqual(0)
      }),
      { numRuns: 200 },
    )
  })
  it('says its key and any answer in words without falling over', () => {
    expect(of.keyText(question.body)).not.toMatch(/undefined|\[object/)
    fc.assert(
      fc.property(answers, (answer) => {
        const read = of.answer.safeParse(answer)
        if (!read.success || of.isEmpty(read.data)) return
        expect(of.answerText(question.body, read.data)).not.toMatch(/undefined|\[object/)
        expect(Array.isArray(of.comments(question.body, read.data))).toBe(true)
      }),
    )
  })
})

describe('orderings', () => {
  const ordering = (rule: 'exact' | 'neighbours' | 'moves'): Question => {
    const base = sampleQuestion('ordering')
    return { ...base, body: { ...base.body, rule } } as Question
  }
  const score = (rule: 'exact' | 'neighbours' | 'moves', order: string[]) =>
    scoreAnswer(ordering(rule), {}, { order }).fraction
  it('lines that come twice earn nothing more, by any rule', () => {
    for (const rule of ['exact', 'neighbours', 'moves'] as const) {
      expect(exact(score(rule, ['a', 'b', 'a', 'b', 'a', 'b', 'c', 'd'])!).compare(1)).toBeLessThanOrEqual(0)
      expect(score(rule, [])).toBe('0')
    }
  })
  it('every rule gives all for the right order and nothing for its reverse', () => {
    for (const rule of ['exact', 'neighbours', 'moves'] as const) {
      expect(score(rule, ['a', 'b', 'c', 'd'])).toBe('1')
      expect(score(rule, ['d', 'c', 'b', 'a'])).toBe('0')
    }
  })
  it('one line out of place costs least where moves are counted', () => {
    const order = ['b', 'c', 'd', 'a']
    expect([score('exact', order), score('neighbours', order), score('moves', order)]).toEqual(['0', '2/3', '2/3'])
  })
})

describe('accepted texts', () => {
  const text = (how: string, words: string, over: object = {}): Question => {
    const base = sampleQuestion('text')
    return {
      ...base,
      body: { ...base.body, slips: 0, answers: [{ how, text: words, credit: 1, comment: '' }], ...over },
    } as Question
  }
  const right = (question: Question, given: string) => scoreAnswer(question, {}, { text: given }).fraction === '1'
  it.each([
    ['is', 'café', 'CAFE', true],
    ['matches', 'caf[eé]s?', 'cafés', true],
    ['matches', 'café', 'cafe', true],
    ['matches', 'café', 'café', true],
    ['begins', 'Île', 'ile de bréhat', true],
    ['matches', '\\w+ \\w+', 'Two words', true],
    ['matches', '\\W+', 'words', false],
  ] as const)('%s “%s” meets “%s” where accents and case do not matter: %s', (how, words, given, expected) =>
    expect(right(text(how, words), given)).toBe(expected),
  )
  it.each([
    ['matches', 'café', 'cafe', false],
    ['matches', 'café', 'cafe\u0301', true],
    ['is', 'Ebb', 'ebb', false],
  ] as const)('%s “%s” meets “%s” where they matter: %s', (how, words, given, expected) =>
    expect(right(text(how, words, { accentsMatter: true, caseMatters: true }), given)).toBe(expected),
  )
})

it('a preview places options as they were written', () => {
  const options = kindOf('choice').options(sampleQuestion('choice').body)
  expect(placedAsWritten(options)).toEqual(['a', 'b', 'c', 'd'].map((id) => ({ id, option: id })))
})
