/**
 * Scoring against the response-processing semantics of IMS/1EdTech QTI 2.2 (Information Model and Implementation Guide;
 * unchanged in QTI 3.0): match_correct, map_response, `equal`, `equalRounded`. The items are rebuilt by hand from memory
 * of the standard, and say so where they stand.
 */
import { describe, expect, it } from 'vitest'
import { exact } from '../../core/kit/exact'
import { scoreAnswer } from '../../core/question'
import { isNear } from '../../core/question/kinds/number'
import { sampleQuestion } from '../fixtures/core'

type Question = ReturnType<typeof sampleQuestion>
const withBody = (question: Question, body: object) =>
  ({ ...question, body: { ...question.body, ...body } }) as Question
const fraction = (question: Question, ...chosen: string[]) => scoreAnswer(question, {}, { chosen }).fraction

describe('match_correct (QTI response-processing template)', () => {
  const item = sampleQuestion('choice')
  it('gives 1 when the response matches the correct response, else 0', () => {
    expect([fraction(item, 'b'), fraction(item, 'a')]).toEqual(['1', '0'])
  })
  it('compares containers of cardinality multiple without regard to order (QTI `match`)', () => {
    const all = withBody(sampleQuestion('choices'), { rule: 'all' })
    expect([
      fraction(all, 'a', 'b'),
      fraction(all, 'b', 'a'),
      fraction(all, 'a'),
      fraction(all, 'a', 'b', 'c'),
    ]).toEqual(['1', '1', '0', '0'])
  })
})

describe('map_response (QTI `mapResponse`, `mapping` with lowerBound, upperBound, defaultValue)', () => {
  // After the guide's "composition of water" example, from memory: hydrogen +1, oxygen +1, chlorine −1, lower bound 0, upper bound 2.
  const option = (id: string, credit: number) => ({
    id,
    html: id,
    comment: '',
    fixed: false,
    right: credit > 0,
    credit,
  })
  const water = withBody(sampleQuestion('choices'), {
    rule: 'credits',
    lower: 0,
    upper: 2,
    options: [option('H', 1), option('O', 1), option('Cl', -1), option('He', 0)],
  })
  it('sums the mapped values of the options chosen', () => {
    // Over the greatest sum, 2, since Thistle keeps a fraction of the points.
    expect([fraction(water, 'H'), fraction(water, 'H', 'O'), fraction(water, 'H', 'O', 'Cl')]).toEqual([
      '1/2',
      '1',
      '1/2',
    ])
  })
  it('is bounded below and above', () => {
    expect(fraction(water, 'Cl')).toBe('0')
    const low = withBody(water, { lower: -1 })
    expect(fraction(low, 'Cl')).toBe('-1/2')
    const capped = withBody(water, { upper: 1 })
    expect([fraction(capped, 'H'), fraction(capped, 'H', 'O')]).toEqual(['1', '1'])
  })
  it('single cardinality takes the mapped value of the one option', () => {
    const partial = withBody(sampleQuestion('choice'), {
      options: [
        ['a', 1],
        ['b', 0.5],
        ['c', -0.25],
      ].map(([id, credit]) => ({ ...option(String(id), Number(credit)), right: undefined })),
    })
    expect(['a', 'b', 'c'].map((id) => fraction(partial, id))).toEqual(['1', '1/2', '-1/4'])
  })
})

describe('equal (QTI: toleranceMode absolute and relative, bounds inclusive by default)', () => {
  const near = (value: string, key: string, mode: 'absolute' | 'relative', tolerance: string) =>
    isNear(exact(value), exact(key), { by: mode, tolerance })
  it.each([
    ['3.1', '3', '0.1', true],
    ['2.9', '3', '0.1', true],
    ['3.11', '3', '0.1', false],
    ['0.3', '0.2', '0.1', true],
  ])('absolute: %s against %s ± %s', (value, key, tolerance, expected) => {
    expect(near(value, key, 'absolute', tolerance)).toBe(expected)
  })
  // The information model: y within x·(1 − t0/100) and x·(1 + t1/100).
  it.each([
    ['102', '100', '0.02', true],
    ['98', '100', '0.02', true],
    ['102.01', '100', '0.02', false],
    ['-102', '-100', '0.02', true],
    ['0', '0', '0.5', true],
  ])('relative: %s against %s', (value, key, tolerance, expected) => {
    expect(near(value, key, 'relative', tolerance)).toBe(expected)
  })
})

describe('equalRounded (QTI: roundingMode significantFigures and decimalPlaces)', () => {
  // Information model, 2.2, equalRounded, from memory: 1.56 rounds to 1.6 to two figures; 1.56 and 1.6 are then equal, 1.51 and 1.6 are not.
  it.each([
    ['1.56', '1.6', 2, true],
    ['1.51', '1.6', 2, false],
    ['185.2', '185', 3, true],
    ['0.00123', '0.001234', 3, true],
  ])('%s and %s to %i figures', (value, key, digits, expected) => {
    expect(isNear(exact(value), exact(key), { by: 'figures', digits })).toBe(expected)
  })
  it.each([
    ['1.56', '1.6', 1, true],
    ['1.54', '1.6', 1, false],
    ['2.005', '2.01', 2, true],
    ['-0.45', '-0.5', 1, true],
  ])('%s and %s to %i decimals', (value, key, digits, expected) => {
    expect(isNear(exact(value), exact(key), { by: 'decimals', digits })).toBe(expected)
  })
})

/* The kinds below follow example items of the QTI 2.2 implementation guide, rebuilt by hand from memory of the standard, with other names. */
describe('matchInteraction with map_response: each pair of the mapping once', () => {
  // Four characters, three plays, 0.5 for each right pair, upper bound the sum.
  const items = [
    ['c1', 'p2'],
    ['c2', 'p1'],
    ['c3', 'p3'],
    ['c4', 'p1'],
  ] as const
  const plays = withBody(sampleQuestion('sorting'), {
    wrongCost: 0,
    items: items.map(([id, target]) => ({ id, html: id, comment: '', target })),
    targets: ['p1', 'p2', 'p3'].map((id) => ({ id, html: id })),
  })
  const mapped = (pairs: Record<string, string>) =>
    exact(scoreAnswer(plays, {}, { pairs }).fraction!)
      .mul(2)
      .valueOf()
  it('adds the mapped values of the pairs chosen', () => {
    expect([
      mapped({ c1: 'p2', c2: 'p1', c3: 'p3', c4: 'p1' }),
      mapped({ c1: 'p2' }),
      mapped({ c1: 'p1', c2: 'p1' }),
      mapped({ c1: 'p3' }),
    ]).toEqual([2, 0.5, 0.5, 0])
  })
})

describe('gapMatchInteraction and inline textEntryInteraction', () => {
  it('a text with gaps adds the mapped value of each gap', () => {
    // Two gaps at a value of 1 each, as in the guide's item with "winter" and "summer", from memory.
    const gap = (id: string, text: string) => ({
      id,
      weight: 1,
      as: 'text',
      body: { ...(sampleQuestion('text').body as object), answers: [{ how: 'is', text, credit: 1, comment: '' }] },
    })
    const item = withBody(sampleQuestion('gaps'), {
      text: '<p>Now is the <span data-gap="g1"></span> of our discontent made glorious <span data-gap="g2"></span></p>',
      gaps: [gap('g1', 'winter'), gap('g2', 'summer')],
    })
    const score = (g1: string, g2: string) =>
      exact(scoreAnswer(item, {}, { gaps: { g1, g2 } }).fraction!)
        .mul(2)
        .valueOf()
    expect([
      score('winter', 'summer'),
      score('summer', 'winter'),
      score('winter', 'autumn'),
      score('', 'Summer'),
    ]).toEqual([2, 0, 1, 1])
  })
})

describe('orderInteraction with match_correct (cardinality ordered)', () => {
  // A race of three drivers, from memory: only the whole order is right.
  const race = withBody(sampleQuestion('ordering'), {
    rule: 'exact',
    items: ['C', 'A', 'B'].map((id) => ({ id, html: id, comment: '' })),
  })
  it('compares ordered containers member by member', () => {
    expect(['CAB', 'ABC', 'CBA'].map((order) => scoreAnswer(race, {}, { order: [...order] }).fraction)).toEqual([
      '1',
      '0',
      '0',
    ])
  })
})

describe('selectPointInteraction with map_response_point', () => {
  /** "If the area contains a point, its mapped value is added once, however many points it contains" (areaMapping). */
  const circle = (id: string, x: number, y: number) => ({
    id,
    shape: { is: 'circle', x, y, r: 8 },
    right: true,
    label: id,
    comment: '',
  })
  const airports = withBody(sampleQuestion('spot'), {
    spots: 3,
    regions: [circle('a', 118, 184), circle('b', 150, 235), circle('c', 96, 114)],
  })
  const score = (...points: [number, number][]) =>
    exact(scoreAnswer(airports, {}, { points: points.map(([x, y]) => ({ x, y })) }).fraction!)
      .mul(3)
      .valueOf()
  it('adds each area once; the border belongs to it', () => {
    expect([
      score([118, 184], [150, 235], [96, 114]),
      score([118, 184], [118, 185], [118, 186]),
      score([126, 184]),
      score([126.1, 184]),
    ]).toEqual([3, 1, 1, 0])
  })
  it('reads rectangles and polygons as the HTML image-map shapes rect and poly that QTI names', () => {
    const shapes = withBody(sampleQuestion('spot'), {
      spots: 2,
      regions: [
        {
          id: 'r',
          shape: { is: 'rectangle', x: 10, y: 20, width: 30, height: 40 },
          right: true,
          label: '',
          comment: '',
        },
        {
          id: 'p',
          shape: {
            is: 'polygon',
            points: [
              { x: 100, y: 100 },
              { x: 140, y: 100 },
              { x: 100, y: 140 },
            ],
          },
          right: true,
          label: '',
          comment: '',
        },
      ],
    })
    const share = (x: number, y: number) => scoreAnswer(shapes, {}, { points: [{ x, y }] }).fraction
    expect([share(10, 20), share(40, 60), share(41, 60), share(120, 120), share(121, 120)]).toEqual([
      '1/2',
      '1/2',
      '0',
      '1/2',
      '0',
    ])
  })
})

describe('patternMatch', () => {
  /** "Regular expressions as in XML Schema part 2, appendix F": anchored at both ends. */
  const matching = (pattern: string) => (given: string) =>
    scoreAnswer(
      withBody(sampleQuestion('text'), {
        caseMatters: true,
        answers: [{ how: 'matches', text: pattern, credit: 1, comment: '' }],
      }),
      {},
      { text: given },
    ).fraction
  it('fits the whole string', () =>
    expect(['a1', 'xa1', 'a1x', 'a12'].map(matching('[a-c]\\d{1,2}'))).toEqual(['1', '0', '0', '1']))
})
