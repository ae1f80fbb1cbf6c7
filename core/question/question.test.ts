import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../tests/fixtures/core'
import {
  blankQuestion,
  commentsFor,
  kindNames,
  kindOf,
  plainText,
  question,
  questionFaults,
  scoreAnswer,
  unreadable,
} from '.'

describe('every kind', () => {
  it.each(kindNames)('%s: a blank one reads and says what is missing', (kind) => {
    const blank = blankQuestion(kind)
    expect(question.safeParse(blank).success).toBe(true)
    expect(questionFaults(blank)[0]).toMatch(/has no (text|gap)/)
    expect(questionFaults(sampleQuestion(kind))).toEqual([])
  })
  it.each(kindNames)('%s: unanswered and malformed score 0 without a penalty', (kind) => {
    for (const answer of [undefined, null, {}, { chosen: [] }, { text: '  ' }, { chosen: 'a' }, 42]) {
      expect(scoreAnswer(sampleQuestion(kind), {}, answer)).toMatchObject({ fraction: '0', answered: false })
    }
  })
  it.each(kindNames)('%s: the key is told in words', (kind) => {
    const sample = sampleQuestion(kind)
    expect(kindOf(kind).keyText(sample.body)).not.toBe('')
  })
})

describe('choices', () => {
  const options = (rule: 'all' | 'share' | 'credits', over = {}) => {
    const sample = sampleQuestion('choices')
    return { ...sample, body: { ...sample.body, rule, ...over } } as typeof sample
  }
  const fraction = (q: ReturnType<typeof options>, ...chosen: string[]) => scoreAnswer(q, {}, { chosen }).fraction
  it('all or nothing', () => {
    expect([
      fraction(options('all'), 'a', 'b'),
      fraction(options('all'), 'a'),
      fraction(options('all'), 'a', 'b', 'c'),
    ]).toEqual(['1', '0', '0'])
  })
  it('right less wrong share', () => {
    expect([
      fraction(options('share'), 'a'),
      fraction(options('share'), 'a', 'b', 'c'),
      fraction(options('share'), 'c', 'd'),
      fraction(options('share'), 'a', 'c'),
    ]).toEqual(['1/2', '1/2', '0', '0'])
  })
  it('right less wrong share where nothing is wrong', () => {
    const all = options('share')
    const body = all.body as { options: { right: boolean }[] }
    const q = {
      ...all,
      body: { ...all.body, options: body.options.map((option) => ({ ...option, right: true })) },
    } as typeof all
    expect(fraction(q, 'a', 'b')).toBe('1/2')
  })
  it('refuses a question without a right option', () => {
    const q = options('share')
    const body = q.body as { options: { right: boolean }[] }
    expect(
      questionFaults({
        ...q,
        body: { ...q.body, options: body.options.map((option) => ({ ...option, right: false })) },
      } as typeof q),
    ).toContain('No option is marked as right. Mark at least one.')
  })
})

describe('number', () => {
  const withBody = (over: object) => {
    const q = sampleQuestion('number')
    return { ...q, body: { ...q.body, ...over } } as typeof q
  }
  const score = (q: ReturnType<typeof withBody>, text: string) => scoreAnswer(q, {}, { text }).fraction
  it('bounds are inclusive and exact', () => {
    const q = withBody({
      answers: [{ value: '0.2', near: { by: 'absolute', tolerance: '0.1' }, credit: 1, comment: '' }],
    })
    expect([score(q, '0.3'), score(q, '0.1'), score(q, '0.30000001')]).toEqual(['1', '1', '0'])
  })
  it('converts units that are written', () => {
    expect([score(withBody({}), '390 cm'), score(withBody({}), '3.9 m'), score(withBody({}), '3.9 kg')]).toEqual([
      '1',
      '1',
      '0',
    ])
    const speed = withBody({
      unit: 'kn',
      unitAsked: true,
      answers: [{ value: '6', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' }],
    })
    expect([score(speed, '6 knots'), score(speed, '11.112 km/h'), score(speed, '6')]).toEqual(['1', '1', '0'])
  })
  it('takes the best of several accepted values', () => {
    const q = withBody({
      answers: [
        { value: '4', near: { by: 'absolute', tolerance: '0.5' }, credit: 0.5, comment: 'near' },
        { value: '3.9', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: 'spot on' },
      ],
    })
    expect([score(q, '3.9'), score(q, '4.2')]).toEqual(['1', '1/2'])
    expect(commentsFor(q, {}, { text: '4.2' })).toEqual(['near'])
  })
  it('asks back about what cannot be read, and says nothing of rightness', () => {
    const sealed = kindOf('number').seal(sampleQuestion('number').body, [])
    expect(unreadable(sealed, { text: '1,000' })).toMatch(/two ways/)
    expect(unreadable(sealed, { text: '99' })).toBeNull()
    expect(unreadable(sealed, { text: '3 kg' })).toMatch(/not measured/)
    expect(unreadable({ ...sealed, unit: '', unitAsked: true } as typeof sealed, { text: '3' })).toMatch(/unit/)
  })
})

describe('text', () => {
  const score = (over: object, text: string) => {
    const q = sampleQuestion('text')
    return scoreAnswer({ ...q, body: { ...q.body, ...over } } as typeof q, {}, { text }).fraction
  }
  const accept = (how: string, text: string) => ({ answers: [{ how, text, credit: 1, comment: '' }] })
  it('is, begins, contains, ends', () => {
    expect([score({}, ' Ebb '), score({}, 'ebb tide')]).toEqual(['1', '0'])
    expect([score(accept('begins', 'spring'), 'Springs'), score(accept('begins', 'spring'), 'offspring')]).toEqual([
      '1',
      '0',
    ])
    expect([
      score(accept('contains', 'lee'), 'a lee shore'),
      score(accept('ends', 'shore'), 'a lee shore'),
      score(accept('ends', 'lee'), 'a lee shore'),
    ]).toEqual(['1', '1', '0'])
  })
  it('case and accents matter only if asked', () => {
    expect([
      score(accept('is', 'Café'), 'CAFE'),
      score({ ...accept('is', 'Café'), accentsMatter: true }, 'cafe'),
      score({ ...accept('is', 'Café'), caseMatters: true }, 'café'),
    ]).toEqual(['1', '0', '0'])
    expect(score({ ...accept('is', 'Café'), accentsMatter: true }, 'Cafe\u0301')).toBe('1')
  })
})

describe('plain text of markup', () => {
  it('shows words, the alternative text and the TeX of maths', () => {
    expect(plainText('<p>dries 1<sub>6</sub> and 10<sup>3</sup>, H<sub>x</sub></p>')).toBe('dries 1₆ and 10³, Hx')
    expect(
      plainText(
        '<p>Speed&nbsp;<strong>over</strong> ground &lt; 6</p><img src="x" alt="a buoy"><span data-type="inline-math" data-latex="v_0"></span>',
      ),
    ).toBe('Speed over ground < 6 a buoy v_0')
    expect(plainText('<span data-type="inline-math" data-latex="x"><span>noise</span><!--maths--></span> end')).toBe(
      'x end',
    )
  })
})
