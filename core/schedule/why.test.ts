/** The teacher is told what the student's page does, with the rule that decides; a remedy does what it says. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, questionRow, sampleContent, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { applyEdit, noAccommodation, type Quiz, type QuizState, type Rules, type Student } from '../quiz'
import { notSat, type Sat } from './attempts'
import { maySit, seesQuiz } from './may-sit'
import { scheduleFor } from './schedule'
import { whySit } from './why'

const quizWith = (rules: Partial<Rules> = {}): Quiz => ({
  content: sampleContent([questionRow('q1')]),
  rules: sampleRules(rules),
})
const handed = (number: number, time: string) => ({ number, state: 'handed' as const, handedInAt: at(time) })
const asked = (
  quiz: Quiz,
  now: string,
  sat: Partial<Sat> = {},
  more: { student?: Student; state?: QuizState } = {},
) => ({
  quiz,
  state: more.state ?? ('open' as const),
  student: more.student ?? sampleStudent(),
  sat: { ...notSat, ...sat },
  now: at(now),
  zone: 'UTC',
  names: new Map([['tue', 'Tuesday evening']]),
  newId: 'new',
})
const attempts = (over: Partial<Rules['attempts']>): Partial<Rules> => ({
  attempts: { ...sampleRules().attempts, ...over },
})

const cases: [rules: Partial<Rules>, now: string, sat: Partial<Sat>, sentence: RegExp, mends?: true][] = [
  [{}, '10:00', {}, /^Petra Lund can start attempt 1: the window of Tuesday evening, from Tue 14 May, 09:00/],
  [{}, '08:00', {}, /can sit it from Tue 14 May, 09:00/, true],
  [{ announced: false }, '08:00', {}, /not announced to them, so they do not see it yet/, true],
  [{}, '12:00', {}, /is too late: the window of Tuesday evening/, true],
  [{ windows: [{ ...sampleWindow, latestStart: at('09:30') }] }, '10:00', {}, /is too late to start/, true],
  [{ windows: [{ ...sampleWindow, classes: ['sat'] }] }, '10:00', {}, /does not see it: no window is for them/, true],
  [{}, '10:00', { attempts: [handed(1, '09:30')] }, /has used 1 attempt/, true],
  [attempts({ count: 3, wait: 60 }), '10:00', { attempts: [handed(1, '09:30')] }, /wait 1 hour after an attempt/],
  [attempts({ count: 3, wait: 600 }), '10:00', { attempts: [handed(1, '09:30')] }, /by then it is closed/],
  [attempts({ count: 3, untilPassed: true }), '10:00', { attempts: [handed(1, '09:30')], passed: true }, /has passed/],
  [
    attempts({ count: 3, untilPassed: true }),
    '10:00',
    { attempts: [handed(1, '09:30')], undecided: true },
    /waits for a mark/,
  ],
  [{}, '10:00', { attempts: [{ number: 1, state: 'sitting', handedInAt: null }] }, /is working on attempt 1/],
]

describe('why somebody can sit it or not', () => {
  it.each(cases)('%j at %s, %j', (rules, now, sat, sentence, mends) => {
    const quiz = quizWith(rules)
    const why = whySit(asked(quiz, now, sat))
    expect(why.sentence).toMatch(sentence)
    const { remedy } = why
    if (mends) {
      expect(remedy && 'edit' in remedy).toBe(true)
      const mended = applyEdit(quiz, (remedy as { edit: Parameters<typeof applyEdit>[1] }).edit).quiz
      expect(whySit(asked(mended, now, sat)).may).toBe(true)
    }
  })
  it('names the state that keeps everybody out, and an own window for what it is', () => {
    expect(whySit(asked(quizWith(), '10:00', {}, { state: 'withdrawn' })).sentence).toMatch(/the quiz is withdrawn/)
    const own = quizWith({
      windows: [sampleWindow, { ...sampleWindow, id: 'own', classes: [], students: ['p1'], opens: at('11:00') }],
    })
    expect(whySit(asked(own, '10:00')).sentence).toMatch(/their own window, from Tue 14 May, 11:00/)
  })
  it('never disagrees with what the student is told, whatever the rules', () => {
    const minute = fc.integer({ min: 0, max: 59 })
    let [can, cannot] = [0, 0]
    fc.assert(
      fc.property(
        fc.record({
          from: minute,
          to: minute,
          now: minute,
          count: fc.constantFrom(1, 2, null),
          wait: fc.constantFrom(0, 5),
        }),
        fc.array(minute, { maxLength: 2 }),
        fc.constantFrom<QuizState>('draft', 'scheduled', 'open', 'closed', 'withdrawn', 'filed'),
        fc.boolean(),
        fc.boolean(),
        ({ from, to, now, count, wait }, done, state, announced, inClass) => {
          const time = (n: number) => at(`09:${String(n).padStart(2, '0')}`)
          const quiz = quizWith({
            announced,
            windows: [{ ...sampleWindow, opens: time(Math.min(from, to)), closes: time(Math.max(from, to)) }],
            ...attempts({ count, wait }),
          })
          const student = sampleStudent({ classes: inClass ? ['tue'] : [], accommodations: [noAccommodation] })
          const sat = {
            ...notSat,
            attempts: done.map((n, i) => ({ number: i + 1, state: 'handed' as const, handedInAt: time(n) })),
          }
          const question = { ...asked(quiz, '09:00', sat, { student, state }), now: time(now) }
          const why = whySit(question)
          const schedule = scheduleFor(quiz.rules, student)
          const may = maySit(state, schedule, sat, time(now), 'UTC')
          expect(why.may).toBe(may.may)
          expect(why.sees).toBe(seesQuiz(state, schedule, announced, done.length, time(now)))
          expect(why.told).toBe(why.sees ? may.sentence : '')
          expect(why.sentence).toMatch(/Petra Lund .*\.$/)
          if (why.may) can++
          else cannot++
        },
      ),
      { numRuns: 1000 },
    )
    expect(Math.min(can, cannot)).toBeGreaterThan(10)
  })
})
