import { describe, expect, it } from 'vitest'
import {
  at,
  checkedQuestion,
  groupRow,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleRules,
  sampleStudent,
  sampleWindow,
} from '../../tests/fixtures/core'
import { day, endAt, never, plus } from '../kit/time'
import { scheduleFor } from '../schedule'
import type { Check } from './check/check'
import { checkQuiz } from './checks'
import { applyEdit } from './edits'
import type { Quiz, Row, Rules } from './schema'
import { stateOf } from './state'
import { noAccommodation } from '../quiz'

const questions = new Map(names('q', 20).map((id) => [id, checkedQuestion(`Question ${id}`, { usable: id !== 'q20' })]))
function check(rows: Row[], rules: Partial<Rules> = {}, students = [sampleStudent()]): { quiz: Quiz; found: Check[] } {
  const quiz = { content: sampleContent(rows), rules: sampleRules(rules) }
  return { quiz, found: run(quiz, students) }
}
const run = (quiz: Quiz, students = [sampleStudent()]) =>
  checkQuiz(quiz, {
    now: at('08:00'),
    zone: 'UTC',
    questions,
    scales: [],
    names: new Map([['tue', 'Tuesday evening']]),
    objectives: new Map(),
    students: students.map((student) => ({
      name: student.name,
      classes: student.classes,
      schedule: scheduleFor(quiz.rules, student),
    })),
  })

const cases: [code: string, level: 'stop' | 'look', Row[], Partial<Rules>?][] = [
  ['no-questions', 'stop', []],
  ['no-points', 'stop', [questionRow('q1', { points: 0 })]],
  ['unusable', 'stop', [questionRow('q20')]],
  ['unusable', 'stop', [poolRow('p', ['q1', 'q2', 'q20'], 3)]],
  ['unusable', 'stop', [questionRow('q99'), questionRow('q1')]],
  ['twice', 'stop', [questionRow('q1'), { ...questionRow('q1'), id: 'again' }]],
  ['twice', 'stop', [questionRow('q1'), groupRow('g', ['q1', 'q2'])]],
  ['twice', 'stop', [questionRow('q1'), groupRow('g', ['q1'])]],
  ['unusable', 'stop', [groupRow('g', ['q1', 'q20'])]],
  ['pool-short', 'stop', [questionRow('q1'), questionRow('q2'), groupRow('g', ['q1', 'q2', 'q3'], { draw: 2 })]],
  ['pools-together', 'stop', [poolRow('a', ['q1', 'q2', 'q3'], 2), groupRow('g', ['q1', 'q2', 'q3'], { draw: 2 })]],
  ['pool-short', 'stop', [questionRow('q1'), poolRow('p', ['q1', 'q2'], 2)]],
  ['pools-together', 'stop', [poolRow('a', ['q1', 'q2', 'q3'], 2), poolRow('b', ['q1', 'q2', 'q3'], 2)]],
  ['no-window', 'stop', [questionRow('q1')], { windows: [] }],
  ['backwards', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, closes: at('08:30') }] }],
  ['backwards', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, closes: sampleWindow.opens }] }],
  ['over', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, opens: at('05:00'), closes: at('07:00') }] }],
  ['due', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, due: at('08:30') }] }],
  ['gone', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, classes: ['gone'] }] }],
  ['gone', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, classes: ['gone', 'tue'] }] }],
  [
    'pass-out-of-reach',
    'stop',
    [questionRow('q1')],
    {
      grade: {
        method: 'highest',
        decimals: 0,
        pass: { by: 'points', value: 2 },
        scale: { by: 'percent' },
        sections: [],
      },
    },
  ],
  ['no-end', 'look', [questionRow('q1')], { limit: null, windows: [{ ...sampleWindow, closes: null }] }],
  ['never-released', 'look', [questionRow('q1')], { windows: [{ ...sampleWindow, closes: null }] }],
  [
    'finish-without-end',
    'look',
    [questionRow('q1')],
    { limit: null, atDeadline: 'finish', windows: [{ ...sampleWindow, closes: null, due: null }] },
  ],
  [
    'due',
    'stop',
    [questionRow('q1')],
    { late: { ...sampleRules().late, accepted: false }, windows: [{ ...sampleWindow, due: sampleWindow.opens }] },
  ],
  [
    'due',
    'look',
    [questionRow('q1')],
    { late: { ...sampleRules().late, accepted: true }, windows: [{ ...sampleWindow, due: sampleWindow.opens }] },
  ],
  ['latest-start', 'stop', [questionRow('q1')], { windows: [{ ...sampleWindow, latestStart: sampleWindow.opens }] }],
  [
    'one-in-practice',
    'look',
    [questionRow('q1')],
    { attempts: { count: 2, wait: 600, draw: 'fresh', untilPassed: false, untilShare: null, cost: 0, again: false } },
  ],
]

describe('checkQuiz', () => {
  const codes = (rules: Partial<Rules>) => check([questionRow('q1')], rules).found.map(({ code }) => code.split(':')[0])
  it('says nothing of an end that there is, or a further attempt that there can be', () => {
    const endless = { ...sampleWindow, closes: null, due: null }
    const finish = { limit: null, atDeadline: 'finish' } as const
    expect(codes({ ...finish, limit: 45, windows: [endless] })).not.toContain('finish-without-end')
    expect(codes({ ...finish, windows: [sampleWindow] })).not.toContain('finish-without-end')
    const late = { ...sampleRules().late, accepted: false }
    expect(codes({ ...finish, late, windows: [{ ...endless, due: at('21:00') }] })).not.toContain('finish-without-end')
    expect(codes({ limit: null, late, windows: [{ ...endless, due: at('21:00') }] })).not.toContain('no-end')
    const attempts = {
      count: 2,
      wait: 600,
      draw: 'fresh',
      untilPassed: false,
      untilShare: null,
      cost: 0,
      again: false,
    } as const
    const later = {
      ...sampleWindow,
      id: 'w-later',
      opens: plus(sampleWindow.opens, day),
      closes: plus(sampleWindow.closes!, day),
    }
    expect(codes({ attempts, windows: [sampleWindow, later] })).not.toContain('one-in-practice')
    // Another class's window does not help.
    expect(codes({ attempts, windows: [sampleWindow, { ...later, classes: ['sat'] }] })).toContain('one-in-practice')
  })
  it('finds nothing in a sound quiz', () =>
    expect(check([questionRow('q1'), poolRow('p', ['q2', 'q3', 'q4'], 2)]).found).toEqual([]))
  it.each(cases)('finds %s (%s), in a sentence; its remedy mends it', (code, level, rows, rules) => {
    const { quiz, found } = check(rows, rules)
    const hit = found.find((each) => each.code.split(':')[0] === code)!
    expect(hit).toMatchObject({ level })
    expect(hit.sentence).toMatch(/[.?]$/)
    if (level === 'stop') expect(hit.remedy, 'what stops is told with its remedy').not.toBeNull()
    if (!hit.remedy || !('edit' in hit.remedy)) return
    const mended = run(applyEdit(quiz, hit.remedy.edit).quiz)
    expect(mended.map((each) => each.code)).not.toContain(hit.code)
  })
  it('tells who loses extra time when the window wins', () => {
    const student = sampleStudent({
      accommodations: [{ ...noAccommodation, factor: 1.5, extraMinutes: 0, stretchWindow: false }],
    })
    const quiz = { content: sampleContent([questionRow('q1')]), rules: sampleRules({ atClosing: 'window' }) }
    expect(run(quiz, [student]).find((each) => each.code === 'extra-cut')!.sentence).toMatch(
      /Petra Lund loses extra time/,
    )
  })
  it('what stops comes first', () => {
    const { found } = check([], { limit: null, windows: [{ ...sampleWindow, closes: null }] })
    expect(found.map((each) => each.level)).toEqual([...found.map((each) => each.level)].sort().reverse())
  })
})

describe('remedies that a person has to choose', () => {
  it.each([
    ['no-questions', { goTo: 'finder' }, []],
    ['no-window', { goTo: 'windows' }, [questionRow('q1')]],
  ] as const)('%s names the place', (code, remedy, rows) => {
    const { found } = check([...rows], { windows: [] })
    expect(found.find((each) => each.code === code)!.remedy).toMatchObject(remedy)
  })
})

describe('stateOf', () => {
  const rules = sampleRules()
  it('follows from the windows and the last end', () => {
    expect(
      ['08:59', '09:00', '11:58', '12:30', '12:46'].map((time) =>
        stateOf('published', rules, endAt(at('12:45')), at(time)),
      ),
    ).toEqual(['scheduled', 'open', 'open', 'open', 'closed'])
    expect(stateOf('published', rules, never, at('23:00'))).toBe('open')
    expect(stateOf('draft', rules, never, at('10:00'))).toBe('draft')
  })
})
