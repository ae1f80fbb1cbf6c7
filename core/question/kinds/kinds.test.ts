import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { creditedQuestions, sampleQuestion } from '../../../tests/fixtures/core'
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
import { byCredits as gridByCredits, type GridBody } from './grid'
import { placedAsWritten } from './kind'
import type { NumberBody } from './number'
import { longestInOrder } from './ordering'
import { byCredits, placedAt, takenOnce, type PairsBody } from './pairs-score'

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

describe('number', () => {
  const answered = (value: string, near: NumberBody['answers'][number]['near']): NumberBody => ({
    ...(kindOf('number').blank() as NumberBody),
    answers: [{ value, near, credit: 1, comment: '' }],
  })
  it.each<[NumberBody['answers'][number]['near'], boolean]>([
    [{ by: 'absolute', tolerance: '0' }, true],
    [{ by: 'between', below: '0', above: '1', open: 'none' }, true],
    [{ by: 'between', below: '0', above: '1', open: 'below' }, false],
    [{ by: 'between', below: '1', above: '0', open: 'both' }, false],
    [{ by: 'between', below: '1', above: null, open: 'both' }, true],
    [{ by: 'between', below: '{= a}', above: '0', open: 'both' }, true],
  ])('what is shown as right is within its own bounds, or that is a fault: %j', (near, isRight) => {
    const body = answered('3', near)
    expect(kindOf('number').faults(body).join()).toMatch(isRight ? /^$/ : /3 is shown as right/)
    if (isRight && !JSON.stringify(near).includes('{='))
      expect(kindOf('number').score(body, kindOf('number').solution(body)).fraction.equals(1)).toBe(true)
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

describe('credits of pairs and ticks, by hand', () => {
  const [matching, sorting, grid] = creditedQuestions()
  it.each([
    // Each of three right pairs adds 1, partner d takes 2, any other half of one; not below −1.
    [matching, { pairs: { a: 'a', b: 'b', c: 'c' } }, '1'],
    [matching, { pairs: { a: 'a', b: 'b', c: 'd' } }, '0'],
    [matching, { pairs: { a: 'a', b: 'c', c: 'b' } }, '0'],
    [matching, { pairs: { a: 'd', b: 'c', c: 'b' } }, '-1/3'],
    [matching, { pairs: { a: 'a', b: 'b' } }, '2/3'],
    // What no page offers: three things on one partner. The first has it.
    [matching, { pairs: { a: 'a', b: 'a', c: 'a' } }, '1/3'],
    // Four right ones, of which three are everything; x nearly y earns half; e in x takes 3.
    [sorting, { pairs: { a: 'x', b: 'x', c: 'y' } }, '1'],
    [sorting, { pairs: { a: 'x', b: 'x', c: 'y', d: 'y' } }, '1'],
    [sorting, { pairs: { a: 'y', b: 'x' } }, '1/2'],
    [sorting, { pairs: { a: 'x', b: 'x', c: 'y', d: 'y', e: 'x' } }, '1/3'],
    [sorting, { pairs: { a: 'x', b: 'x', c: 'y', d: 'y', e: 'y' } }, '1'],
    [sorting, { pairs: { e: 'x' } }, '0'],
    // Three right ticks, of which two and a half are everything; x where it is wrong takes 1, others half of one.
    [grid, { ticks: { a: ['x', 'y'], b: ['z'] } }, '1'],
    [grid, { ticks: { a: ['x', 'y'] } }, '4/5'],
    [grid, { ticks: { a: ['x', 'y', 'z'], b: ['z'] } }, '1'],
    [grid, { ticks: { a: ['x', 'y', 'z'], b: ['z', 'x'] } }, '3/5'],
    [grid, { ticks: { b: ['x', 'y'], c: ['x', 'y', 'z'] } }, '-4/5'],
  ] as [Question, object, string][])('%#: $kind', (question, answer, share) => {
    expect(score(question, answer)).toBe(share)
  })
  it('a place that earns as much as its own is as right, and stands in the key', () => {
    const body = sorting!.body as PairsBody
    const [first, ...others] = body.items
    const either = {
      ...body,
      items: [{ ...first!, comment: '<p>Look again.</p>', credits: { x: 1, y: 1 } }, ...others],
    }
    const kind = kindOf('sorting')
    expect(kind.keyText(either)).toContain('Thing a – Group x or Group y')
    expect(kind.score(either, { pairs: { a: 'y' } }).parts[0]).toEqual({ part: 'a', right: true })
    expect(kind.comments(either, { pairs: { a: 'y' } })).toEqual([])
    const wrong = { ...either, items: [{ ...either.items[0]!, credits: { x: 1 } }, ...others] }
    expect(kind.comments(wrong, { pairs: { a: 'y' } })).toEqual(['<p>Look again.</p>'])
  })
  it('a share becomes credits that score alike, and what was by credits before is so again', () => {
    const answers = fc.dictionary(
      fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      fc.constantFrom('a', 'b', 'c', 'd', 'x', 'y'),
    )
    const weights = fc.array(fc.constantFrom(1, 2, 0.5, 40), { minLength: 5, maxLength: 5 })
    fc.assert(
      fc.property(
        fc.constantFrom('matching', 'sorting'),
        weights,
        fc.constantFrom(0, 0.5, 1),
        answers,
        (kind, w, wrongCost, pairs) => {
          const sample = withBody(kind as 'matching', { wrongCost })
          const before = sample.body as PairsBody
          const body = { ...before, items: before.items.map((item, i) => ({ ...item, weight: w[i]! })) }
          const once = kind === 'sorting' ? pairs : takenOnce(body, { pairs }).pairs
          const share = (each: PairsBody) =>
            Object.keys(once).length
              ? exact(score({ ...sample, body: each } as Question, { pairs: once })!).valueOf()
              : 0
          expect(share(byCredits(body))).toBeCloseTo(share(body), 2)
          expect(byCredits({ ...byCredits(body), rule: 'share' })).toEqual(byCredits(body))
        },
      ),
    )
    const plain = sampleQuestion('grid').body as GridBody
    for (const ticks of [{ a: ['x'] }, { a: ['x', 'y'], b: ['z'] }, { a: ['x', 'z'], c: ['y'] }, { b: ['x'] }])
      expect(score(withBody('grid', gridByCredits(plain)), { ticks })).toBe(score(withBody('grid', plain), { ticks }))
  })
  it('what is placed elsewhere takes its credit along, and a new thing begins with one', () => {
    const body = sorting!.body as PairsBody
    const [first] = body.items
    expect(placedAt(body, first!, 'y')).toMatchObject({ target: 'y', credits: { y: 1 } })
    expect(placedAt(body, { ...first!, target: null, credits: { x: -3 } }, 'x')).toMatchObject({ credits: { x: 1 } })
    expect(placedAt(body, { ...first!, credits: undefined }, 'x')).toMatchObject({ credits: { x: 1 } })
    expect(placedAt(body, { ...first!, credits: { x: 2, y: -1 } }, null)).toMatchObject({
      target: null,
      credits: { y: -1 },
    })
    const plain = sampleQuestion('sorting').body as PairsBody
    expect(placedAt(plain, plain.items[0]!, 'y')).toEqual({ ...plain.items[0]!, target: 'y' })
  })
  it('credits that say something else than the key are told', () => {
    const with_ = (question: Question, over: object) =>
      questionFaults({ ...question, body: { ...(question.body as object), ...over } } as Question)
    const pairs = matching!.body as PairsBody
    const items = (credits: Record<string, number>, target: string | null = 'a') => ({
      items: [{ ...pairs.items[0]!, target, credits }, ...pairs.items.slice(1)],
    })
    expect(with_(matching!, items({ a: 0 }))).toEqual(['The right pair of Left entry 1 earns nothing.'])
    expect(with_(matching!, items({ a: 1, b: 2 }))).toEqual(['A pair of Left entry 1 earns more than its right one.'])
    expect(with_(matching!, items({ a: 1 }, null))).toEqual([
      'Left entry 1 belongs nowhere, but one of its pairs earns credit.',
    ])
    expect(with_(matching!, { upper: 0 })[0]).toMatch(/^No answer can earn anything/)
    const many = Array.from({ length: 11 }, (_, i) => `m${i}`)
    expect(
      with_(matching!, {
        items: many.map((id) => ({ id, html: id, comment: '', target: id, credits: { [id]: 1 } })),
        targets: many.map((id) => ({ id, html: id })),
      }),
    ).toEqual([expect.stringMatching(/at most 10 pairs/)])
    const rows = (grid!.body as GridBody).rows
    expect(with_(grid!, { rows: [{ ...rows[0]!, credits: { x: -1, z: 1 } }, ...rows.slice(1)] })).toEqual([
      '“Column x” in Row 1 is right, but ticking it earns nothing.',
      '“Column y” in Row 1 is right, but ticking it earns nothing.',
      '“Column z” in Row 1 earns credit, but is not right.',
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
