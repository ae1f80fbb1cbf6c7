/** Checks of times and people: each names who is meant and by how much, and its remedy mends it. */
import { describe, expect, it } from 'vitest'
import {
  at,
  checkedQuestion,
  factsNamed,
  names,
  questionRow,
  sampleContent,
  sampleRules,
  sampleStudent,
  sampleWindow,
} from '../../../tests/fixtures/core'
import { scheduleFor } from '../../schedule'
import { applyEdit, checkQuiz, noAccommodation, type Check, type Quiz, type Rules, type Student } from '..'

const ids = names('q', 8)
const questions = new Map(ids.map((id) => [id, checkedQuestion(id, { facts: factsNamed([id]).get(id)! })]))
const run = (quiz: Quiz, students: Student[], zone = 'UTC') =>
  checkQuiz(quiz, {
    now: at('08:00'),
    zone,
    questions,
    scales: [],
    names: new Map([
      ['tue', 'Tuesday evening'],
      ['sat', 'Saturday morning'],
    ]),
    objectives: new Map(),
    students: students.map((student) => ({
      name: student.name,
      classes: student.classes,
      schedule: scheduleFor(quiz.rules, student),
    })),
  })
const quizWith = (rules: Partial<Rules>): Quiz => ({
  content: sampleContent(ids.map((id) => questionRow(id))),
  rules: sampleRules({ limit: 60, ...rules }),
})
const petra = sampleStudent()
const slow = sampleStudent({ id: 'p2', name: 'Wyn Parrish', accommodations: [{ ...noAccommodation, factor: 3 }] })
const window = { ...sampleWindow, closes: at('10:30') }
const saturday = { ...sampleWindow, id: 'w2', classes: ['sat'], opens: at('09:30'), closes: at('12:00') }
/** The 25th of October 2026: the clocks of London go back at 02:00. */
const autumn = { ...sampleWindow, opens: '2026-10-24T18:00:00.000Z', closes: '2026-10-25T18:00:00.000Z' }

const cases: [code: string, rules: Partial<Rules>, sentence: RegExp, students?: Student[], zone?: string][] = [
  [
    'short-window:w1',
    { limit: 120, atClosing: 'window', windows: [window] },
    /Tuesday evening.*everybody loses 30 minutes/,
  ],
  [
    'short-window:w1',
    { atClosing: 'window', windows: [window] },
    /lost are: Wyn Parrish 1 hour 30 minutes/,
    [petra, slow],
  ],
  [
    'short-window:w1',
    { late: { accepted: false, costPerDay: 0, lastDays: null }, windows: [{ ...sampleWindow, due: at('09:45') }] },
    /everybody loses 15 minutes/,
  ],
  ['late-start', { atClosing: 'window', windows: [window] }, /after Tue 14 May, 09:30 has less than 1 hour/],
  ['no-grace', { grace: 0 }, /arrives after the end is set aside/],
  ['until-passed-once', { attempts: { ...sampleRules().attempts, untilPassed: true } }, /one attempt/],
  [
    'until-passed-unmarked',
    {
      attempts: { ...sampleRules().attempts, count: 3, untilPassed: true },
      grade: { ...sampleRules().grade, pass: null },
    },
    /without a pass mark/,
  ],
  ['attempts-unused', { attempts: { ...sampleRules().attempts, count: 5, wait: 60 } }, /more than 3 of the 5 attempts/],
  ['due-outside:w1', { windows: [{ ...sampleWindow, due: at('15:00') }] }, /has ended Tue 14 May, 13:00/],
  [
    'clocks:w1',
    { windows: [autumn] },
    /a minute after Sun 25 Oct, 01:59 it is Sun 25 Oct, 01:00.*are 1 day, not 23 hours/,
    [petra],
    'Europe/London',
  ],
  ['need-useless:0', { limit: null }, /Wyn Parrish: there is no time limit/, [petra, slow]],
  [
    'need-useless:1',
    { limit: null },
    /no clock that a break/,
    [sampleStudent({ accommodations: [{ ...noAccommodation, breakMinutes: 5 }] })],
  ],
  [
    'need-useless:2',
    { windows: [{ ...sampleWindow, closes: null }] },
    /no window ends/,
    [sampleStudent({ accommodations: [{ ...noAccommodation, laterMinutes: 5 }] })],
  ],
  [
    'need-useless:3',
    { attempts: { ...sampleRules().attempts, count: null } },
    /any number/,
    [sampleStudent({ accommodations: [{ ...noAccommodation, moreAttempts: 1 }] })],
  ],
  [
    'two-windows',
    { windows: [sampleWindow, saturday] },
    /Petra Lund may start in the window of either/,
    [sampleStudent({ classes: ['tue', 'sat'] })],
  ],
  ['empty-class:sat', { windows: [sampleWindow, saturday] }, /Nobody is in Saturday morning/],
  ['empty-class:sat', { windows: [{ ...sampleWindow, classes: ['tue', 'sat'] }] }, /Nobody is in Saturday morning/],
  [
    'once',
    {
      release: {
        ...sampleRules().release,
        key: { from: { at: 'handIn', offset: 0 }, once: true, until: null, ifPassed: false, wrongOnly: false },
      },
    },
    /picture of the screen/,
  ],
  [
    'guessing-passes',
    { grade: { ...sampleRules().grade, pass: { by: 'percent', value: 25 } } },
    /chance of 63 % in one attempt/,
  ],
]

describe('checks of times, attempts and people', () => {
  it.each(cases)('%s: %j', (code, rules, sentence, students = [petra], zone = 'UTC') => {
    const quiz = quizWith(rules)
    const of = (each: Quiz): Check | undefined => run(each, students, zone).find((check) => check.code === code)
    const found = of(quiz)
    expect(found?.sentence).toMatch(sentence)
    expect(found!.level).toBe('look')
    if (found!.remedy && 'edit' in found!.remedy) expect(of(applyEdit(quiz, found!.remedy.edit).quiz)).toBeUndefined()
  })
  it('nothing of it is found in rules without fault', () => {
    const known = new Set(cases.map(([code]) => code))
    expect(run(quizWith({}), [petra]).filter(({ code }) => known.has(code))).toEqual([])
  })
  it('a window of months has no hours that anybody counts', () => {
    const term = { ...sampleWindow, opens: '2026-09-01T08:00:00.000Z', closes: '2026-12-20T18:00:00.000Z' }
    expect(run(quizWith({ windows: [term] }), [petra], 'Europe/London').map(({ code }) => code)).not.toContain(
      'clocks:w1',
    )
  })
})
