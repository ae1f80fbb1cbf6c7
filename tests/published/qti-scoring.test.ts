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
const withBody = (question: Question, body: object) => ({ ...question, body: { ...question.body, ...body } }) as Question
const fraction = (question: Question, ...chosen: string[]) => scoreAnswer(question, {}, { chosen }).fraction

describe('match_correct (QTI response-processing template)', () => {
  const item = sampleQuestion('choice')
  it('gives 1 when the response matches the correct response, else 0', () => {
    expect([fraction(item, 'b'), fraction(item, 'a')]).toEqual(['1', '0'])
  })
  it('compares containers of cardinality multiple without regard to order (QTI `match`)', () => {
    const all = withBody(sampleQuestion('choices'), { rule: 'all' })
    expect([fraction(all, 'a', 'b'), fraction(all, 'b', 'a'), fraction(all, 'a'), fraction(all, 'a', 'b', 'c')]).toEqual(['1', '1', '0', '0'])
  })
})

describe('map_response (QTI `mapResponse`, `mapping` with lowerBound, upperBound, defaultValue)', () => {
  // After the guide's "composition of water" example, from memory: hydrogen +1, oxygen +1, chlorine −1, lower bound 0, upper bound 2.
  const option = (id: string, credit: number) => ({ id, html: id, comment: '', fixed: false, right: credit > 0, credit })
  const water = withBody(sampleQuestion('choices'), { rule: 'credits', lower: 0, upper: 2, options: [option('H', 1), option('O', 1), option('Cl', -1), option('He', 0)] })
  it('sums the mapped values of the options chosen', () => {
    // Over the greatest sum, 2, since Thistle keeps a fraction of the points.
    expect([fraction(water, 'H'), fraction(water, 'H', 'O'), fraction(water, 'H', 'O', 'Cl')]).toEqual(['1/2', '1', '1/2'])
  })
  it('is bounded below and above', () => {
    expect(fraction(water, 'Cl')).toBe('0')
    const low = withBody(water, { lower: -1 })
    expect(fraction(low, 'Cl')).toBe('-1/2')
    const capped = withBody(water, { upper: 1 })
    expect([fraction(capped, 'H'), fraction(capped, 'H', 'O')]).toEqual(['1', '1'])
  })
  it('single cardinality takes the mapped value of the one option', () => {
    const partial = withBody(sampleQuestion('choice'), { options: [['a', 1], ['b', 0.5], ['c', -0.25]].map(([id, credit]) => ({ ...option(String(id), Number(credit)), right: undefined })) })
    expect(['a', 'b', 'c'].map((id) => fraction(partial, id))).toEqual(['1', '1/2', '-1/4'])
  })
})

describe('equal (QTI: toleranceMode absolute and relative, bounds inclusive by default)', () => {
  const near = (value: string, key: string, mode: 'absolute' | 'relative', tolerance: string) => isNear(exact(value), exact(key), { by: mode, tolerance })
  it.each([['3.1', '3', '0.1', true], ['2.9', '3', '0.1', true], ['3.11', '3', '0.1', false], ['0.3', '0.2', '0.1', true]])('absolute: %s against %s ± %s', (value, key, tolerance, expected) => {
    expect(near(value, key, 'absolute', tolerance)).toBe(expected)
  })
  // The information model: y within x·(1 − t0/100) and x·(1 + t1/100).
  it.each([['102', '100', '0.02', true], ['98', '100', '0.02', true], ['102.01', '100', '0.02', false], ['-102', '-100', '0.02', true], ['0', '0', '0.5', true]])('relative: %s against %s', (value, key, tolerance, expected) => {
    expect(near(value, key, 'relative', tolerance)).toBe(expected)
  })
})

describe('equalRounded (QTI: roundingMode significantFigures and decimalPlaces)', () => {
  // Information model, 2.2, equalRounded, from memory: 1.56 rounds to 1.6 to two figures; 1.56 and 1.6 are then equal, 1.51 and 1.6 are not.
  it.each([['1.56', '1.6', 2, true], ['1.51', '1.6', 2, false], ['185.2', '185', 3, true], ['0.00123', '0.001234', 3, true]])('%s and %s to %i figures', (value, key, digits, expected) => {
    expect(isNear(exact(value), exact(key), { by: 'figures', digits })).toBe(expected)
  })
  it.each([['1.56', '1.6', 1, true], ['1.54', '1.6', 1, false], ['2.005', '2.01', 2, true], ['-0.45', '-0.5', 1, true]])('%s and %s to %i decimals', (value, key, digits, expected) => {
    expect(isNear(exact(value), exact(key), { by: 'decimals', digits })).toBe(expected)
  })
})
