/** The teacher is told what the student's page does, with the rule that decides; a remedy does what it says. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, questionRow, sampleContent, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { applyEdit, noAccommodation, type Quiz, type QuizState, type Rules, type Student } from '../quiz'
import { notSat, type Sat } from './attempts'
import { blankNeed } from '../rules/needs'
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

describe('a remedy', () => {
  /** What a teacher does who takes every remedy offered, until the student can sit it or none is offered. */
  let ids = 0
  function mended(quiz: Quiz, ask: (quiz: Quiz) => ReturnType<typeof asked>) {
    const taken: string[] = []
    let now = quiz
    for (let turn = 0; turn < 6; turn++) {
      const question = { ...ask(now), newId: `new-${++ids}` }
      const why = whySit(question)
      if (why.may || !why.remedy || !('edit' in why.remedy)) return { quiz: now, why, taken }
      taken.push(why.remedy.label)
      now = applyEdit(now, why.remedy.edit).quiz
    }
    throw new Error(`No end of remedies: ${taken.join(', ')}`)
  }

  it('lets them in, from every cause that has one, twice in a row', () => {
    let [once, again] = [0, 0]
    const labels = new Set<string>()
    fc.assert(
      fc.property(
        fc.record({
          inClass: fc.boolean(),
          held: fc.constantFrom(null, 'class', 'quiz'),
          opens: fc.constantFrom('08:00', '09:00', '11:00'),
          closes: fc.constantFrom('09:15', '12:00', '13:00'),
          latestStart: fc.constantFrom(null, '09:20'),
          count: fc.constantFrom(1, 2),
          wait: fc.constantFrom(0, 30, 600),
          done: fc.integer({ min: 0, max: 2 }),
          given: fc.constantFrom(0, 1, 3),
          ownGiven: fc.constantFrom(0, 2),
          instead: fc.boolean(),
          places: fc.constantFrom(null, 2),
        }),
        (drawn) => {
          const windows = [
            {
              ...sampleWindow,
              opens: at(drawn.opens),
              closes: at(drawn.closes > drawn.opens ? drawn.closes : '13:00'),
              latestStart: drawn.latestStart && drawn.latestStart > drawn.opens ? at(drawn.latestStart) : null,
            },
          ]
          const need = blankNeed({ id: 'n0', students: ['p1'], groups: [] }, noAccommodation)
          const quiz = quizWith({
            windows,
            places: drawn.places,
            heldBack: drawn.held === 'quiz' ? ['tue'] : [],
            needs: drawn.given || drawn.instead ? [{ ...need, moreAttempts: drawn.given, instead: drawn.instead }] : [],
            ...attempts({ count: drawn.count, wait: drawn.wait }),
          })
          const student = sampleStudent({
            classes: drawn.inClass ? ['tue'] : [],
            ...(drawn.held === 'class' ? { held: ['tue'] } : {}),
            accommodations: [{ ...noAccommodation, moreAttempts: drawn.ownGiven }],
          })
          const sat = (n: number, now: string): Partial<Sat> => ({
            attempts: Array.from({ length: n }, (_, i) => handed(i + 1, now)),
          })
          const full = (of: Quiz, begun: number) => of.rules.places !== null && begun === 0 && of.rules.places <= 3
          const at10 = (n: number) => (of: Quiz) => ({
            ...asked(of, '10:00', { ...sat(n, '09:59'), full: full(of, n) }, { student }),
            taken: 3,
          })
          const first = mended(quiz, at10(drawn.done))
          first.taken.forEach((label) => labels.add(label))
          // What has no remedy is a wait that ends by itself.
          if (!first.why.may) {
            expect(first.why.sentence).toMatch(/has to wait/)
            return
          }
          once++
          // They sit it, and come again: another remedy lets them in once more.
          const second = mended(first.quiz, at10(drawn.done + 1))
          if (second.why.may) again++
          else expect(second.why.sentence).toMatch(/has to wait/)
        },
      ),
      { numRuns: 600, seed: 7 },
    )
    expect(Math.min(once, again)).toBeGreaterThan(100)
    expect([...labels].length).toBeGreaterThan(4)
  })

  it('of a wait that is longer than the quiz is open reaches past it', () => {
    const quiz = quizWith(attempts({ count: 3, wait: 600 }))
    const sat = { attempts: [handed(1, '09:30')] }
    const { remedy } = whySit(asked(quiz, '10:00', sat))
    const after = applyEdit(quiz, (remedy as { edit: Parameters<typeof applyEdit>[1] }).edit).quiz
    expect(whySit(asked(after, '10:00', sat)).sentence).toMatch(/has to wait 10 hours/)
    expect(whySit({ ...asked(after, '10:00', sat), now: at('19:31') }).may).toBe(true)
  })

  it('is none where somebody has been given all that can be given', () => {
    const need = { ...blankNeed({ id: 'n0', students: ['p1'], groups: [] }, noAccommodation), moreAttempts: 20 }
    const quiz = quizWith({ needs: [need] })
    const sat = { attempts: Array.from({ length: 21 }, (_, i) => handed(i + 1, '09:30')) }
    expect(whySit(asked(quiz, '10:00', sat))).toMatchObject({ may: false, remedy: null })
  })
})
