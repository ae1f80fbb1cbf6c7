import fc from 'fast-check'
import katex from 'katex'
import { describe, expect, it } from 'vitest'
import { groupRow, questionRow, sampleContent, sampleEdition, sampleQuestion } from '../../tests/fixtures/core'
import { kindNames, type Question } from '../question'
import type { Row } from '../quiz/schema'
import { compilePaper } from './compile'
import { sealPaper } from './seal'

const hundredths = (min: number, max: number) =>
  fc.integer({ min: min * 100, max: max * 100 }).map((value) => value / 100)
const decimal = fc.integer({ min: 0, max: 99_999 }).map((value) => (value / 100).toFixed(2))
const near = fc.oneof(
  fc.record({ by: fc.constantFrom('absolute' as const, 'relative' as const), tolerance: decimal }),
  fc.record({ by: fc.constantFrom('figures' as const, 'decimals' as const), digits: fc.integer({ min: 1, max: 9 }) }),
)
const words = fc.string({ maxLength: 20 })

/** Everything of a question that a student must not learn before its moment, made up anew. */
const hidden = fc.record({
  credits: fc.array(hundredths(-1, 1), { minLength: 4, maxLength: 4 }),
  rights: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
  comment: words,
  rule: fc.constantFrom('all' as const, 'share' as const, 'credits' as const),
  lower: hundredths(-5, 0),
  upper: fc.option(hundredths(0, 5)),
  value: decimal,
  near,
  how: fc.constantFrom('is' as const, 'begins' as const, 'contains' as const, 'ends' as const),
  text: words,
  credit: hundredths(0, 1),
  shift: fc.integer({ min: 0, max: 4 }),
  x: fc.integer({ min: 0, max: 300 }),
  slips: fc.integer({ min: 0, max: 3 }),
  internalName: words,
  difficulty: fc.integer({ min: 1, max: 5 }),
  seconds: fc.integer({ min: 5, max: 7200 }),
  tags: fc.array(words, { maxLength: 3 }),
  version: fc.integer({ min: 1, max: 99 }),
})
/** Markup as the editor writes it into a gap: words, marks within marks, maths rendered and not, pictures, sound, breaks. */
const { insideGap } = fc.letrec<{ insideGap: string; piece: string }>((tie) => ({
  insideGap: fc.array(tie('piece'), { minLength: 1, maxLength: 4 }).map((pieces) => pieces.join(' ')),
  piece: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    fc.constantFrom(
      'KEY',
      '<br>',
      '<img src="/api/media/0" alt="KEY &gt; 3">',
      '<audio src="/api/media/0" aria-label="KEY"></audio>',
      '<span data-type="inline-math" data-latex="KEY &lt; \\frac{1}{2}"></span>',
      `<span data-type="inline-math" data-latex="KEY^2">${katex.renderToString('\\text{KEY}^2')}<!--maths--></span>`,
      '<a href="https://example.org/KEY">KEY</a>',
    ),
    fc
      .tuple(fc.constantFrom('strong', 'em', 'u', 's', 'sub', 'sup', 'code', 'span'), tie('insideGap'))
      .map(([tag, inside]) => `<${tag}>${inside}</${tag}>`),
  ),
}))
type Hidden = typeof hidden extends fc.Arbitrary<infer T> ? T : never

interface AnyBody {
  options?: Record<string, unknown>[]
  answers?: Record<string, unknown>[]
  rule?: string
  text?: string
  wrongCost?: number
  slips?: number
  gaps?: { body: AnyBody; weight: number }[]
  items?: { id: string; target?: string | null }[]
  rows?: { right: string[] }[]
  columns?: { id: string }[]
  targets?: { id: string }[]
  regions?: object[]
  model?: string
  rubric?: object[]
}

function rewrite(body: AnyBody, as: Hidden): void {
  body.options?.forEach((option, i) =>
    Object.assign(option, {
      credit: as.credits[i],
      comment: as.comment,
      ...('right' in option ? { right: as.rights[i] } : {}),
    }),
  )
  body.answers?.forEach((answer) =>
    Object.assign(answer, {
      credit: as.credit,
      comment: as.comment,
      ...('value' in answer ? { value: as.value, near: as.near } : { text: as.text, how: as.how }),
    }),
  )
  if ('lower' in body) Object.assign(body, { rule: as.rule, lower: as.lower, upper: as.upper })
  else if ('rule' in body) Object.assign(body, { rule: (['exact', 'neighbours', 'moves'] as const)[as.shift % 3] })
  if (body.slips !== undefined) body.slips = as.slips
  for (const gap of body.gaps ?? []) {
    gap.weight = as.shift + 1
    rewrite(gap.body, as)
  }
  const comment = as.comment.replace(/[<>&]/g, '')
  if (body.text !== undefined) body.text = body.text.replace(/SECRET-\w+/g, () => comment)
  body.items?.forEach((item, i) =>
    Object.assign(item, {
      comment: as.comment,
      ...(item.target === undefined
        ? {}
        : {
            target: [...body.targets!.map(({ id }) => id), null][(i + as.shift) % (body.targets!.length + 1)],
            weight: as.shift + 1,
            credits: Object.fromEntries(body.targets!.map(({ id }, j) => [id, as.credits[(i + j) % 4]])),
          }),
    }),
  )
  body.rows?.forEach((row, i) =>
    Object.assign(row, {
      comment: as.comment,
      right: body.columns!.flatMap(({ id }, j) => (as.rights[(i + j) % 4] ? [id] : [])),
      credits: Object.fromEntries(body.columns!.map(({ id }, j) => [id, as.credits[(i + j) % 4]])),
    }),
  )
  // The right order of an ordering is the order in which its lines are kept.
  if (body.items && !body.targets)
    body.items = [
      ...body.items.slice(as.shift % body.items.length),
      ...body.items.slice(0, as.shift % body.items.length),
    ]
  if (body.wrongCost !== undefined) body.wrongCost = as.shift / 4
  body.regions?.forEach((region, i) =>
    Object.assign(region, {
      right: as.rights[i],
      label: as.text,
      comment: as.comment,
      shape: { is: 'circle', x: as.x, y: 10, r: 9 },
    }),
  )
  if (body.model !== undefined)
    Object.assign(body, {
      model: as.text,
      rubric: [{ id: 'z', title: as.comment || 'x', words: as.text, share: as.x }],
    })
}

function rewritten(base: Question, as: Hidden): Question {
  const body = structuredClone(base.body) as AnyBody
  rewrite(body, as)
  return {
    ...base,
    body,
    internalName: as.internalName,
    difficulty: as.difficulty,
    seconds: as.seconds,
    tags: as.tags,
    source: as.comment,
    hints: [as.comment],
    fields: { a: as.text },
    grade: as.comment,
    comments: { right: as.comment, wrong: as.text, general: as.internalName },
  } as unknown as Question
}

function sheetOf(question: Question, version: number): string {
  const edition = sampleEdition(sampleContent([questionRow('q')]), { q: question })
  edition.questions.q!.version = version
  return JSON.stringify(sealPaper(compilePaper(edition, 'student', 1, []), edition))
}

describe('non-interference of the sealed sheet (semantics §4.6)', () => {
  it.each(kindNames)(
    '%s: whatever the key, credits, tolerance, comments and names are, the sheet is byte for byte the same',
    (kind) => {
      const base = sampleQuestion(kind)
      const reference = sheetOf(base, 1)
      fc.assert(
        fc.property(hidden, (as) => {
          expect(sheetOf(rewritten(base, as), as.version)).toBe(reference)
        }),
        { numRuns: 150 },
      )
    },
  )
  it('gaps: whatever stands inside a gap, of all that the editor can put there, the sheet is the same', () => {
    const base = sampleQuestion('gaps') as Extract<Question, { kind: 'gaps' }>
    const [before, after] = ['<p>It dries at ', ' metres, says the chart.</p>']
    const withInside = (inside: string): Question => ({
      ...base,
      body: { ...base.body, text: `${before}<span data-gap="${base.body.gaps[0]!.id}">${inside}</span>${after}` },
    })
    const reference = sheetOf(withInside('x'), 1)
    let holdsMaths = 0
    fc.assert(
      fc.property(insideGap, (inside) => {
        if (inside.includes('data-latex')) holdsMaths++
        const sealed = sheetOf(withInside(inside), 1)
        expect(sealed).not.toContain('KEY')
        expect(sealed).toBe(reference)
      }),
      { numRuns: 400 },
    )
    expect(holdsMaths).toBeGreaterThan(100)
  })
  it('a text never stands within a stimulus group, wherever shuffling puts the group', () => {
    const rows: Row[] = [
      questionRow('q1'),
      { type: 'text', id: 't1', html: '<p>Read on.</p>' },
      groupRow('g', ['q2', 'q3', 'q4']),
      { type: 'text', id: 't2', html: '<p>And on.</p>' },
      questionRow('q5'),
    ]
    const content = sampleContent(rows)
    content.sections[0]!.order = 'shuffled'
    const edition = sampleEdition(content)
    let apart = 0
    for (let student = 0; student < 60; student++) {
      const paper = compilePaper(edition, `student ${student}`, 1, [])
      const group = new Set(paper.items.filter((item) => item.row === 'g').map((item) => item.id))
      const { entries } = sealPaper(paper, edition).sections[0]!
      const places = entries.flatMap((entry, i) => (entry.type === 'question' && group.has(entry.id) ? [i] : []))
      expect(places.at(-1)! - places[0]!).toBe(2)
      expect(entries.filter((entry) => entry.type === 'text')).toHaveLength(2)
      if (places[0] !== 2) apart++
    }
    expect(apart).toBeGreaterThan(10)
  })
  it('comments and hints in a further language change nothing on the sheet', () => {
    const base = sampleQuestion('choice')
    const reference = sheetOf(base, 1)
    for (const key of ['right', 'wrong', 'general', 'hint:0', 'comment:a'])
      expect(sheetOf({ ...base, translations: { nl: { [key]: '<p>SECRET</p>' } } } as Question, 1)).toBe(reference)
  })
  it('tells how many options are right only where the question says so', () => {
    const base = sampleQuestion('choices')
    const telling = { ...base, body: { ...base.body, tellHowMany: true } } as Question
    expect(sheetOf(base, 1)).toContain('"exactly":null')
    expect(sheetOf(telling, 1)).toContain('"exactly":2')
  })
  it('a place to choose among is shown, whichever is right', () => {
    const base = sampleQuestion('spot')
    const shown = { ...base, body: { ...base.body, by: 'place' } } as Question
    const turned = {
      ...shown,
      body: {
        ...shown.body,
        regions: (shown.body as { regions: { right: boolean }[] }).regions.map((region) => ({
          ...region,
          right: !region.right,
        })),
      },
    } as Question
    expect(sheetOf(shown, 1)).toContain('the bank')
    expect(sheetOf(turned, 1)).toBe(sheetOf(shown, 1))
  })
  it.each(kindNames)('%s: nothing that is marked secret is on the sheet', (kind) => {
    expect(
      sheetOf(
        sampleQuestion(kind, {
          comments: { right: 'SECRET-right', wrong: 'SECRET-wrong', general: 'SECRET' },
          hints: ['SECRET-hint'],
          source: 'SECRET-source',
          internalName: 'SECRET-name',
        }),
        1,
      ),
    ).not.toContain('SECRET')
  })
  it('what questions share is sent once, in the language asked for, without its name and id', () => {
    const shared = (id: string, translated: boolean) =>
      sampleQuestion('choice', {
        stimulus: 'st-secret',
        stem: `<p>Ask ${id}</p>`,
        translations: translated ? { nl: { stem: `<p>Vraag ${id}</p>` } } : {},
      })
    const edition = {
      ...sampleEdition(sampleContent([questionRow('a'), questionRow('b'), questionRow('c')]), {
        a: shared('a', true),
        b: shared('b', false),
      }),
      stimuli: {
        'st-secret': {
          name: 'SECRET name',
          language: 'en',
          html: '<p>A passage</p>',
          source: 'SECRET source',
          translations: { nl: '<p>Een tekst</p>' },
        },
      },
    }
    const paper = compilePaper(edition, 'x', 1, [])
    const own = sealPaper(paper, edition)
    expect(own.stimuli).toEqual([{ html: '<p>A passage</p>', language: 'en' }])
    expect(own.sections[0]!.entries.map((entry) => entry.type === 'question' && entry.stimulus)).toEqual([0, 0, null])
    expect(own.languages).toEqual(['en', 'nl'])
    const dutch = sealPaper(paper, edition, 'nl')
    expect(dutch.stimuli).toEqual([{ html: '<p>Een tekst</p>', language: 'nl' }])
    // What is not translated stays, and says in which language it is.
    expect(
      dutch.sections[0]!.entries.map((entry) => entry.type === 'question' && [entry.stem, entry.language]),
    ).toEqual([
      ['<p>Vraag a</p>', 'nl'],
      ['<p>Ask b</p>', 'en'],
      ['<p>A question of kind choice</p>', 'en'],
    ])
    expect(JSON.stringify([own, dutch])).not.toMatch(/SECRET|st-secret/)
  })
  it('holds no authored ids, rows or pools', () => {
    expect(sheetOf(sampleQuestion('choice'), 1)).not.toMatch(/"(?:a|b|c|d|q|r-q|s1)"/)
  })
})
