import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { questionRow, sampleContent, sampleEdition, sampleQuestion } from '../../tests/fixtures/core'
import { kindNames, type Question } from '../question'
import { compilePaper } from './compile'
import { sealPaper } from './seal'

const hundredths = (min: number, max: number) => fc.integer({ min: min * 100, max: max * 100 }).map((value) => value / 100)
const decimal = fc.integer({ min: 0, max: 99_999 }).map((value) => (value / 100).toFixed(2))
const near = fc.oneof(fc.record({ by: fc.constantFrom('absolute' as const, 'relative' as const), tolerance: decimal }), fc.record({ by: fc.constantFrom('figures' as const, 'decimals' as const), digits: fc.integer({ min: 1, max: 9 }) }))
const words = fc.string({ maxLength: 20 })

/** Everything of a question that a student must not learn before its moment, made up anew. */
const hidden = fc.record({
  credits: fc.array(hundredths(-1, 1), { minLength: 4, maxLength: 4 }), rights: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }), comment: words,
  rule: fc.constantFrom('all' as const, 'share' as const, 'credits' as const), lower: hundredths(-5, 0), upper: fc.option(hundredths(0, 5)),
  value: decimal, near, how: fc.constantFrom('is' as const, 'begins' as const, 'contains' as const, 'ends' as const), text: words, credit: hundredths(0, 1),
  internalName: words, difficulty: fc.integer({ min: 1, max: 5 }), seconds: fc.integer({ min: 5, max: 7200 }), tags: fc.array(words, { maxLength: 3 }), version: fc.integer({ min: 1, max: 99 }),
})
type Hidden = typeof hidden extends fc.Arbitrary<infer T> ? T : never

function rewritten(base: Question, as: Hidden): Question {
  const body = structuredClone(base.body) as { options?: Record<string, unknown>[], answers?: Record<string, unknown>[], rule?: string }
  body.options?.forEach((option, i) => Object.assign(option, { credit: as.credits[i], comment: as.comment, ...('right' in option ? { right: as.rights[i] } : {}) }))
  body.answers?.forEach((answer) => Object.assign(answer, { credit: as.credit, comment: as.comment, ...('value' in answer ? { value: as.value, near: as.near } : { text: as.text, how: as.how }) }))
  if ('rule' in body) Object.assign(body, { rule: as.rule, lower: as.lower, upper: as.upper })
  return { ...base, body, internalName: as.internalName, difficulty: as.difficulty, seconds: as.seconds, tags: as.tags, source: as.comment, comments: { right: as.comment, wrong: as.text, general: as.internalName } } as Question
}

function sheetOf(question: Question, version: number): string {
  const edition = sampleEdition(sampleContent([questionRow('q')]), { q: question })
  edition.questions.q!.version = version
  return JSON.stringify(sealPaper(compilePaper(edition, 'student', 1, []), edition))
}

describe('non-interference of the sealed sheet (semantics §4.6)', () => {
  it.each(kindNames)('%s: whatever the key, credits, tolerance, comments and names are, the sheet is byte for byte the same', (kind) => {
    const base = sampleQuestion(kind)
    const reference = sheetOf(base, 1)
    fc.assert(fc.property(hidden, (as) => { expect(sheetOf(rewritten(base, as), as.version)).toBe(reference) }), { numRuns: 150 })
  })
  it('tells how many options are right only where the question says so', () => {
    const base = sampleQuestion('choices')
    const telling = { ...base, body: { ...base.body, tellHowMany: true } } as Question
    expect(sheetOf(base, 1)).toContain('"exactly":null')
    expect(sheetOf(telling, 1)).toContain('"exactly":2')
  })
  it('holds no authored ids, rows or pools', () => {
    expect(sheetOf(sampleQuestion('choice'), 1)).not.toMatch(/"(?:a|b|c|d|q|r-q|s1)"/)
  })
})
