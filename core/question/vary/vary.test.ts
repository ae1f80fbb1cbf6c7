import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { questionRow, sampleContent, sampleEdition, sampleQuestion } from '../../../tests/fixtures/core'
import { seededRandom } from '../../kit/random'
import { markAttempt } from '../../marking'
import { compilePaper, sealPaper } from '../../paper'
import { kindOf, questionFaults, sampleInstances, type Question, type Vary } from '..'
import { compute, ExpressionError, holds, namesIn } from './expression'
import { filled, instanceOf } from './instance'
import { drawValues } from './sample'

const vary: Vary = {
  variables: [
    { name: 'speed', over: { by: 'range', from: '4', to: '6', step: '0.5' } },
    { name: 'hours', over: { by: 'list', values: ['2', '3', '4'] } },
    { name: 'way', over: { by: 'computed', as: 'speed * hours' } },
  ],
  conditions: ['way > 10', 'mod(way, 1) == 0'],
}
const varying = (over: Partial<Question> = {}): Question =>
  ({
    ...sampleQuestion('number'),
    stem: '<p>At {= speed ; 1} knots for {= hours} hours?</p>',
    vary,
    body: {
      ...sampleQuestion('number').body,
      answers: [{ value: '{= way }', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '<p>{= way}</p>' }],
    },
    ...over,
  }) as Question

describe('computations', () => {
  it.each([
    ['0.1 + 0.2', '0.3'],
    ['7 / 12 * 4.2', '2.45'],
    ['round(2.345, 2)', '2.35'],
    ['sin(rad(30))', '0.5'],
    ['sqrt(2)', '1.41421356237'],
    ['max(a, 3)', '3'],
    ['a > 1 ? 10 : 20', '10'],
    ['2^10', '1024'],
    ['-a', '-2'],
  ])('%s is %s', (source, value) => {
    expect(compute(source, { a: '2' })).toBe(value)
  })
  it('writes decimals as asked, half away from zero', () => {
    expect([compute('2.25', {}, 1), compute('-2.25', {}, 1), compute('3', {}, 2)]).toEqual(['2.3', '-2.3', '3.00'])
  })
  it.each([
    'import("fs")',
    'createUnit("x")',
    'a = 3',
    'f(x) = x',
    '[1,2]',
    'a.b',
    '"x".constructor',
    'evaluate("1")',
    'factorial(1e9)',
    '1/0',
    'sqrt(-1)',
    '2 +',
    'b + 1',
    '9^999',
    'a; a',
  ])('refuses %s with a sentence', (source) => {
    expect(() => compute(source, { a: '2' })).toThrow(ExpressionError)
  })
  it('conditions are comparisons', () => {
    expect(holds('a < b and a != 1', { a: '2', b: '3' })).toBe(true)
    expect(holds('wind == "north"', { wind: 'north' }) && holds('wind != "north"', { wind: 'south' })).toBe(true)
    expect(() => holds('a + 1', { a: '2' })).toThrow(/no condition/)
  })
  it('names what it uses', () => expect(namesIn('round(speed * hours, 1) + pi')).toEqual(['speed', 'hours']))
})

it('a variable cannot have a name that means something by itself', () => {
  expect(
    questionFaults(
      varying({
        stem: '<p>{= e} and {= pi}?</p>',
        vary: {
          variables: [{ name: 'e', over: { by: 'list', values: ['2', '3'] } }, ...vary.variables],
          conditions: [],
        },
      }),
    ),
  ).toContainEqual(expect.stringMatching(/“e” has a meaning of its own/))
})

describe('drawing values', () => {
  it('keeps to ranges, lists and conditions; the same seed draws the same', () => {
    fc.assert(
      fc.property(fc.string(), (part) => {
        const values = drawValues(vary, seededRandom('ab', [part]))!
        expect(['4', '4.5', '5', '5.5', '6']).toContain(values.speed)
        expect(['2', '3', '4']).toContain(values.hours)
        expect(Number(values.way)).toBe(Number(values.speed) * Number(values.hours))
        expect(Number(values.way)).toBeGreaterThan(10)
        expect(Number(values.way) % 1).toBe(0)
        expect(drawValues(vary, seededRandom('ab', [part]))).toEqual(values)
      }),
      { numRuns: 60 },
    )
  })
  it('finds the one combination of ten thousand that will do, and says when there is none', () => {
    const wide = (condition: string): Vary => ({
      variables: ['a', 'b'].map((name) => ({ name, over: { by: 'range', from: '1', to: '100', step: '1' } })),
      conditions: [condition],
    })
    expect(drawValues(wide('a * b == 10000'), seededRandom('ab', []))).toEqual({ a: '100', b: '100' })
    expect(drawValues(wide('a * b == 10001'), seededRandom('ab', []))).toBeNull()
  })
})

describe('an instance', () => {
  it('has its values in stem, key and comments', () => {
    const instance = instanceOf(varying(), { speed: '4.5', hours: '4', way: '18' })
    expect(instance.stem).toBe('<p>At 4.5 knots for 4 hours?</p>')
    expect((instance.body as { answers: { value: string; comment: string }[] }).answers[0]).toMatchObject({
      value: '18',
      comment: '<p>18</p>',
    })
  })
  it('writes numbers as people read them and words as text', () => {
    expect(filled('{= a} {= b} {= c}', { a: '-1.5', b: '<b>', c: '2' }, true, true)).toBe('−1,5 &lt;b&gt; 2')
  })
  it('a paper keeps its values: it is shown, marked and reviewed with them', () => {
    const edition = sampleEdition(sampleContent([questionRow('q')]), { q: varying() })
    const papers = ['a', 'b', 'c', 'd', 'e', 'f'].map((student) => compilePaper(edition, student, 1, []))
    for (const paper of papers) {
      const { values } = paper.items[0]!
      const sheet = JSON.stringify(sealPaper(paper, edition))
      expect(sheet).toContain(`for ${values!.hours} hours`)
      expect(sheet).not.toContain(`"${values!.way}"`)
      expect(markAttempt(edition, paper, { [paper.items[0]!.id]: { text: values!.way } }).score).toBe('1')
    }
    expect(new Set(papers.map((paper) => paper.items[0]!.values!.way)).size).toBeGreaterThan(1)
  })
})

describe('faults of a varying question are found before it is kept', () => {
  const faults = (over: Partial<Question>) => questionFaults(varying(over)).join(' ')
  it('a sound one has none', () => expect(questionFaults(varying())).toEqual([]))
  it('no values meet the conditions', () =>
    expect(faults({ vary: { ...vary, conditions: ['way > 99'] } })).toMatch(/No values meet/))
  it('two options become equal', () => {
    const choice = sampleQuestion('choice')
    const options = (choice.body as { options: object[] }).options.map((option, i) => ({
      ...option,
      html: ['{= hours}', '{= hours * 1}', 'x', 'y'][i],
    }))
    expect(faults({ kind: 'choice', body: { ...choice.body, options } } as Partial<Question>)).toMatch(
      /With speed = .*Two options say the same/,
    )
  })
  it('a key that is not finite', () =>
    expect(
      faults({
        body: {
          ...varying().body,
          answers: [{ value: '{= 1 / (hours - 3)}', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' }],
        },
      } as Partial<Question>),
    ).toMatch(/gives no finite number/))
  it('names that are not there, twice there, or come too late', () => {
    expect(faults({ stem: '<p>{= knots}</p>' })).toMatch(/“knots” is not one of the variables/)
    expect(faults({ vary: { variables: [vary.variables[0]!, vary.variables[0]!], conditions: [] } })).toMatch(
      /two variables/,
    )
    expect(
      faults({ vary: { variables: [vary.variables[2]!, ...vary.variables.slice(0, 2)], conditions: [] } }),
    ).toMatch(/does not stand above it/)
    expect(faults({ vary: null })).toMatch(/has no variables/)
  })
  it('ten instances can be looked at', () => {
    const samples = sampleInstances(varying(), 10)
    expect(samples).toHaveLength(10)
    for (const { values, question } of samples) expect(kindOf('number').keyText(question.body)).toContain(values.way)
  })
})

describe('rare values', () => {
  /** One in 2,000 of four million combinations meets the condition: chance alone often finds none. */
  const rare: Vary = {
    variables: ['a', 'b'].map((name) => ({ name, over: { by: 'range', from: '1', to: '2000', step: '1' } })),
    conditions: ['a == b'],
  }
  it('what was found before a question was kept is found for every student', () => {
    const question = varying({
      vary: rare,
      stem: '<p>{= a} and {= b}</p>',
      body: {
        ...sampleQuestion('number').body,
        answers: [{ value: '{= a }', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' }],
      },
    } as Partial<Question>)
    expect(questionFaults(question)).toEqual([])
    const edition = sampleEdition(sampleContent([questionRow('q')]), { q: question })
    for (let student = 0; student < 40; student++) {
      const { values } = compilePaper(edition, `student ${student}`, 1, []).items[0]!
      expect(values!.a).toBe(values!.b)
    }
  })
  it('values of which the question cannot be made are passed over', () => {
    const seldom: Vary = {
      variables: [{ name: 'a', over: { by: 'range', from: '0', to: '200', step: '1' } }],
      conditions: ['1 / a < 2'],
    }
    const question = varying({
      vary: seldom,
      stem: '<p>1/(100 − {= a})</p>',
      body: {
        ...sampleQuestion('number').body,
        answers: [{ value: '{= 1 / (100 - a) ; 6}', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' }],
      },
    } as Partial<Question>)
    const edition = sampleEdition(sampleContent([questionRow('q')]), { q: question })
    for (let student = 0; student < 600; student++) {
      const { values } = compilePaper(edition, `student ${student}`, 1, []).items[0]!
      expect(['0', '100']).not.toContain(values!.a)
    }
  })
})
