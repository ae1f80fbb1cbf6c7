import { describe, expect, it } from 'vitest'
import { bank } from '../../demo/bank'
import { instanceOf, kindOf, sampleInstances, scoreAnswer, type Question } from '../../core/question'
import { compute, holds } from '../../core/question/vary/expression'
import { sourceOf, treeOf } from '../../core/question/vary/tree'
import { sampleQuestion } from '../../tests/fixtures/core'
import { document, readXml, writeXml } from '../xml'
import { readExpression, writeExpression } from './expressions'
import { fromAnyVersion } from './names'
import { canBeTemplate } from './package/write'
import { readItemTree } from './read'
import { writeItem } from './write'

const varying = bank.filter(({ question }) => question.vary)
const journey = (question: Question, version: '2.1' | '2.2' | '3.0' = '2.2') =>
  readItemTree(fromAnyVersion(readXml(document(writeItem(question, 'i1', version))))).question

describe('computations', () => {
  const cases: [source: string, values: Record<string, string>][] = [
    ['a + b * 2', { a: '1.5', b: '3' }],
    ['(a + b) * 2', { a: '1.5', b: '3' }],
    ['-a ^ 2', { a: '3' }],
    ['a - (b - c)', { a: '9', b: '4', c: '2' }],
    ['a / b / 2', { a: '9', b: '4' }],
    ['round(a / 3, 2)', { a: '10' }],
    ['sqrt(a) + abs(-b)', { a: '16', b: '2' }],
    ['min(a, b, 3)', { a: '5', b: '4' }],
    ['a mod 3', { a: '17' }],
    ['sin(rad(a)) * log10(b) + ln1', { a: '30', b: '100', ln1: '0' }],
  ]
  it.each(cases)('%s means the same after it has been QTI', (source, values) => {
    const back = sourceOf(readExpression(readXml(writeXml(writeExpression(treeOf(source))))))
    expect(Number(compute(back, values))).toBeCloseTo(Number(compute(source, values)), 9)
  })
  const worlds = [
    { a: '2', b: '3', wind: 'north' },
    { a: '3', b: '2', wind: 'south' },
    { a: '4', b: '4', wind: 'north' },
    { a: '6', b: '1', wind: 'east' },
  ]
  it.each([
    'a < b',
    'a <= b and b != 3',
    'not (a == b) or a > 5',
    'wind == "north"',
    'wind != "north" and a >= 3',
    '1 < a < 5',
  ])('the condition %s holds of the same values after it has been QTI', (source) => {
    const back = sourceOf(readExpression(readXml(writeXml(writeExpression(treeOf(source))))))
    expect(worlds.map((values) => holds(back, values))).toEqual(worlds.map((values) => holds(source, values)))
  })
  it('what QTI has no word for is said', () =>
    expect(() => writeExpression(treeOf('a > 1 ? 2 : 3'))).toThrow(/no word for “if”/))
})

describe('varying questions as items with templates', () => {
  it('most of the demo bank’s can be said', () =>
    expect(varying.filter(({ question }) => canBeTemplate(question)).length).toBeGreaterThanOrEqual(8))
  it.each(varying.filter(({ question }) => canBeTemplate(question)).map(({ id, question }) => [id, question] as const))(
    '%s varies alike after a journey through bare QTI',
    (_id, question) => {
      for (const version of ['2.1', '3.0'] as const) {
        const back = journey(question, version)
        expect(back.vary?.variables.map((variable) => variable.name)).toEqual(
          question.vary!.variables.map((variable) => variable.name),
        )
        for (const { values } of sampleInstances(question, 5)) {
          const [own, theirs] = [instanceOf(question, values), instanceOf(back, values)]
          expect(theirs.stem).toContain(own.stem)
          const solution = kindOf(own.kind).solution(own.body)
          expect(scoreAnswer(theirs, {}, solution).fraction).toBe(scoreAnswer(own, {}, solution).fraction)
        }
        // Values that meet one's conditions meet the other's.
        for (const { values } of sampleInstances(back, 5)) expect(() => instanceOf(question, values)).not.toThrow()
      }
    },
  )
  const item = (
    processing: string,
    body = '<p>What is <printedVariable identifier="A"/> + <printedVariable identifier="B" format="%.1f"/>? <textEntryInteraction responseIdentifier="RESPONSE"/></p>',
  ) =>
    readItemTree(
      fromAnyVersion(
        readXml(`<assessmentItem identifier="t" title="T" adaptive="false" timeDependent="false">
    <responseDeclaration identifier="RESPONSE" cardinality="single" baseType="float"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>
    <templateDeclaration identifier="A" cardinality="single" baseType="integer"/><templateDeclaration identifier="B" cardinality="single" baseType="float"/>
    <templateProcessing>${processing}</templateProcessing><itemBody>${body}</itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`),
      ),
    )
  it('an item of somebody else is read: drawn integers, lists, constraints, a computed key', () => {
    const { question, notes } =
      item(`<setTemplateValue identifier="A"><randomInteger min="2" max="20" step="2"/></setTemplateValue>
      <setTemplateValue identifier="B"><random><multiple><baseValue baseType="float">0.5</baseValue><baseValue baseType="float">1.5</baseValue></multiple></random></setTemplateValue>
      <templateConstraint><lt><variable identifier="B"/><variable identifier="A"/></lt></templateConstraint>
      <setCorrectResponse identifier="RESPONSE"><sum><variable identifier="A"/><variable identifier="B"/></sum></setCorrectResponse>`)
    expect(notes).toEqual([])
    expect(question.vary).toEqual({
      conditions: ['B < A'],
      variables: [
        { name: 'A', over: { by: 'range', from: '2', to: '20', step: '2' } },
        { name: 'B', over: { by: 'list', values: ['0.5', '1.5'] } },
      ],
    })
    const instance = instanceOf(question, { A: '4', B: '1.5' })
    expect(instance.stem).toContain('4 + 1.5')
    expect(scoreAnswer(instance, {}, { text: '5.5' }).fraction).toBe('1')
    expect(scoreAnswer(instance, {}, { text: '5' }).fraction).toBe('0')
  })
  it.each([
    [
      '<templateCondition><templateIf><isNull><variable identifier="A"/></isNull></templateIf></templateCondition>',
      /templateCondition.*no like/,
    ],
    [
      '<setTemplateValue identifier="A"><statsOperator name="mean"><variable identifier="B"/></statsOperator></setTemplateValue>',
      /statsOperator mean.*no like/,
    ],
    [
      '<setTemplateValue identifier="A"><randomInteger min="1" max="2"/></setTemplateValue><setTemplateValue identifier="A"><randomInteger min="1" max="2"/></setTemplateValue>',
      /twice/,
    ],
  ])('what has no like here is told', (processing, sentence) => expect(() => item(processing)).toThrow(sentence))
  it.each([
    ['format="%.2f"', null, '4.00'],
    ['format="%6.2f"', null, '4.00'],
    ['format="%i"', null, '4'],
    ['format="%e"', /form of its own/, '4'],
    ['base="2"', /form of its own/, '4'],
  ])('a number is printed as it is in the file, or that is told: %s', (attributes, told, printed) => {
    const { question, notes } = item(
      '<setTemplateValue identifier="A"><randomInteger min="2" max="9"/></setTemplateValue><setCorrectResponse identifier="RESPONSE"><variable identifier="A"/></setCorrectResponse>',
      `<p>What is <printedVariable identifier="A" ${attributes}/>? <textEntryInteraction responseIdentifier="RESPONSE"/></p>`,
    )
    if (told) expect(notes.join()).toMatch(told)
    else expect(notes).toEqual([])
    const { stem, body } = instanceOf(question, { A: '4' })
    expect(stem + (body as { label: string }).label).toContain(printed)
  })
  it('a question whose key stands where QTI has no computation is left to its instance', () => {
    const question = {
      ...sampleQuestion('text', {
        vary: { variables: [{ name: 'a', over: { by: 'list', values: ['x', 'y'] } }], conditions: [] },
      }),
      body: { ...sampleQuestion('text').body, answers: [{ how: 'is', text: '{= a}', credit: 1, comment: '' }] },
    } as Question
    expect(canBeTemplate(question)).toBe(false)
  })
})
