import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../../tests/fixtures/core'
import { exact } from '../../kit/exact'
import { shuffled, seededRandom } from '../../kit/random'
import {
  commentsFor,
  kindNames,
  kindOf,
  questionFaults,
  scoreAnswer,
  unreadable,
  type KindName,
  type Question,
} from '..'
import { placedAsWritten } from './kind'
import { longestInOrder } from './ordering'

const withBody = (kind: KindName, over: object): Question => {
  const base = sampleQuestion(kind)
  return { ...base, body: { ...base.body, ...over } } as Question
}
const score = (question: Question, answer: unknown) => scoreAnswer(question, {}, answer).fraction

describe('every kind', () => {
  const automatic = kindNames.filter((kind) => !kindOf(kind).byHand)
  it.each(automatic)('%s: its own solution earns full credit', (kind) => {
    const question = sampleQuestion(kind)
    expect(score(question, kindOf(kind).solution(question.body))).toBe('1')
  })
  it.each(kindNames)('%s: an answer goes to a paper and back unchanged, whatever ids the paper gave', (kind) => {
    const question = sampleQuestion(kind)
    const of = kindOf(kind)
    const solution = of.solution(question.body)
    if (solution === null) return
    const placed = shuffled(of.options(question.body), seededRandom('01', ['x'])).map(({ id }, i) => ({
      id: `opaque${i}`,
      option: id,
    }))
    const closed = of.close(solution, placed)
    expect(of.open(closed, placed)).toEqual(solution)
    if (placed.length) expect(JSON.stringify(closed)).not.toBe(JSON.stringify(solution))
  })
  it.each(kindNames.filter((kind) => kindOf(kind).byHand))('%s: waits for a person once there is an answer', (kind) => {
    const answer = kind === 'recording' ? { sound: `/api/media/${'b'.repeat(64)}`, seconds: 4 } : { text: 'because' }
    expect(scoreAnswer(sampleQuestion(kind), {}, answer)).toEqual({ fraction: null, answered: true, parts: [] })
    expect(
      commentsFor(
        {
          ...sampleQuestion(kind),
          comments: { right: '<p>yes</p>', wrong: '<p>no</p>', general: '<p>in any case</p>' },
        },
        {},
        answer,
      ),
    ).toEqual(['<p>in any case</p>'])
  })
  it.each(kindNames)('%s: every text that people wrote is mapped once, under a key of its own', (kind) => {
    const keys: string[] = []
    kindOf(kind).mapHtml(sampleQuestion(kind).body, (html, key) => {
      keys.push(key)
      return html
    })
    expect(new Set(keys).size).toBe(keys.length)
  })
})

describe('matching and sorting', () => {
  it('share of the pairs right', () => {
    const question = sampleQuestion('matching')
    expect([
      score(question, { pairs: { a: 'a', b: 'b' } }),
      score(question, { pairs: { a: 'b', b: 'a', c: 'c' } }),
      score(question, { pairs: { a: 'd' } }),
    ]).toEqual(['2/3', '1/3', '0'])
  })
  it('wrong pairs cost as set, floor 0; what belongs nowhere is wrong anywhere', () => {
    const question = sampleQuestion('sorting')
    const all = { a: 'x', b: 'x', c: 'y', d: 'y' }
    expect([
      score(question, { pairs: all }),
      score(question, { pairs: { ...all, e: 'x' } }),
      score(question, { pairs: { ...all, a: 'y' } }),
      score(question, { pairs: { a: 'y', b: 'y' } }),
    ]).toEqual(['1', '7/8', '5/8', '0'])
  })
  it('finds what is not whole', () => {
    expect(
      questionFaults(
        withBody('matching', { items: ['a', 'b'].map((id) => ({ id, html: id, comment: '', target: 'a' })) }),
      )[0],
    ).toMatch(/share one partner/)
    expect(
      questionFaults(
        withBody('sorting', { items: ['a', 'b'].map((id) => ({ id, html: id, comment: '', target: 'gone' })) }),
      )[0],
    ).toMatch(/place that is gone/)
  })
})

describe('ordering', () => {
  const by = (rule: string, order: string) => score(withBody('ordering', { rule }), { order: [...order] })
  it('exact', () => expect([by('exact', 'abcd'), by('exact', 'abdc'), by('exact', 'abc')]).toEqual(['1', '0', '0']))
  it('right neighbours', () =>
    expect([
      by('neighbours', 'abcd'),
      by('neighbours', 'dabc'),
      by('neighbours', 'dcba'),
      by('neighbours', 'cdab'),
    ]).toEqual(['1', '2/3', '0', '2/3']))
  it('longest part in order', () =>
    expect([by('moves', 'abcd'), by('moves', 'dabc'), by('moves', 'dcba'), by('moves', 'bacd')]).toEqual([
      '1',
      '2/3',
      '0',
      '2/3',
    ]))
  it('the longest increasing part is as long as the best of all parts', () => {
    const best = (values: number[]): number =>
      values.reduce((most, _, i) => {
        const rest = values.slice(i + 1).filter((value) => value > values[i]!)
        return Math.max(most, 1 + best(rest))
      }, 0)
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { maxLength: 8 }), (values) => {
        expect(longestInOrder(values)).toBe(best(values))
      }),
    )
  })
})

describe('gaps', () => {
  const question = sampleQuestion('gaps')
  it('each gap with its own weight', () => {
    const right = { g1: 'rises', g2: '3.9', g3: 'a' }
    expect([
      score(question, { gaps: right }),
      score(question, { gaps: { ...right, g2: '5' } }),
      score(question, { gaps: { g2: '3.95' } }),
      score(question, { gaps: { g3: 'b' } }),
    ]).toEqual(['1', '1/2', '1/2', '0'])
  })
  it('what is typed is not taken for an option', () => {
    const placed = placedAsWritten(kindOf('gaps').options(question.body)).map((each, i) => ({ ...each, id: `o${i}` }))
    const opaque = (option: string) => placed.find((each) => each.option === option)!.id
    expect(
      kindOf('gaps').open(
        { gaps: { [opaque('g1')]: opaque('g3.a'), [opaque('g3')]: opaque('g3.a'), zzz: 'x' } },
        placed,
      ),
    ).toEqual({ gaps: { g1: opaque('g3.a'), g3: 'a' } })
  })
  it('asks back about a number that can be read two ways', () => {
    const sealed = kindOf('gaps').seal(question.body, placedAsWritten(kindOf('gaps').options(question.body)))
    expect(unreadable(sealed, { gaps: { g1: '1,000', g2: '1,000' } })).toMatch(/two ways/)
    expect(unreadable(sealed, { gaps: { g2: '77' } })).toBeNull()
  })
  it('finds gaps without a key and keys without a gap', () => {
    expect(questionFaults(withBody('gaps', { text: '<p>none</p>' })).join()).toMatch(/no gap.*no longer stands/)
    expect(questionFaults(withBody('gaps', { gaps: [] })).join()).toMatch(/has no key/)
    expect(questionFaults({ ...question, stem: '' })).toEqual([])
  })
})

describe('spot on a picture', () => {
  const circle = (id: string, x: number, right = true) => ({
    id,
    shape: { is: 'circle', x, y: 100, r: 20 },
    right,
    label: id,
    comment: '',
  })
  it('the border is inside; a miss earns nothing', () => {
    const question = sampleQuestion('spot')
    expect(
      [
        { x: 100, y: 100 },
        { x: 120, y: 100 },
        { x: 100, y: 80 },
        { x: 120.01, y: 100 },
        { x: 225, y: 220 },
      ].map((at) => score(question, { points: [at] })),
    ).toEqual(['1', '1', '1', '0', '0'])
  })
  it('several spots: each region once, misses cost as set', () => {
    const question = withBody('spot', {
      regions: [circle('a', 50), circle('b', 150), circle('c', 250)],
      spots: 3,
      wrongCost: 0.5,
    })
    const at = (...xs: number[]) => score(question, { points: xs.map((x) => ({ x, y: 100 })) })
    expect([at(50, 150, 250), at(50, 51, 52), at(50, 150), at(50, 350), at(350, 350)]).toEqual([
      '1',
      '1/3',
      '2/3',
      '1/6',
      '0',
    ])
  })
  it('no more places count than are asked for', () => {
    const question = withBody('spot', { regions: [circle('a', 50), circle('b', 150)], spots: 1 })
    expect([
      score(question, { points: [{ x: 50, y: 100 }] }),
      score(question, {
        points: [
          { x: 350, y: 1 },
          { x: 50, y: 100 },
        ],
      }),
    ]).toEqual(['1', '0'])
  })
  it('named places are chosen like options', () => {
    const question = withBody('spot', { by: 'place', regions: [circle('a', 50), circle('b', 150, false)] })
    expect([score(question, { chosen: ['a'] }), score(question, { chosen: ['b'] })]).toEqual(['1', '0'])
    expect(kindOf('spot').answerText(question.body, { chosen: ['b'] })).toBe('b')
  })
  it('asks for a picture, words for it, and as many regions as are to be found', () => {
    expect(questionFaults(withBody('spot', { picture: '' }))).toEqual(['There is no picture yet. Choose one.'])
    expect(questionFaults(withBody('spot', { alt: '' })).join()).toMatch(/what the picture shows/)
    expect(questionFaults(withBody('spot', { spots: 2 })).join()).toMatch(/only 1 is right/)
  })
})

describe('text', () => {
  const text = (over: object, given: string) => score(withBody('text', over), { text: given })
  it('patterns fit the whole answer', () => {
    const pattern = { answers: [{ how: 'matches', text: '(high|spring) tides?', credit: 1, comment: '' }] }
    expect([text(pattern, 'Spring tide'), text(pattern, 'high tides'), text(pattern, 'a high tide')]).toEqual([
      '1',
      '1',
      '0',
    ])
    expect(text({ ...pattern, caseMatters: true }, 'Spring tide')).toBe('0')
  })
  it('no pattern holds the server up', () => {
    const began = performance.now()
    expect(text({ answers: [{ how: 'matches', text: '(a+)+b', credit: 1, comment: '' }] }, 'a'.repeat(500))).toBe('0')
    expect(performance.now() - began).toBeLessThan(1000)
  })
  it('a pattern that cannot be read is told', () => {
    expect(
      questionFaults(withBody('text', { answers: [{ how: 'matches', text: '(ebb', credit: 1, comment: '' }] }))[0],
    ).toMatch(/cannot be read/)
    expect(
      questionFaults(withBody('text', { answers: [{ how: 'matches', text: '(?=x)', credit: 1, comment: '' }] }))[0],
    ).toMatch(/cannot be read/)
  })
  it('slips are forgiven as far as allowed, and refused where any word would do', () => {
    const slips = (n: number, given: string) =>
      text({ slips: n, answers: [{ how: 'is', text: 'leeway', credit: 1, comment: '' }] }, given)
    expect([slips(0, 'leewya'), slips(1, 'leewya'), slips(1, 'lewya'), slips(2, 'lewya')]).toEqual(['0', '1', '0', '1'])
    expect(questionFaults(withBody('text', { slips: 2 }))[0]).toMatch(/Allow fewer/)
  })
})

describe('named places on a picture', () => {
  const regions = ['a', 'b', 'c', 'd'].map((id) => ({
    id,
    shape: { is: 'circle' as const, x: 10, y: 10, r: 5 },
    right: id < 'c',
    label: id,
    comment: '',
  }))
  const places = (chosen: string[], spots = 2) => score(withBody('spot', { by: 'place', regions, spots }), { chosen })
  it('sending every place earns no more than as many as are asked for', () => {
    expect(places(['a', 'b'])).toBe('1')
    expect(places(['c', 'd', 'a', 'b'])).toBe('0')
    expect(places(['a', 'b', 'c', 'd'], 1)).toBe('1')
    expect(places(['c', 'a', 'b', 'd'], 1)).toBe('0')
  })
  it('more than is asked for is not taken', () => {
    const { body } = withBody('spot', { by: 'place', regions, spots: 2 })
    const excess = (answer: object) => kindOf('spot').excess!(body, answer)
    expect([excess({ chosen: ['a', 'b'] }), excess({ chosen: ['a', 'b', 'c'] })]).toEqual([
      null,
      'At most 2 places can be marked here.',
    ])
  })
})

describe('credits of several options', () => {
  const options = (credits: number[], rights: boolean[]) =>
    credits.map((credit, i) => ({
      id: 'abcd'[i]!,
      html: `<p>x${i}</p>`,
      comment: '',
      fixed: false,
      right: rights[i]!,
      credit,
    }))
  const of = (credits: number[], rights: boolean[], over: object = {}) =>
    withBody('choices', { rule: 'credits', options: options(credits, rights), ...over })
  it('a credit that says something else than the key is told', () => {
    expect(questionFaults(of([1, 1, -1], [true, true, false]))).toEqual([])
    expect(questionFaults(of([1, 0, -1], [true, true, false]))).toEqual([
      'Option B is marked as right, but choosing it earns nothing.',
    ])
    expect(questionFaults(of([1, -1, 0.5], [true, false, false]))).toEqual([
      'Option C earns credit, but is not marked as right.',
    ])
  })
  it('the fraction lies between −1 and 1, whatever the bounds', () => {
    const harsh = of([0.5, -10, -10], [true, false, false], { lower: -100 })
    expect(score(harsh, { chosen: ['b', 'c'] })).toBe('-1')
    expect(score(harsh, { chosen: ['a'] })).toBe('1')
  })
})

describe('rubrics', () => {
  it('add up to the whole', () => {
    expect(
      questionFaults(withBody('written', { rubric: [{ id: 'a', title: 'Method', words: '', share: 60 }] }))[0],
    ).toMatch(/60 %, not to 100 %/)
  })
})

it('full credit is the most that any answer earns', () => {
  for (const kind of kindNames.filter((each) => !kindOf(each).byHand)) {
    const fraction = exact(score(sampleQuestion(kind), kindOf(kind).solution(sampleQuestion(kind).body))!)
    expect(fraction.compare(1)).toBe(0)
  }
})
