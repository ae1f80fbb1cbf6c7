import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  at,
  checkedQuestion,
  factsNamed,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleRules,
} from '../../../tests/fixtures/core'
import type { Reading } from '../../question'
import { bandAt } from '../closing'
import { applyEdit, type Edit } from '../edits'
import { newSection } from '../blank'
import type { Content, PoolRow, Quiz, Row } from '../schema'
import { allRows } from '../walk'
import type { CheckContext } from './check'
import { closingChecks, languageChecks, objectiveChecks, pinnedChecks } from './content'

const bank = names('q', 8)
const reading = (languages: string[]): Reading => ({
  stem: '',
  key: '',
  options: [],
  inOrder: false,
  byHand: false,
  keyless: false,
  languages,
})

/** @param on which questions are on the objective "springs", which lies under "tides" */
function context(on: readonly string[], over: (id: string) => object = () => ({})): CheckContext {
  const facts = factsNamed(bank, (i) => ({ objectives: on.includes(bank[i]!) ? ['springs'] : ['lights'] }))
  return {
    now: at('08:00'),
    zone: 'UTC',
    students: [],
    scales: [],
    names: new Map(),
    objectives: new Map([
      ['tides', { title: 'Tides', parent: null }],
      ['springs', { title: 'Springs', parent: 'tides' }],
      ['lights', { title: 'Lights', parent: null }],
    ]),
    questions: new Map(
      bank.map((id) => [
        id,
        checkedQuestion(`Question ${id}`, { version: 3, reading: reading(['en']), facts: facts.get(id)!, ...over(id) }),
      ]),
    ),
  }
}
const quizOf = (rows: Row[], over: Partial<Content> = {}): Quiz => ({
  content: sampleContent(rows, over),
  rules: sampleRules(),
})

/** Every set of questions that a paper may hold, by trying all of them: the oracle. */
function everyPaper(content: Content): string[][] {
  const rows = allRows(content)
  const fixed = rows.flatMap((row) => (row.type === 'question' ? [row.question] : []))
  const pools = rows.filter((row): row is PoolRow => row.type === 'pool')
  const choose = (from: string[], n: number): string[][] =>
    n === 0 ? [[]] : from.flatMap((each, i) => choose(from.slice(i + 1), n - 1).map((rest) => [each, ...rest]))
  return pools.reduce(
    (papers, pool) =>
      papers.flatMap((paper) =>
        choose(
          pool.questions.filter((question) => !paper.includes(question)),
          pool.draw,
        ).map((drawn) => [...paper, ...drawn]),
      ),
    [fixed],
  )
}

describe('objectives that are named', () => {
  it('are found lacking where some paper of all that there may be has none, pools overlapping or not', () => {
    const told = { yes: 0, no: 0 }
    fc.assert(
      fc.property(
        fc.subarray(bank, { minLength: 1 }),
        fc.subarray(bank, { maxLength: 2 }),
        fc.array(fc.tuple(fc.subarray(bank, { minLength: 1 }), fc.integer({ min: 1, max: 3 })), { maxLength: 3 }),
        (on, fixed, pools) => {
          const rows: Row[] = [
            ...fixed.map((question) => questionRow(question)),
            ...pools.map(([questions, draw], i) => poolRow(`p${i}`, questions, draw)),
          ]
          const quiz = quizOf(rows, { objectives: ['tides'] })
          const papers = everyPaper(quiz.content)
          fc.pre(rows.length > 0 && papers.length > 0)
          const lacks = papers.some((paper) => !paper.some((question) => on.includes(question)))
          expect(objectiveChecks(quiz, context(on)).length).toBe(lacks ? 1 : 0)
          told[lacks ? 'yes' : 'no']++
        },
      ),
      { numRuns: 400 },
    )
    expect(Math.min(told.yes, told.no)).toBeGreaterThan(40)
  })
  it('of a section look at that section alone; the words say which, and lead to the finder', () => {
    const quiz = quizOf([questionRow('q1')])
    quiz.content.sections.push(
      newSection({ id: 's2', title: 'Streams', objectives: ['springs'], rows: [questionRow('q2')] }),
    )
    const [found] = objectiveChecks(quiz, context(['q1']))
    expect(found).toMatchObject({
      code: 'objective:s2:springs',
      sentence: '“Springs” is named in “Streams”, but there are papers without a question on it.',
      remedy: { goTo: 'finder', objective: 'springs' },
    })
    expect(objectiveChecks(quiz, context(['q2']))).toEqual([])
  })
  it('spreading over objectives can make sure of one', () => {
    const pool = poolRow('p', bank, 4)
    const named = { objectives: ['springs'] }
    const on = context(bank.slice(0, 4))
    expect(objectiveChecks(quizOf([pool], named), on)).toHaveLength(1)
    expect(objectiveChecks(quizOf([{ ...pool, spread: 'objectives' } as Row], named), on)).toEqual([])
  })
  it('one that no question is on is told as that', () => {
    const [found] = objectiveChecks(quizOf([questionRow('q1')], { objectives: ['lights', 'gone'] }), context(['q1']))
    expect(found).toMatchObject({ title: 'No question on an objective' })
  })
})

describe('versions that questions stay at', () => {
  it.each([
    [null, null],
    [3, null],
    [2, 'look'],
    [4, 'stop'],
  ] as const)('%s: %s', (version, level) => {
    const quiz = quizOf([questionRow('q1', { version })])
    const [found] = pinnedChecks(quiz, context([]))
    expect(found?.level ?? null).toBe(level)
    if (!found) return
    const { edit } = found.remedy as { edit: Parameters<typeof applyEdit>[1] }
    expect(pinnedChecks(applyEdit(quiz, edit).quiz, context([]))).toEqual([])
  })
})

describe('languages', () => {
  it('what lacks a translation is named, language by language', () => {
    const known = context([], (id) => ({ reading: reading(id === 'q1' ? ['en', 'nl'] : ['en']) }))
    const quiz = quizOf([questionRow('q1'), poolRow('p', ['q2', 'q3'], 1)], { languages: ['nl', 'en'] })
    expect(languageChecks(quiz, known)).toMatchObject([
      { code: 'language:nl', title: 'Not all can be read in Dutch', remedy: { open: 'q2' } },
    ])
    expect(languageChecks(quizOf([questionRow('q1')], { languages: ['nl'] }), known)).toEqual([])
    expect(languageChecks(quizOf([questionRow('q2')]), known)).toEqual([])
  })
})

describe('closing words', () => {
  const words = (...from: number[]) => from.map((each, i) => ({ id: `b${i}`, from: each, html: '<p>{name}</p>' }))
  it('gaps, overlaps and unknown names in brackets are told', () => {
    const codes = (over: Partial<Content>) => closingChecks(quizOf([], over)).map(({ code }) => code)
    expect(codes({})).toEqual([])
    expect(codes({ closing: words(0, 50) })).toEqual([])
    expect(codes({ closing: words(20, 50) })).toEqual(['closing-gap'])
    expect(codes({ closing: words(0, 50, 50) })).toEqual(['closing-overlap'])
    expect(codes({ after: '<p>{nome}</p>' })).toEqual(['closing-names'])
  })
  it('remedies leave none of it, and what was read is read still', () => {
    for (const from of [
      [20, 50],
      [0, 50, 50],
      [30, 30],
    ]) {
      let quiz = quizOf([], { closing: words(...from) })
      const before = bandAt(quiz.content.closing, 60)!.id
      // One after another, as somebody presses them.
      for (let [check] = closingChecks(quiz); check; [check] = closingChecks(quiz))
        quiz = applyEdit(quiz, (check.remedy as { edit: Edit }).edit).quiz
      expect(closingChecks(quiz)).toEqual([])
      expect(bandAt(quiz.content.closing, 60)!.id).toBe(before)
    }
  })
})
