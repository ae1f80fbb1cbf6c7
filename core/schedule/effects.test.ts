import { describe, expect, it } from 'vitest'
import { at, sampleContent, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { applyEdit } from '../quiz/edits'
import { closedFor, endStarts, isFor, moreTime, type ForWhom } from '../quiz/more-time'
import { noAccommodation, type Quiz, type Rules } from '../quiz'
import { scheduleFor } from './schedule'
import { effectsOf } from './effects'
import { limitsFor } from './clock'

const both = { ...sampleWindow, classes: ['tue', 'sat'] }
const rules = sampleRules({ limit: 45, grace: 0, windows: [both] })
const students = [
  sampleStudent({ id: 'a', name: 'Ann' }),
  sampleStudent({ id: 'b', name: 'Bo', accommodations: [{ ...noAccommodation, factor: 1.5 }] }),
  sampleStudent({ id: 'c', name: 'Cy', classes: ['sat'] }),
]
const zone = 'Europe/London'
const effects = (after: Rules, before = rules, now = at('09:10')) =>
  effectsOf(before, after, students, now, zone).map(({ words, students: who }) => [words, who.join(' ')])
const quizOf = (of: Rules): Quiz => ({ content: sampleContent([]), rules: of })
let n = 0
const newId = () => `new${n++}`
const extended = (whom: ForWhom, minutes = 30, ids: readonly string[] = [], of = rules) => {
  const named = students.filter(({ id }) => ids.includes(id))
  return applyEdit(quizOf(of), moreTime(quizOf(of), whom, minutes, named, newId)!).quiz.rules
}
const stopOf = (of: Rules, id: string) =>
  limitsFor(
    scheduleFor(
      of,
      students.find((each) => each.id === id)!,
    ),
    { startedAt: at('09:00'), window: 'w1' },
  ).hardStop

describe('what a change does to whom', () => {
  it('says nothing where nobody is touched', () => {
    expect(effects({ ...rules, watched: !rules.watched })).toEqual([])
    expect(effects({ ...rules, windows: [both, { ...sampleWindow, id: 'w2', classes: ['none'] }] })).toEqual([])
  })
  it('puts those together to whom the same happens', () => {
    expect(effects({ ...rules, limit: 60 })).toEqual(
      expect.arrayContaining([
        ['1 hour instead of 45 minutes', 'Ann Cy'],
        ['1 hour 30 minutes instead of 1 hour 7 minutes 30 seconds', 'Bo'],
      ]),
    )
  })
  it('tells who comes in, who falls out, and who can start no more or again', () => {
    expect(effects({ ...rules, windows: [{ ...both, classes: ['tue'] }] })).toContainEqual([
      'cannot sit it any more',
      'Cy',
    ])
    expect(effects({ ...rules, heldBack: ['sat'] })).toContainEqual(['cannot sit it any more', 'Cy'])
    expect(effects(rules, { ...rules, heldBack: ['sat'] })).toContainEqual(['can sit it, and could not before', 'Cy'])
    expect(effects({ ...rules, windows: [{ ...both, latestStart: at('09:05') }] })).toContainEqual([
      'cannot start any more',
      'Ann Bo Cy',
    ])
    expect(effects({ ...rules, windows: [{ ...both, closes: at('13:00') }] }, rules, at('12:00'))).toContainEqual([
      'can start again, from now on',
      'Ann Bo Cy',
    ])
  })
  it('tells of due times, attempts, and of what is seen from when', () => {
    expect(effects({ ...rules, windows: [{ ...both, due: at('11:00') }] })).toContainEqual([
      'due Tue 14 May, 12:00',
      'Ann Bo Cy',
    ])
    expect(effects({ ...rules, attempts: { ...rules.attempts, count: 3 } })).toContainEqual([
      '3 attempts instead of 1 attempt',
      'Ann Bo Cy',
    ])
    const never = {
      ...rules,
      release: { ...rules.release, key: { ...rules.release.key, from: { at: 'never' as const } } },
    }
    expect(effects(never)[0]![0]).toMatch(/^“correct answers” shown at the earliest: not foreseen instead of Tue /)
    // A later end of one moves what all wait for.
    const own = { ...both, id: 'own', classes: [], students: ['c'], closes: at('15:00') }
    const moved = effects({ ...rules, windows: [both, own] })
    expect(moved.find(([words]) => words!.startsWith('time until'))![1]).toBe('Cy')
    expect(moved.some(([words, who]) => words!.startsWith('“correct answers” shown') && who!.includes('Ann'))).toBe(
      true,
    )
  })
})

describe('more time', () => {
  it('for everybody is later at the end and longer on the clock', () => {
    const after = extended({ everybody: true })
    expect([after.limit, after.windows[0]!.closes]).toEqual([75, at('12:29')])
  })
  it('for a class parts the window that it shares, and lengthens the clock of its students', () => {
    const after = extended({ inClass: 'sat' }, 30, ['c'])
    expect(after.windows.map(({ classes, closes }) => [classes, closes])).toEqual([
      [['tue'], at('11:59')],
      [['sat'], at('12:29')],
    ])
    const schedule = scheduleFor(after, students[2]!)
    expect([schedule.limit, schedule.windows[0]!.closes]).toEqual([75, at('12:29')])
    expect(scheduleFor(after, students[0]!)).toMatchObject({ limit: 45 })
  })
  it('for students is what they need for this quiz: nobody else gets any, and a sitting under way gets it at once', () => {
    const after = extended({ students: ['a'] }, 30, ['a'])
    expect(stopOf(after, 'a')).toBe(at('10:15'))
    expect(stopOf(after, 'b')).toBe(stopOf(rules, 'b'))
    expect(scheduleFor(after, students[0]!).windows[0]!.closes).toBe(at('12:29'))
    // Those who have time and a half keep it.
    expect(stopOf(extended({ students: ['b'] }, 30, ['b']), 'b')).toBe('2030-05-14T10:37:30.000Z')
  })
  it('once more is more than once, also beside what stands in place of all else', () => {
    const once = extended({ students: ['a', 'b'] }, 10, ['a', 'b'])
    const twice = extended({ students: ['a', 'b'] }, 20, ['a', 'b'], once)
    expect(scheduleFor(twice, students[0]!)).toMatchObject({ limit: 75 })
    expect(scheduleFor(twice, students[0]!).windows[0]!.closes).toBe(at('12:29'))
    const alone = {
      ...noAccommodation,
      id: 'n',
      students: ['b'],
      groups: [],
      instead: true,
      factor: 2,
      extraMinutes: 0,
      laterMinutes: 0,
    }
    const after = extended({ students: ['b'] }, 5, ['b'], { ...rules, needs: [alone] })
    expect(scheduleFor(after, students[1]!)).toMatchObject({ limit: 95 })
  })
  it('counts beside what a group is given in place of all else', () => {
    const ofGroup = { ...noAccommodation, id: 'n', students: [], groups: ['g'], instead: true, factor: 2 }
    const member = { ...students[0]!, groups: ['g'] }
    const before = { ...rules, needs: [ofGroup] }
    const edit = moreTime(quizOf(before), { students: ['a'] }, 5, [member], newId)!
    expect(scheduleFor(applyEdit(quizOf(before), edit).quiz.rules, member)).toMatchObject({ limit: 95 })
  })
  it('without a limit is a later end alone', () => {
    const open = { ...rules, limit: null }
    const edit = moreTime(quizOf(open), { students: ['a'] }, 10, students.slice(0, 1), newId)!
    const [need] = applyEdit(quizOf(open), edit).quiz.rules.needs
    expect([need!.extraMinutes, need!.laterMinutes]).toEqual([0, 10])
  })
})

describe('no more starts', () => {
  it('for a class, while the others go on; papers under way have all their time', () => {
    const now = at('09:30')
    const after = applyEdit(quizOf(rules), endStarts(quizOf(rules), { inClass: 'sat' }, now, newId)!).quiz.rules
    expect(after.windows.map(({ classes, latestStart, closes }) => [classes, latestStart, closes])).toEqual([
      [['tue'], null, at('11:59')],
      [['sat'], now, at('11:59')],
    ])
    expect(effects(after, rules, now)).toContainEqual(['cannot start any more', 'Cy'])
    expect(
      endStarts(quizOf({ ...rules, windows: [{ ...both, opens: at('10:00') }] }), { everybody: true }, now, newId),
    ).toBeNull()
  })
})

describe('closed at once', () => {
  const now = at('09:30')
  const closed = (whom: ForWhom, of = rules) => {
    const named = 'students' in whom ? students.filter(({ id }) => whom.students.includes(id)) : []
    return { ...of, windows: closedFor(of, whom, named, now, newId) }
  }
  const starts = (of: Rules, id: string) =>
    scheduleFor(
      of,
      students.find((each) => each.id === id)!,
    ).windows.some(({ closes }) => closes === null || closes > now)
  it.each([
    [{ everybody: true }, []],
    [{ inClass: 'sat' }, ['a', 'b']],
    [{ students: ['a', 'b'] }, ['c']],
  ] as [ForWhom, string[]][])('for %j leaves the others theirs', (whom, left) => {
    const after = closed(whom)
    expect(students.map(({ id }) => id).filter((id) => starts(after, id))).toEqual(left)
    expect(students.map((each) => isFor(whom, each))).toEqual(students.map(({ id }) => !left.includes(id)))
    // Windows that are closed say so, and keep what else they were.
    const shut = after.windows.filter(({ closedAt }) => closedAt !== null)
    expect(shut.every(({ closes, opens }) => closes === now && opens === at('09:00'))).toBe(true)
  })
  it('for a student takes their own window over, and another who shares it keeps it', () => {
    const own = { ...both, id: 'own', classes: [], students: ['a', 'c'], closes: at('15:00') }
    const after = closed({ students: ['a'] }, { ...rules, windows: [both, own] })
    expect([starts(after, 'a'), starts(after, 'b'), starts(after, 'c')]).toEqual([false, true, true])
    expect(after.windows.find(({ id }) => id === 'own')!.students).toEqual(['c'])
  })
})
