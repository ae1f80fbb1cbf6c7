import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  at,
  creditedQuestions,
  questionRow,
  sampleContent,
  sampleEdition,
  sampleQuestion,
  sampleRules,
} from '../../tests/fixtures/core'
import { compilePaper } from '../paper'
import { kindOf } from '../question'
import { exact } from '../kit/exact'
import { gradeFor, lateness, markAttempt, type GradedAttempt } from '.'

const edition = sampleEdition(sampleContent([questionRow('a', { points: 2 }), questionRow('b'), questionRow('c')]), {
  b: sampleQuestion('number'),
  c: sampleQuestion('text'),
})
const paper = compilePaper(edition, 'x', 1, [])
const item = (question: string) => paper.items.find((each) => each.question === question)!
const right = {
  [item('a').id]: kindOf('choice').close({ chosen: ['b'] }, item('a').options),
  [item('b').id]: { text: '3.9' },
  [item('c').id]: { text: 'ebb' },
}

describe('markAttempt', () => {
  it('marks each answer and adds up', () => {
    expect(markAttempt(edition, paper, right)).toMatchObject({ score: '4', possible: '4' })
    expect(markAttempt(edition, paper, {})).toMatchObject({
      score: '0',
      possible: '4',
      marks: [{ answered: false }, { answered: false }, { answered: false }],
    })
  })
  it('takes malformed answers and ids of other papers as unanswered', () => {
    expect(
      markAttempt(edition, paper, {
        [item('a').id]: { chosen: ['b'] },
        [item('b').id]: { chosen: [] },
        zzz: { text: 'ebb' },
      }).score,
    ).toBe('0')
  })
  it('a fixed share costs a wrong single choice only, and the sum never falls below 0', () => {
    const costly = { ...edition, content: { ...edition.content, wrongCost: { by: 'share' as const, share: 0.5 } } }
    const wrong = kindOf('choice').close({ chosen: ['a'] }, item('a').options)
    expect(markAttempt(costly, paper, { ...right, [item('a').id]: wrong }).score).toBe('1')
    expect(markAttempt(costly, paper, { [item('a').id]: wrong }).score).toBe('0')
    expect(markAttempt(costly, paper, { ...right, [item('b').id]: { text: '9' } }).score).toBe('3')
    // What a person has marked costs nothing beside it, though it be a 0.
    const byHand = markAttempt(costly, paper, { ...right, [item('a').id]: wrong }, [], {
      hand: { [item('a').id]: '0' },
    })
    expect(byHand.marks.find((mark) => mark.item === item('a').id)!.points).toBe('0')
  })
  it('amendments void a question or give it to all', () => {
    expect(markAttempt(edition, paper, {}, [{ question: 'a', effect: 'full' }])).toMatchObject({
      score: '2',
      possible: '4',
    })
    expect(markAttempt(edition, paper, right, [{ question: 'a', effect: 'void' }])).toMatchObject({
      score: '2',
      possible: '2',
    })
  })
})

describe('pairs and ticks by credits', () => {
  const names = ['matching', 'sorting', 'grid'] as const
  const questions = Object.fromEntries(creditedQuestions().map((question) => [question.kind, question]))
  const byCredits = sampleEdition(sampleContent(names.map((name) => questionRow(name, { points: 4 }))), questions)
  const sat = compilePaper(byCredits, 'student', 1, [])
  const given = (answers: Partial<Record<(typeof names)[number], unknown>>) =>
    Object.fromEntries(
      sat.items.flatMap(({ id, question, options }) =>
        question in answers
          ? [[id, kindOf(question as 'grid').close(answers[question as 'grid'], options)] as const]
          : [],
      ),
    )
  const nearly = {
    matching: { pairs: { a: 'a', b: 'd', c: 'c' } },
    sorting: { pairs: { a: 'y', b: 'x', c: 'y' } },
    grid: { ticks: { a: ['x', 'y'], b: ['x'] } },
  }
  it('are marked on a paper as by hand: 0, 2.5 of 3 and 1 of 2.5', () => {
    expect(markAttempt(byCredits, sat, given(nearly)).marks.map(({ points }) => points)).toEqual(['0', '10/3', '8/5'])
  })
  it('what takes away takes from the others, and from nothing nothing', () => {
    const harsh = { matching: { pairs: { a: 'd', b: 'c', c: 'b' } } }
    expect(markAttempt(byCredits, sat, given({ ...nearly, ...harsh })).score).toBe('18/5')
    expect(markAttempt(byCredits, sat, given(harsh)).score).toBe('0')
  })
})

const attempt = (score: string | null, over: Partial<GradedAttempt> = {}): GradedAttempt => ({
  number: 1,
  state: 'handed',
  score,
  possible: '10',
  daysLate: 0,
  ...over,
})
const rules = (over: object = {}) =>
  sampleRules({
    grade: {
      method: 'highest',
      decimals: 1,
      pass: { by: 'percent', value: 60 },
      scale: { by: 'percent' },
      sections: [],
    },
    ...over,
  })

describe('gradeFor', () => {
  it('passes on the displayed grade: 59.95 % reads 60.0 and passes', () => {
    expect(gradeFor([attempt('5.995')], null, rules())).toMatchObject({ percent: '60.0', passed: true })
    expect(gradeFor([attempt('5.994')], null, rules())).toMatchObject({ percent: '59.9', passed: false })
  })
  it('what counts is that it was handed in: full credit without waiting for marks; unsent is zero', () => {
    const completion = rules({ counts: 'completion' })
    expect(gradeFor([attempt(null)], null, completion)).toMatchObject({
      percent: '100.0',
      passed: true,
      undecided: false,
    })
    expect(gradeFor([attempt('0', { daysLate: 3 })], null, completion)).toMatchObject({ percent: '100.0' })
    expect(gradeFor([attempt('9', { state: 'unsent' })], null, completion)).toMatchObject({
      percent: '0.0',
      passed: false,
    })
    expect(gradeFor([], null, completion)).toMatchObject({ percent: null, passed: null })
  })
  it('where nothing counts there is no grade, none passes and none waits; an override stands', () => {
    const practice = rules({ counts: 'nothing' })
    for (const score of ['10', '0', null])
      expect(gradeFor([attempt(score)], null, practice)).toMatchObject({
        percent: null,
        passed: null,
        undecided: false,
      })
    expect(gradeFor([attempt('10')], { percent: '70', excused: false }, practice)).toMatchObject({ percent: '70.0' })
  })
  it('a pass mark in points compares the displayed points', () => {
    const byPoints = rules({
      grade: {
        method: 'highest',
        decimals: 0,
        pass: { by: 'points', value: 6 },
        scale: { by: 'percent' },
        sections: [],
      },
    })
    expect(gradeFor([attempt('5.5')], null, byPoints)).toMatchObject({ points: '6', passed: true })
  })
  it('costs come in their order: a further attempt, then being late', () => {
    const costly = rules({
      attempts: { count: null, wait: 0, draw: 'fresh', untilPassed: false, untilShare: null, cost: 10, again: false },
      late: { accepted: true, costPerDay: 20, lastDays: null },
    })
    // 80 % less a tenth is 72 %; late by two days costs two fifths of the 80 % that was earned.
    expect(gradeFor([attempt('8', { number: 2, daysLate: 2 })], null, costly).percent).toBe('40.0')
    expect(gradeFor([attempt('8', { number: 1, daysLate: 9 })], null, costly).percent).toBe('0.0')
  })
  it('unsent counts as zero; a missing mark is undecided, never failed', () => {
    expect(gradeFor([attempt('9', { state: 'unsent' })], null, rules())).toMatchObject({
      percent: '0.0',
      passed: false,
    })
    expect(gradeFor([attempt('9'), attempt(null, { number: 2 })], null, rules())).toMatchObject({
      undecided: true,
      passed: null,
      percent: null,
    })
    expect(
      gradeFor(
        [attempt('9'), attempt(null, { number: 2 })],
        null,
        rules({ grade: { method: 'first', decimals: 0, pass: null, scale: { by: 'percent' }, sections: [] } }),
      ),
    ).toMatchObject({ undecided: false, percent: '90' })
  })
  it('overrides and excusals sit on the grade', () => {
    expect(gradeFor([attempt('1')], { percent: '75', excused: false }, rules())).toMatchObject({
      percent: '75.0',
      passed: true,
      overridden: true,
    })
    expect(gradeFor([attempt('1')], { percent: null, excused: true }, rules())).toMatchObject({
      excused: true,
      passed: null,
    })
    // What the attempts make is kept beside it.
    for (const set of [
      { percent: '75', excused: false },
      { percent: '0', excused: false },
      { percent: null, excused: true },
    ]) {
      const { computed, ...alone } = gradeFor([attempt('1')], null, rules())
      expect(computed).toBeNull()
      expect(gradeFor([attempt('1')], set, rules()).computed).toEqual(alone)
    }
    expect(gradeFor([], null, rules())).toMatchObject({ percent: null, passed: null })
  })
  it('lowest ≤ average ≤ highest, whatever the attempts', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 10 }), { minLength: 1, maxLength: 6 }), (scores) => {
        const share = (method: 'lowest' | 'average' | 'highest') =>
          exact(
            gradeFor(
              scores.map((score, i) => attempt(String(score), { number: i + 1 })),
              null,
              rules({ grade: { method, decimals: 3, pass: null, scale: { by: 'percent' }, sections: [] } }),
            ).share!,
          )
        expect(share('lowest').compare(share('average'))).toBeLessThanOrEqual(0)
        expect(share('average').compare(share('highest'))).toBeLessThanOrEqual(0)
      }),
    )
  })
})

describe('lateness', () => {
  it('counts started days of 24 hours after the due time, and minutes over', () => {
    expect(lateness(at('12:00'), at('12:00'), null)).toEqual({ daysLate: 0, minutesOver: 0 })
    expect(lateness(at('12:01'), at('12:00'), at('11:50'))).toEqual({ daysLate: 1, minutesOver: 11 })
    expect(lateness(at('12:01', '2030-05-15'), at('12:00'), null)).toEqual({ daysLate: 2, minutesOver: 0 })
  })
})
