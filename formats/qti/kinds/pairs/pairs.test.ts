import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grid as kind } from '../../../../core/question/kinds/grid'
import { blankQuestion, kindOf, question, questionFaults, type Question } from '../../../../core/question'
import { sampleQuestion } from '../../../../tests/fixtures/core'
import { within } from '../../../xml'
import { fromAnyVersion, type QtiVersion } from '../../names'
import { prove } from '../../proof/prove'
import { readItemTree } from '../../read'
import { itemOf, writeItem } from '../../write'

const gridWith = (inOrder: boolean) => {
  const question = sampleQuestion('grid') as Extract<Question, { kind: 'grid' }>
  return { ...question, body: { ...question.body, inOrder } }
}

it.each([
  ['2.1', true],
  ['2.1', false],
  ['3.0', true],
  ['3.0', false],
] as [QtiVersion, boolean][])(
  '%s: rows of a grid keep their order, or do not (%s), and columns always do',
  (version, inOrder) => {
    const item = fromAnyVersion(writeItem(gridWith(inOrder), 'grid', version))
    const [columns] = within(item, 'simpleMatchSet').slice(1)
    const fixed = within(columns!, 'simpleAssociableChoice').map(({ attributes }) => attributes.fixed)
    // What is not shuffled at all needs no word of its own.
    expect(fixed).toEqual(fixed.map(() => (inOrder ? undefined : 'true')))
    expect(readItemTree(item).parts[0]!.question.body).toMatchObject({ inOrder })
  },
)

it('rows that keep their order are fixed on a paper; an older grid has none that do', () => {
  const fixedIn = (body: Parameters<typeof kind.options>[0]) =>
    kind
      .options(body)
      .filter(({ list }) => list === 'rows')
      .map(({ fixed }) => fixed)
  expect(fixedIn(gridWith(true).body)).toEqual([true, true, true])
  expect(fixedIn(gridWith(false).body)).toEqual([false, false, false])
  const { inOrder: _inOrder, ...older } = blankQuestion('grid').body as Record<string, unknown>
  expect(kind.body.parse(older).inOrder).toBe(false)
})

describe('credits of single pairs and ticks', () => {
  const credit = fc.oneof(
    fc.constantFrom(1, 0.5, -0.5, -1, 0),
    fc.integer({ min: -300, max: 300 }).map((n) => n / 100),
  )
  const drawn = fc.record({
    kind: fc.constantFrom('matching' as const, 'sorting' as const, 'grid' as const),
    points: fc.constantFrom(1, 2, 5, 0.75),
    n: fc.integer({ min: 2, max: 4 }),
    m: fc.integer({ min: 2, max: 4 }),
    credits: fc.array(fc.option(credit), { minLength: 16, maxLength: 16 }),
    wrongCost: fc.constantFrom(0, 0.25, 1),
    lower: fc.constantFrom(0, -0.5, -100),
    upper: fc.constantFrom(null, null, 0.5, 1.5, 100),
    version: fc.constantFrom<QtiVersion>('2.1', '2.2', '3.0'),
  })
  type Drawn = typeof drawn extends fc.Arbitrary<infer T> ? T : never

  /** A question whose key is what earns most in each row; none where nothing earns anything. */
  function made({ kind, points, n, m, credits, wrongCost, lower, upper }: Drawn): Question {
    const rows = Array.from({ length: n }, (_, i) => {
      const own = Array.from({ length: m }, (_, j) => [`t${j}`, credits[i * 4 + j]] as const)
      const named = own.flatMap(([to, worth]) => (worth === null || worth === undefined ? [] : [[to, worth] as const]))
      return { id: `i${i}`, html: `Entry ${i}`, comment: i ? '' : '<p>Look again.</p>', named }
    })
    const taken = new Set<string>()
    const best = ({ named }: (typeof rows)[number]) => {
      const [most] = named.filter(([, worth]) => worth > 0).sort((a, b) => b[1] - a[1])
      if (!most || (kind === 'matching' && taken.has(most[0]))) return null
      taken.add(most[0])
      return most[0]
    }
    const sides = Array.from({ length: m }, (_, j) => ({ id: `t${j}`, html: `Place ${j}` }))
    const rules = { rule: 'credits', wrongCost, lower, upper }
    const body =
      kind === 'grid'
        ? {
            ...rules,
            inOrder: false,
            rows: rows.map(({ named, ...row }) => ({
              ...row,
              right: named.filter(([, worth]) => worth > 0).map(([to]) => to),
              credits: Object.fromEntries(named),
            })),
            columns: sides,
          }
        : {
            ...rules,
            items: rows.map(({ named, ...row }) => {
              const target = best({ named, ...row })
              return {
                ...row,
                target,
                credits: Object.fromEntries(target === null ? named.filter(([, worth]) => worth <= 0) : named),
              }
            }),
            targets: sides,
          }
    return question.parse({ ...sampleQuestion(kind), points, body })
  }
  it('go out and come back in as the same scores, proven both ways, in each version', () => {
    let tried = 0
    fc.assert(
      fc.property(drawn, (each) => {
        const asked = made(each)
        fc.pre(questionFaults(asked).length === 0)
        tried++
        const out = itemOf(asked, 'item', each.version)
        expect(prove({ item: out.tree, question: asked, responses: out.responses })).toMatchObject({ state: 'proven' })
        // Read as a stranger's file: without the settings that Thistle writes beside.
        const tree = fromAnyVersion(writeItem(asked, 'item', each.version))
        const { parts } = readItemTree(tree)
        const back = parts[0]!.question
        expect(questionFaults(back)).toEqual([])
        expect(back.points).toBe(asked.points)
        expect(prove({ item: tree, question: back, responses: parts[0]!.responses })).toMatchObject({ state: 'proven' })
        expect(kindOf(back.kind).keyText(back.body)).toBe(kindOf(asked.kind).keyText(asked.body))
      }),
      { numRuns: 150 },
    )
    expect(tried).toBeGreaterThan(100)
  })
})
