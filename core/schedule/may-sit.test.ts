import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { quizStates } from '../../tests/fixtures/states'
import { minute, plus } from '../kit/time'
import type { Rules } from '../quiz'
import { datedByClock, datedByStudent } from './hand-in'
import { attemptsUsedAt, moreAttempts, notSat, type AttemptFact, type Sat } from './attempts'
import { maySit } from './may-sit'
import { scheduleFor } from './schedule'

const handed = (number: number, time: string, over: Partial<AttemptFact> = {}): AttemptFact => ({
  number,
  state: 'handed',
  handedInAt: at(time),
  ...over,
})
const attempts = (over: Partial<Rules['attempts']>) => ({ attempts: { ...sampleRules().attempts, ...over } })
const ask = (time: string, facts: AttemptFact[] = [], rules: Partial<Rules> = {}, grade: Partial<Sat> = {}) =>
  maySit(
    'open',
    scheduleFor(sampleRules(rules), sampleStudent()),
    { ...notSat, ...grade, attempts: facts },
    at(time),
    'UTC',
  )

describe('maySit', () => {
  it('only while the window is open, and says when that is', () => {
    expect(ask('08:59')).toMatchObject({ may: false, from: at('09:00'), sentence: 'It opens Tue 14 May, 09:00.' })
    expect(ask('09:00')).toMatchObject({ may: true, attempt: 1, window: 'w1' })
    expect(ask('11:58')).toMatchObject({ may: true })
    expect(ask('11:59')).toMatchObject({
      may: false,
      from: null,
      sentence: expect.stringMatching(/^It closed/) as string,
    })
  })
  it('until the latest start where there is one', () => {
    const windows = [{ ...sampleWindow, latestStart: at('10:00') }]
    expect([ask('09:59', [], { windows }).may, ask('10:00', [], { windows }).may]).toEqual([true, false])
  })
  it('of several windows that are open the one that ends latest for the student, in the sentence as well', () => {
    const windows = [
      { ...sampleWindow, id: 'short', opens: at('09:00'), closes: at('10:30') },
      { ...sampleWindow, id: 'long', opens: at('09:30'), closes: at('13:00') },
      { ...sampleWindow, id: 'middle', opens: at('09:10'), closes: at('12:00') },
    ]
    expect(ask('09:20', [], { windows })).toMatchObject({ may: true, window: 'middle' })
    expect(ask('10:00', [], { windows })).toMatchObject({
      may: true,
      window: 'long',
      sentence: 'You can start until Tue 14 May, 13:00.',
    })
    const endless = [...windows, { ...sampleWindow, id: 'endless', closes: null }]
    expect(ask('10:00', [], { windows: endless })).toMatchObject({ window: 'endless', sentence: 'You can start now.' })
  })
  it('promises no start that lies outside every window', () => {
    const twice = attempts({ count: 3, wait: 60 })
    expect(ask('11:30', [handed(1, '11:20')], twice)).toEqual({
      why: 'waitTooLong',
      may: false,
      sitting: null,
      from: null,
      sentence: 'The wait before your next attempt is longer than the quiz is open.',
    })
    const windows = [sampleWindow, { ...sampleWindow, id: 'w2', opens: at('12:00'), closes: at('14:00') }]
    expect(ask('11:30', [handed(1, '11:20')], { ...twice, windows })).toMatchObject({ from: at('12:20') })
    // A window in which nobody can start (its latest start is before its opening) opens for nobody.
    const never = { ...sampleWindow, id: 'w0', opens: at('08:30'), latestStart: at('08:00') }
    expect(ask('08:10', [], { windows: [never, sampleWindow] })).toMatchObject({ from: at('09:00') })
  })
  it('whatever it promises comes true (property): at that instant, and not a minute before', () => {
    const time = fc.integer({ min: 0, max: 900 }).map((minutes) => plus(at('06:00'), minutes * minute))
    const window = fc
      .record({
        opens: time,
        length: fc.option(fc.integer({ min: 1, max: 300 })),
        latest: fc.option(fc.integer({ min: -30, max: 300 })),
      })
      .map(({ opens, length, latest }) => ({
        ...sampleWindow,
        opens,
        closes: length === null ? null : plus(opens, length * minute),
        latestStart: latest === null ? null : plus(opens, latest * minute),
      }))
    let promised = 0
    fc.assert(
      fc.property(
        fc.array(window, { minLength: 1, maxLength: 4 }),
        time,
        fc.option(time),
        fc.integer({ min: 0, max: 200 }),
        (made, now, handedInAt, wait) => {
          const windows = made.map((each, i) => ({ ...each, id: `w${i}` }))
          const schedule = scheduleFor(sampleRules({ windows, ...attempts({ count: null, wait }) }), sampleStudent())
          const sat = {
            ...notSat,
            attempts: handedInAt === null || handedInAt > now ? [] : [{ ...handed(1, '09:00'), handedInAt }],
          }
          const may = (when: string) => maySit('open', schedule, sat, when, 'UTC')
          const said = may(now)
          if (said.may || said.from === null) return
          promised++
          expect(may(said.from).may).toBe(true)
          expect(may(plus(said.from, -minute)).may && plus(said.from, -minute) > now).toBe(false)
        },
      ),
      { numRuns: 1500 },
    )
    expect(promised).toBeGreaterThan(200)
  })
  it('goes on with a paper under way, whatever the window says', () => {
    expect(ask('11:59', [handed(1, '10:00', { state: 'sitting', handedInAt: null })])).toMatchObject({
      may: false,
      sitting: 1,
    })
  })
  it('as many attempts as there are, with the wait between them', () => {
    expect(ask('10:00', [handed(1, '09:30')])).toMatchObject({
      may: false,
      sentence: 'You have handed in your one attempt.',
    })
    expect(ask('10:00', [handed(1, '09:30')], attempts({ count: 3, wait: 60 }))).toMatchObject({
      may: false,
      from: at('10:30'),
    })
    expect(ask('10:30', [handed(1, '09:30')], attempts({ count: 3, wait: 60 }))).toMatchObject({
      may: true,
      attempt: 2,
    })
    expect(
      ask(
        '11:00',
        [1, 2, 3].map((number) => handed(number, '09:30')),
        attempts({ count: 3, wait: 0 }),
      ),
    ).toMatchObject({ may: false, sentence: 'You have used all 3 attempts.' })
    expect(
      ask(
        '11:00',
        [1, 2, 3].map((number) => handed(number, '09:30')),
        attempts({ count: null, wait: 0 }),
      ).may,
    ).toBe(true)
  })
  it('until passed: a pending mark by hand is undecided, not failed', () => {
    const rules = attempts({ count: null, wait: 0, untilPassed: true })
    const after = (grade: Partial<Sat>) => ask('11:00', [handed(1, '09:30')], rules, grade)
    expect(after({ passed: true })).toMatchObject({ may: false, sentence: expect.stringMatching(/passed/) as string })
    expect(after({ undecided: true })).toMatchObject({
      may: false,
      sentence: expect.stringMatching(/still being marked/) as string,
    })
    expect(after({ passed: false }).may).toBe(true)
  })
  it('after the latest start it says that, and not that the window has closed', () => {
    const windows = [{ ...sampleWindow, latestStart: at('10:00') }]
    expect(ask('10:30', [], { windows }).sentence).toBe('The latest start was Tue 14 May, 10:00.')
    expect(ask('12:30', []).sentence).toBe('It closed Tue 14 May, 11:59.')
  })
  it('a student whose class is not meant is told so', () => {
    expect(
      maySit('open', scheduleFor(sampleRules(), sampleStudent({ classes: ['sat'] })), notSat, at('10:00'), 'UTC')
        .sentence,
    ).toBe('This quiz is not meant for you.')
  })
  it('never before the opening, never after the last start, and always with a sentence', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 24 * 60 - 1 }),
        fc.constantFrom(...quizStates),
        fc.integer({ min: 0, max: 3 }),
        (minute, state, n) => {
          const time = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
          const found = maySit(
            state,
            scheduleFor(sampleRules(attempts({ count: 2, wait: 10 })), sampleStudent()),
            { ...notSat, attempts: Array.from({ length: n }, (_, i) => handed(i + 1, '09:10')) },
            at(time),
            'UTC',
          )
          expect(found.sentence).toMatch(/[.]$/)
          if (found.may)
            expect(time >= '09:00' && time < '11:59' && n < 2 && !['draft', 'withdrawn', 'filed'].includes(state)).toBe(
              true,
            )
        },
      ),
    )
  })
})

describe('the instant of handing in', () => {
  const limits = { deadline: at('10:00'), onTimeUntil: at('10:01'), hardStop: at('10:30') }
  it('by the student: at the deadline at the latest, unless they may finish', () => {
    expect([
      datedByStudent('handIn', limits, at('09:50')),
      datedByStudent('handIn', limits, at('10:01')),
      datedByStudent('finish', limits, at('10:20')),
    ]).toEqual([at('09:50'), at('10:00'), at('10:20')])
  })
  it('by the clock: the deadline; the last answer where one wrote on', () => {
    expect(datedByClock('handIn', limits, at('10:20'), at('12:00'))).toBe(at('10:00'))
    expect(datedByClock('finish', limits, at('10:20'), at('12:00'))).toBe(at('10:20'))
    expect(datedByClock('finish', limits, at('09:40'), at('12:00'))).toBe(at('10:00'))
    expect(datedByClock('handIn', { deadline: null, onTimeUntil: null, hardStop: null }, null, at('12:00'))).toBe(
      at('12:00'),
    )
  })
})

describe('when attempts are used up', () => {
  const rule = (over: Partial<Rules['attempts']>) => attempts(over).attempts
  const sat = (facts: AttemptFact[], grade: Partial<Sat> = {}): Sat => ({ ...notSat, ...grade, attempts: facts })
  it.each<[string, Partial<Rules['attempts']>, Sat, string | null]>([
    ['one of one', { count: 1 }, sat([handed(1, '09:30')]), '09:30'],
    ['one of two', { count: 2 }, sat([handed(1, '09:30')]), null],
    [
      'the last is under way',
      { count: 2 },
      sat([handed(1, '09:30'), { number: 2, state: 'sitting', handedInAt: null }]),
      null,
    ],
    [
      'passed, where that ends it',
      { count: 5, untilPassed: true },
      sat([handed(1, '09:30'), handed(2, '09:50')], { passed: true }),
      '09:50',
    ],
    ['passed, where it does not', { count: 5 }, sat([handed(1, '09:30')], { passed: true }), null],
    ['undecided', { count: 5, untilPassed: true }, sat([handed(1, '09:30')], { undecided: true }), null],
    ['any number', { count: null }, sat([handed(1, '09:30')]), null],
  ])('%s', (_name, over, facts, time) => expect(attemptsUsedAt(rule(over), facts)).toBe(time && at(time)))
  it('agrees with the right to start: used up means that nothing more is given', () => {
    const facts = fc.array(fc.constantFrom('handed' as const, 'unsent' as const, 'sitting' as const), { maxLength: 4 })
    const grades = fc.record({ passed: fc.constantFrom(true, false, null), undecided: fc.boolean() })
    const rules = fc.record({
      count: fc.option(fc.integer({ min: 1, max: 4 }), { nil: null }),
      untilPassed: fc.boolean(),
    })
    fc.assert(
      fc.property(facts, grades, rules, (states, grade, over) => {
        const all = states.map((state, i): AttemptFact => ({
          number: i + 1,
          state,
          handedInAt: state === 'sitting' ? null : at('09:30'),
        }))
        const used = attemptsUsedAt(rule(over), sat(all, grade))
        if (used !== null) expect(moreAttempts(rule(over), sat(all, grade)).more).toBe(false)
        if (used !== null) expect(ask('10:00', all, attempts(over), grade).may).toBe(false)
      }),
    )
  })
})
