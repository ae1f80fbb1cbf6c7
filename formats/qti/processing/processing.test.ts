/**
 * The operators, templates and rules of response processing as tables of cases: 1EdTech QTI 2.1, Assessment Test, Section and Item
 * Information Model, §11 (templates) and §15 (expressions); 2.2 and 3.0 spell them otherwise. The cases are worked by hand from
 * the definitions there, from memory.
 */
import { describe, expect, it } from 'vitest'
import {
  add,
  base,
  correct,
  correctly,
  declare,
  itemXml,
  mapping,
  matches,
  outcome,
  rules,
  score,
  set,
  template,
  variable,
  when,
} from '../../../tests/support/qti'
import { readXml } from '../../xml'
import { NotProven, processingOf, type Responses } from '.'

const run = (xml: string, responses: Responses = {}) => processingOf(readXml(xml))(responses)
const scoreIn = (xml: string, responses: Responses = {}) => {
  const found = run(xml, responses).score
  return found === null ? null : found.valueOf()
}
/** What an expression comes to: a number, a truth as 1 or 0, or null. @param responses by name, with their declarations */
const value = (
  expression: string,
  responses: Record<string, [cardinality: string, type: string, ...values: string[]]> = {},
) => {
  const declared = Object.entries(responses)
    .map(([name, [cardinality, type]]) => declare(cardinality, type, '', name))
    .join('')
  const given = Object.fromEntries(Object.entries(responses).map(([name, [, , ...values]]) => [name, values]))
  const asTruth = rules(when([`<isNull>${expression}</isNull>`, score(-99)], [expression, score(1)], [score(0)]))
  const asNumber = rules(set(expression))
  try {
    return scoreIn(itemXml(declared, '', asNumber), given)
  } catch {
    const found = scoreIn(itemXml(declared, '', asTruth), given)
    return found === -99 ? null : found
  }
}
const n = (text: number | string) => base('float', text)
const s = (text: string) => base('string', text)
const id = (text: string) => base('identifier', text)
const t = '<match><baseValue baseType="integer">1</baseValue><baseValue baseType="integer">1</baseValue></match>'
const f = '<match><baseValue baseType="integer">1</baseValue><baseValue baseType="integer">2</baseValue></match>'
const none = '<null/>'
const op = (name: string, of: string[], attributes = '') =>
  `<${name}${attributes ? ` ${attributes}` : ''}>${of.join('')}</${name}>`

describe('numbers', () => {
  it.each<[string, string[], number | null, string?]>([
    ['sum', [n(1), n(2.5), n(-0.5)], 3],
    ['sum', [n(0.1), n(0.2)], 0.3],
    ['sum', [n(1), none], null],
    ['product', [n(2), n(-3)], -6],
    ['subtract', [n(5), n(7)], -2],
    ['divide', [n(7), n(2)], 3.5],
    ['divide', [n(7), n(0)], null],
    ['power', [n(2), n(10)], 1024],
    ['power', [n(2), n(-1)], 0.5],
    ['power', [n(2), n(0.5)], Math.SQRT2],
    ['integerDivide', [n(-7), n(2)], -4],
    ['integerModulus', [n(-7), n(2)], 1],
    ['integerDivide', [n(7), n(0)], null],
    ['truncate', [n(6.8)], 6],
    ['truncate', [n(-6.8)], -6],
    ['round', [n(6.5)], 7],
    ['round', [n(-6.5)], -6],
    ['round', [n(-6.51)], -7],
    ['roundTo', [n(1239451)], 1240000, 'roundingMode="significantFigures" figures="3"'],
    ['roundTo', [n(0.0013525)], 0.00135, 'roundingMode="significantFigures" figures="3"'],
    ['roundTo', [n(2.675)], 2.68, 'roundingMode="decimalPlaces" figures="2"'],
    ['roundTo', [n(-2.675)], -2.68, 'roundingMode="decimalPlaces" figures="2"'],
    ['min', [n(3), n(-1), n(2)], -1],
    ['max', [n(3), n(-1), n(2)], 3],
    ['gcd', [n(12), n(18), n(30)], 6],
    ['lcm', [n(4), n(6)], 12],
    ['lcm', [n(4), n(0)], 0],
    ['mathOperator', [n(100)], 2, 'name="log"'],
    ['mathOperator', [n(-1)], null, 'name="ln"'],
    ['mathOperator', [n(-2.5)], 3 - 0.5, 'name="abs"'],
    ['mathOperator', [n(-2.5)], -3, 'name="floor"'],
    ['mathOperator', [n(-2.5)], -1, 'name="signum"'],
    ['mathOperator', [n(180)], Math.PI, 'name="toRadians"'],
    ['divide', [op('mathOperator', [n(100)], 'name="exp"'), n('2.6881171418161356e43')], 1],
    ['product', [op('mathOperator', [n(-50)], 'name="exp"'), n('5.184705528587072e21')], 1],
    ['statsOperator', [op('multiple', [n(2), n(4), n(4), n(4), n(5), n(5), n(7), n(9)])], 2, 'name="popSD"'],
    ['statsOperator', [op('multiple', [n(2), n(4), n(4), n(4), n(5), n(5), n(7), n(9)])], 5, 'name="mean"'],
    ['statsOperator', [op('multiple', [n(1), n(3)])], 2, 'name="sampleVariance"'],
    ['statsOperator', [op('multiple', [n(1)])], null, 'name="sampleSD"'],
  ])('%s %j is %s', (name, of, expected, attributes = '') => {
    const found = value(op(name, of, attributes))
    if (expected === null) expect(found).toBeNull()
    else expect(found).toBeCloseTo(expected, 9)
  })
})

describe('logic with NULL', () => {
  it.each<[string, string[], number | null, string?]>([
    ['and', [t, t], 1],
    ['and', [t, f], 0],
    ['and', [t, none], null],
    ['and', [f, none], 0],
    ['or', [f, none], null],
    ['or', [t, none], 1],
    ['or', [f, f], 0],
    ['not', [t], 0],
    ['not', [none], null],
    ['isNull', [none], 1],
    ['isNull', [s('')], 1],
    ['isNull', [t], 0],
    ['anyN', [t, t, f], 1, 'min="2" max="2"'],
    ['anyN', [t, none, f], null, 'min="2" max="2"'],
    ['anyN', [t, none, f], 1, 'min="1" max="2"'],
    ['anyN', [f, none, f], 0, 'min="2" max="3"'],
  ])('%s %j is %s', (name, of, expected, attributes = '') => expect(value(op(name, of, attributes))).toBe(expected))
})

describe('comparisons', () => {
  it.each<[string, string[], number | null, string?]>([
    ['equal', [n(0.3), op('sum', [n(0.1), n(0.2)])], 1, 'toleranceMode="exact"'],
    ['equal', [n(10), n(12)], 1, 'toleranceMode="absolute" tolerance="0.5 2"'],
    ['equal', [n(10), n(9.4)], 0, 'toleranceMode="absolute" tolerance="0.5 2"'],
    ['equal', [n(10), n(12)], 0, 'toleranceMode="absolute" tolerance="0.5 2" includeUpperBound="false"'],
    ['equal', [n(10), n(9.5)], 0, 'toleranceMode="absolute" tolerance="0.5" includeLowerBound="false"'],
    ['equal', [n(200), n(190)], 1, 'toleranceMode="relative" tolerance="5"'],
    ['equal', [n(190), n(200)], 0, 'toleranceMode="relative" tolerance="5"'],
    ['equal', [n(1), none], null, 'toleranceMode="exact"'],
    ['equalRounded', [n(3.175), n(3.183)], 1, 'roundingMode="significantFigures" figures="3"'],
    ['equalRounded', [n(3.175), n(3.1749)], 0, 'roundingMode="significantFigures" figures="3"'],
    ['equalRounded', [n(1.68572), n(1.69)], 1, 'roundingMode="decimalPlaces" figures="2"'],
    ['lt', [n(1), n(2)], 1],
    ['lt', [n(2), n(2)], 0],
    ['lte', [n(2), n(2)], 1],
    ['gt', [n(3), n(2)], 1],
    ['gte', [n(2), n(3)], 0],
    ['stringMatch', [s('York'), s('york')], 0, 'caseSensitive="true"'],
    ['stringMatch', [s('York'), s('york')], 1, 'caseSensitive="false"'],
    ['stringMatch', [s('New York'), s('york')], 1, 'caseSensitive="false" substring="true"'],
    ['substring', [s('ork'), s('York')], 1, 'caseSensitive="true"'],
    ['substring', [s('ORK'), s('York')], 0, 'caseSensitive="true"'],
    ['patternMatch', [s('colour')], 1, 'pattern="colou?r"'],
    ['patternMatch', [s('colours')], 0, 'pattern="colou?r"'],
    ['patternMatch', [s('a.b')], 1, 'pattern="a\\.b"'],
    ['match', [op('ordered', [id('A'), id('B')]), op('ordered', [id('B'), id('A')])], 0],
    ['match', [op('multiple', [id('A'), id('B')]), op('multiple', [id('B'), id('A')])], 1],
    ['match', [op('multiple', [id('A'), id('A')]), op('multiple', [id('A')])], 0],
    ['match', [base('pair', 'A B'), base('pair', 'B A')], 1],
    ['match', [base('directedPair', 'A B'), base('directedPair', 'B A')], 0],
  ])('%s %j is %s', (name, of, expected, attributes = '') => expect(value(op(name, of, attributes))).toBe(expected))
})

describe('containers', () => {
  const held = op('ordered', [id('A'), id('B'), id('C')])
  it.each<[string, string[], number | null, string?]>([
    ['containerSize', [held], 3],
    ['containerSize', [none], 0],
    ['member', [id('B'), held], 1],
    ['member', [id('D'), held], 0],
    ['member', [none, held], null],
    ['contains', [held, op('ordered', [id('B'), id('C')])], 1],
    ['contains', [held, op('ordered', [id('A'), id('C')])], 0],
    ['contains', [op('multiple', [id('A'), id('B')]), op('multiple', [id('A'), id('A')])], 0],
    ['containerSize', [op('delete', [id('A'), op('multiple', [id('A'), id('B'), id('A')])])], 1],
    ['match', [op('index', [held], 'n="2"'), id('B')], 1],
    ['isNull', [op('index', [held], 'n="4"')], 1],
    ['containerSize', [op('repeat', [id('A'), id('B')], 'numberRepeats="3"')], 6],
    ['containerSize', [op('multiple', [id('A'), none, id('B')])], 2],
  ])('%s %j is %s', (name, of, expected, attributes = '') => expect(value(op(name, of, attributes))).toBe(expected))
})

describe('areas', () => {
  it.each<[string, string, string, number]>([
    ['circle', '100,100,10', '110 100', 1],
    ['circle', '100,100,10', '111 100', 0],
    ['rect', '10,10,20,20', '20 10', 1],
    ['rect', '10,10,20,20', '21 10', 0],
    ['ellipse', '50,50,20,10', '70 50', 1],
    ['ellipse', '50,50,20,10', '50 61', 0],
    ['poly', '0,0,10,0,10,10,0,10', '10 5', 1],
    ['poly', '0,0,10,0,10,10', '2 8', 0],
    ['default', '', '999 999', 1],
  ])('%s %s and the point %s: %d', (shape, coords, at, expected) =>
    expect(
      value(`<inside shape="${shape}" coords="${coords}">${variable('P')}</inside>`, { P: ['single', 'point', at] }),
    ).toBe(expected),
  )
})

describe('mapping', () => {
  const mapped = (entries: Record<string, number>, bounds: string, cardinality = 'multiple') =>
    itemXml(declare(cardinality, 'identifier', mapping(entries, bounds)), '', template('map_response'))
  it.each<[string[], number]>([
    [['A', 'B'], 2],
    [['A', 'C'], 0],
    [['C'], 0],
    [['A', 'A'], 1],
    [['A', 'D'], 0.5],
    [[], 0],
  ])('of %j with bounds 0 and 2 is %d', (chosen, expected) =>
    expect(
      scoreIn(mapped({ A: 1, B: 1, C: -1 }, 'lowerBound="0" upperBound="2" defaultValue="-0.5"'), { RESPONSE: chosen }),
    ).toBe(expected),
  )
  it('capitals matter unless the entry says otherwise', () => {
    const xml = itemXml(
      declare(
        'single',
        'string',
        '<mapping defaultValue="0"><mapEntry mapKey="York" mappedValue="1"/><mapEntry mapKey="ebb" mappedValue="2" caseSensitive="false"/></mapping>',
      ),
      '',
      template('map_response'),
    )
    expect(['York', 'york', 'EBB'].map((text) => scoreIn(xml, { RESPONSE: [text] }))).toEqual([1, 0, 2])
  })
  it('a point goes to the first area that holds it, and each area counts once', () => {
    const areas =
      '<areaMapping defaultValue="-1"><areaMapEntry shape="circle" coords="50,50,5" mappedValue="3"/><areaMapEntry shape="circle" coords="50,50,20" mappedValue="1"/></areaMapping>'
    const xml = itemXml(declare('multiple', 'point', areas), '', template('map_response_point'))
    const at = (...points: string[]) => scoreIn(xml, { RESPONSE: points })
    expect([at('50 50'), at('60 50'), at('50 50', '51 50'), at('50 50', '60 50'), at('90 90'), at()]).toEqual([
      3, 1, 3, 4, -1, 0,
    ])
  })
})

describe('rules', () => {
  it('the first branch that holds, or the one that needs no condition; NULL holds nothing', () => {
    const xml = itemXml(
      declare('single', 'integer', correct('4')),
      '',
      rules(
        when(
          [`<equal toleranceMode="exact">${variable()}${correctly()}</equal>`, score(2)],
          [`<gt>${variable()}${n(4)}</gt>`, score(1)],
          [score(-1)],
        ),
      ),
    )
    expect([['4'], ['5'], ['3'], []].map((given) => scoreIn(xml, { RESPONSE: given }))).toEqual([2, 1, -1, -1])
  })
  it('processing ends where it says so', () => {
    const xml = itemXml(
      declare('single', 'identifier', correct('A')),
      '',
      rules(when([`<isNull>${variable()}</isNull>`, '<exitResponse/>']), add(n(1)), when([matches(), add(n(2))])),
    )
    expect([['A'], ['B'], []].map((given) => scoreIn(xml, { RESPONSE: given }))).toEqual([3, 1, 0])
  })
  it('tables give a value for a number', () => {
    const table = (inner: string) =>
      itemXml(
        `${declare('single', 'integer')}<outcomeDeclaration identifier="GRADE" cardinality="single" baseType="float">${inner}</outcomeDeclaration>`,
        '',
        rules(`<lookupOutcomeValue identifier="GRADE">${variable()}</lookupOutcomeValue>`, set(variable('GRADE'))),
      )
    const matchTable = table(
      '<matchTable defaultValue="0"><matchTableEntry sourceValue="1" targetValue="10"/></matchTable>',
    )
    const steps = table(
      '<interpolationTable defaultValue="0"><interpolationTableEntry sourceValue="8" targetValue="2"/><interpolationTableEntry sourceValue="5" includeBoundary="false" targetValue="1"/></interpolationTable>',
    )
    expect(['1', '2'].map((given) => scoreIn(matchTable, { RESPONSE: [given] }))).toEqual([10, 0])
    expect(['9', '8', '6', '5'].map((given) => scoreIn(steps, { RESPONSE: [given] }))).toEqual([2, 2, 1, 0])
  })
  it('templates of a paper: what is drawn is given, the rest is computed', () => {
    const xml = itemXml(
      `${declare('single', 'integer')}<templateDeclaration identifier="A" cardinality="single" baseType="integer"/><templateDeclaration identifier="B" cardinality="single" baseType="integer"/>`,
      '',
      template('match_correct'),
    ).replace(
      '<itemBody>',
      `<templateProcessing><setTemplateValue identifier="A"><randomInteger min="1" max="9"/></setTemplateValue><setTemplateValue identifier="B"><product>${variable('A')}${base('integer', 2)}</product></setTemplateValue><setCorrectResponse identifier="RESPONSE">${variable('B')}</setCorrectResponse></templateProcessing><itemBody>`,
    )
    const of = (given: string) =>
      processingOf(readXml(xml))(
        { RESPONSE: [given] },
        new Map([
          ['A', '4'],
          ['B', '1'],
        ]),
      ).score?.valueOf()
    expect([of('8'), of('1')]).toEqual([1, 0])
  })
  it.each([
    [
      'an operator of somebody’s own',
      rules(set(`<customOperator class="x.y">${variable()}</customOperator>`)),
      /customOperator x.y/,
    ],
    ['chance', rules(set('<randomInteger min="1" max="2"/>')), /by chance/],
    [
      'a template of somebody’s own',
      '<responseProcessing template="http://example.org/mine.xml"/>',
      /template of its own/,
    ],
    ['a variable that is not declared', rules(set(variable('NOBODY'))), /not declared/],
    ['no processing', '', /nothing of how/],
    ['names of another language', rules('<constructor/>'), /not known here/],
  ])('%s is not proven, never guessed', (_name, processing, sentence) => {
    expect(() =>
      scoreIn(itemXml(declare('single', 'identifier', correct('A')), '', processing), { RESPONSE: ['A'] }),
    ).toThrow(NotProven)
    expect(() =>
      scoreIn(itemXml(declare('single', 'identifier', correct('A')), '', processing), { RESPONSE: ['A'] }),
    ).toThrow(sentence)
  })
  it('feedback is what its outcome holds', () => {
    const xml = itemXml(
      `${declare('single', 'identifier', correct('A'))}${outcome('FEEDBACK', 'multiple', 'identifier')}`,
      '',
      rules(
        set(op('multiple', [variable('FEEDBACK'), variable()]), 'FEEDBACK'),
        when([matches(), set(op('multiple', [variable('FEEDBACK'), id('yes')]), 'FEEDBACK')]),
      ),
    )
    expect([...run(xml, { RESPONSE: ['A'] }).named('FEEDBACK')]).toEqual(['A', 'yes'])
  })
})
