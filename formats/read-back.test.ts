/**
 * What lists and lines of questions do not say is told before a download: whatever is not told comes back scoring alike. The
 * oracle knows nothing of how the two are compared: it answers both, place by place.
 */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../tests/fixtures/core'
import { plainText, questionFaults, question as questionSchema, scoreAnswer, type Question } from '../core/question'
import { readCsv } from './csv/read'
import { writeCsv } from './csv/write'
import { readMarkdown } from './markdown/read'
import { unseenInMarkdown, writeMarkdown } from './markdown/write'
import { writeSheet } from './sheet/write'
import { readSheet } from './sheet/read'
import { unseenInTable } from './table/write'

/** Words with everything in them that lines, lists and keys are made of. */
const words = fc.oneof(
  { weight: 3, arbitrary: fc.constantFrom('ebb', 'flood', 'high water', 'slack', 'spring') },
  fc.constantFrom(
    ...['a', 'b', 'B)', 'a, b', 'a|b', '|', '=', 'x = y', '= 4', '=SUM(A1)', '- [x] no', '[x] done', '1. one', '---'],
    ...[
      '# Tides',
      '> said',
      '* star *',
      '_low_',
      '$x^2$',
      '$5',
      '2 < 3',
      '<b>',
      '&amp;',
      '"quoted"',
      "'quote",
      '\\',
      '`code`',
    ],
    ...[
      'true',
      'no',
      '1,000',
      '3.75',
      '-4',
      '+',
      '@you',
      'two\nlines',
      ' around ',
      '|a|',
      '![x](y)',
      '[x](y)',
      'http://x.y',
    ],
    ...['5 m', '± 2', '3 ± 1', 'é', '½', '–', '\u00a0', 'H2O'],
  ),
)
const html = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
const several = fc.uniqueArray(words, {
  minLength: 3,
  maxLength: 5,
  selector: (text) => text.trim().replace(/\s+/g, ' ').toLowerCase(),
})
const credit = fc.constantFrom(0, 0, 0, 1, 1, 0.5)
const decimal = fc.constantFrom('3.75', '-4', '0', '1852', '0.125', '1.852', '1000', '0.1', '12.5')
const near = fc.oneof(
  decimal.filter((each) => !each.startsWith('-')).map((tolerance) => ({ by: 'absolute', tolerance })),
  fc.constantFrom('0.02', '0.125', '0.001').map((tolerance) => ({ by: 'relative', tolerance })),
  fc.constantFrom(1, 3).map((digits) => ({ by: 'figures', digits })),
  fc.constantFrom(0, 2).map((digits) => ({ by: 'decimals', digits })),
  fc.constantFrom('none', 'below').map((open) => ({ by: 'between', below: '1', above: '2', open })),
)
const bodies: Partial<Record<Question['kind'], fc.Arbitrary<object>>> = {
  choice: fc.tuple(several, fc.array(credit, { minLength: 5, maxLength: 5 })).map(([texts, credits]) => ({
    options: texts.map((text, i) => ({ id: `o${i}`, html: html(text), comment: '', fixed: false, credit: credits[i] })),
  })),
  choices: fc.tuple(several, fc.array(fc.boolean(), { minLength: 5, maxLength: 5 })).map(([texts, right]) => ({
    options: texts.map((text, i) => ({
      id: `o${i}`,
      html: html(text),
      comment: '',
      fixed: false,
      right: right[i],
      credit: right[i] ? 1 : -1,
    })),
  })),
  number: fc
    .tuple(
      fc.uniqueArray(decimal, { minLength: 1, maxLength: 3 }),
      near,
      credit,
      fc.constantFrom('', 'm', '%', 'km/h'),
      fc.constantFrom('point', 'comma'),
    )
    .map(([values, nearness, last, unit, style]) => ({
      unit,
      style,
      label: '',
      unitAsked: false,
      answers: values.map((value, i) => ({ value, near: nearness, credit: i ? last : 1, comment: '' })),
    })),
  text: fc.tuple(several, credit, fc.constantFrom('is', 'is', 'is', 'begins')).map(([texts, last, how]) => ({
    answers: texts.map((text, i) => ({
      how: i ? 'is' : how,
      text: text.trim() || 'x',
      credit: i ? last : 1,
      comment: '',
    })),
  })),
  ordering: several.map((texts) => ({
    rule: 'moves',
    layout: 'list',
    items: texts.map((text, i) => ({ id: `o${i}`, html: html(text), comment: '' })),
  })),
  matching: fc.tuple(several, several).map(([left, right]) => ({
    items: left.map((text, i) => ({
      id: `l${i}`,
      html: html(text),
      comment: '',
      target: i < right.length ? `r${i}` : null,
    })),
    targets: right.map((text, i) => ({ id: `r${i}`, html: html(text) })),
  })),
}
const question: fc.Arbitrary<Question> = fc
  .constantFrom(...(Object.keys(bodies) as Question['kind'][]))
  .chain((kind) => fc.tuple(fc.constant(kind), words, bodies[kind]!))
  .map(([kind, stem, over]) => {
    const base = sampleQuestion(kind)
    const made = { ...base, stem: `<p>Which? ${html(stem)}</p>`, body: { ...base.body, ...over } }
    return questionSchema.safeParse(made).data ?? sampleQuestion('choice')
  })
  // A question with faults is in no quiz.
  .filter((each) => questionFaults(each).length === 0)

/** What an answer earns, told by the places or words of what is chosen. */
function earned(of: Question, i: number): string[] {
  const score = (answer: unknown) => scoreAnswer(of, {}, answer).fraction ?? ''
  const ids = (entries: readonly { id: string }[]) => entries.map(({ id }) => id)
  switch (of.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo':
      return ids(of.body.options).map((id) => score({ chosen: [id] }))
    case 'choices': {
      const all = ids(of.body.options)
      return Array.from({ length: 1 << all.length }, (_, n) => score({ chosen: all.filter((_id, k) => (n >> k) & 1) }))
    }
    case 'number':
      return ['3.75', '-4', '0', '1852', '0.125', '1.852', '1000', '0.1', '12.5', '2.75', '5', '1853', '4', '0.13'].map(
        (text) => score({ text: of.body.style === 'comma' ? text.replace('.', ',') : text }),
      )
    case 'text':
      return ['ebb', 'flood', 'a', 'b', 'a|b', 'ebb tide', '= 4', 'x = y', '3.75', '|', 'no', 'x'].map((text) =>
        score({ text }),
      )
    case 'ordering': {
      const all = ids(of.body.items)
      return [all, [...all].reverse(), [...all.slice(i), ...all.slice(0, i)]].map((order) => score({ order }))
    }
    case 'matching': {
      const targetOf = new Map(of.body.targets.map(({ id, html: text }) => [plainText(text), id]))
      const texts = [...targetOf.keys()].sort()
      return texts.map((_, shift) =>
        score({
          pairs: Object.fromEntries(
            of.body.items.flatMap(({ id }, k) => {
              const text = texts[(k + shift) % texts.length]
              return text === undefined || k >= texts.length ? [] : [[id, targetOf.get(text)!]]
            }),
          ),
        }),
      )
    }
    default:
      throw new Error(of.kind)
  }
}

const formats: [name: string, told: (question: Question) => string[], back: (question: Question) => Question | null][] =
  [
    ['CSV', unseenInTable, (each) => readCsv(writeCsv([out(each)])).items[0]?.question ?? null],
    ['XLSX', unseenInTable, (each) => readSheet(writeSheet([out(each)], 'xlsx')).items[0]?.question ?? null],
    ['Markdown', unseenInMarkdown, (each) => readMarkdown(writeMarkdown([out(each)])).items[0]?.question ?? null],
  ]
const out = (each: Question) => ({ id: 'q', folder: ['Tides'], objectives: [], question: each })

describe.each(formats)('%s', (name, told, back) => {
  it('what is not told comes back scoring alike, in the same words', () => {
    let silent = 0
    let all = 0
    fc.assert(
      fc.property(question, fc.integer({ min: 1, max: 3 }), (each, i) => {
        all++
        if (told(each).length) return
        silent++
        const read = back(each)
        expect(read, 'comes back').not.toBeNull()
        expect(plainText(read!.stem)).toBe(plainText(each.stem))
        expect(earned(read!, i)).toEqual(earned(each, i))
      }),
      { numRuns: name === 'XLSX' ? 100 : 400 },
    )
    // Many of them say nothing but what fits: a check that is told of everything checks nothing.
    expect(silent / all).toBeGreaterThan(0.2)
  })
})
