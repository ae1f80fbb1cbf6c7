import fc from 'fast-check'
import { expect, it } from 'vitest'
import { kindOf, question, questionFaults } from '../../../../core/question'
import { sampleQuestion } from '../../../../tests/fixtures/core'
import { fromAnyVersion, type QtiVersion } from '../../names'
import { prove } from '../../proof/prove'
import { readItemTree } from '../../read'
import { itemOf, writeItem } from '../../write'

const credit = fc.oneof(
  fc.constantFrom(1, 0.5, -0.5, -1, 0),
  fc.integer({ min: -300, max: 300 }).map((n) => n / 100),
)
const drawn = fc.record({
  credits: fc.array(credit, { minLength: 2, maxLength: 5 }),
  rule: fc.constantFrom('all' as const, 'share' as const, 'credits' as const, 'credits' as const),
  lower: fc.constantFrom(0, -0.5, -1, -100),
  upper: fc.constantFrom(null, 0.5, 1.5, 100),
  points: fc.constantFrom(1, 2, 0.75, 3),
  tellHowMany: fc.boolean(),
  version: fc.constantFrom<QtiVersion>('2.1', '2.2', '3.0'),
})

it('choices go out and come back in as the same scores, proven both ways, whatever their credits and bounds', () => {
  let tried = 0
  fc.assert(
    fc.property(drawn, ({ credits, points, version, ...rules }) => {
      const options = credits.map((each, i) => ({ id: `o${i}`, html: `Option ${i}`, right: each > 0, credit: each }))
      const asked = question.parse({ ...sampleQuestion('choices'), points, body: { ...rules, options } })
      fc.pre(questionFaults(asked).length === 0)
      tried++
      const out = itemOf(asked, 'item', version)
      expect(prove({ item: out.tree, question: asked, responses: out.responses })).toMatchObject({ state: 'proven' })
      const tree = fromAnyVersion(writeItem(asked, 'item', version))
      const [part] = readItemTree(tree).parts
      const back = part!.question
      expect(prove({ item: tree, question: back, responses: part!.responses })).toMatchObject({ state: 'proven' })
      expect([back.points, kindOf(back.kind).keyText(back.body), questionFaults(back)]).toEqual([
        points,
        kindOf('choices').keyText(asked.body),
        [],
      ])
    }),
    { numRuns: 200 },
  )
  expect(tried).toBeGreaterThan(150)
})
