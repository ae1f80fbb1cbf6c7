import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { quizStates } from '../../tests/fixtures/states'
import type { Rules } from '../quiz'
import { datedByClock, datedByStudent } from './hand-in'
import { maySit, type AttemptFact } from './may-sit'
import { scheduleFor } from './schedule'
import { toldToStudents } from './told'

const handed = (number: number, time: string, over: Partial<AttemptFact> = {}): AttemptFact => ({
  number,
  state: 'handed',
  handedInAt: at(time),
  marked: true,
  passed: false,
  ...over,
})
const attempts = (over: Partial<Rules['attempts']>) => ({ attempts: { ...sampleRules().attempts, ...over } })
const ask = (time: string, facts: AttemptFact[] = [], rules: Partial<Rules> = {}) =>
  maySit('open', scheduleFor(sampleRules(rules), sampleStudent()), facts, at(time), 'UTC')

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
    expect(ask('11:00', [handed(1, '09:30', { passed: true })], rules)).toMatchObject({
      may: false,
      sentence: expect.stringMatching(/passed/) as string,
    })
    expect(ask('11:00', [handed(1, '09:30', { marked: false, passed: null })], rules)).toMatchObject({
      may: false,
      sentence: expect.stringMatching(/still being marked/) as string,
    })
    expect(ask('11:00', [handed(1, '09:30')], rules).may).toBe(true)
  })
  it('a student whose class is not meant is told so', () => {
    expect(
      maySit('open', scheduleFor(sampleRules(), sampleStudent({ classes: ['sat'] })), [], at('10:00'), 'UTC').sentence,
    ).toBe('This quiz is not meant for your class.')
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
            Array.from({ length: n }, (_, i) => handed(i + 1, '09:10')),
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

describe('what students are told', () => {
  const told = (
    rules: Partial<Rules>,
    content: Partial<Parameters<typeof toldToStudents>[1]> = {},
    limit: number | null = 45,
  ) => toldToStudents(sampleRules(rules), { movement: 'free', wrongCost: { by: 'none' }, ...content }, limit).join(' ')
  it.each([
    [told({}), /You have 45 minutes\..*your clock keeps running.*When time is up, what is there is handed in/],
    [told({}, {}, null), /no time limit.*When the window closes, what is there is handed in/],
    [told({ atClosing: 'window' }), /also ends when the window closes/],
    [told({ atDeadline: 'unsent' }), /not handed in counts as zero/],
    [told({ atDeadline: 'finish' }), /you may finish/],
    [
      told({}, { movement: 'forward', wrongCost: { by: 'formula' } }),
      /forward only.*A wrong answer to a single choice costs/,
    ],
    [told(attempts({ count: 3 })), /up to 3 attempts/],
    [told(attempts({ count: null })), /as often as you like/],
  ])('%s', (words, expected) => expect(words).toMatch(expected))
})
