/** Who is meant and what is given, by semantics §5: windows of one's own, accommodations of three sorts, breaks. */
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { instantOfEnd, plus, minute } from '../kit/time'
import { noAccommodation, type Rules } from '../quiz'
import { assignedTo } from './assigned'
import { furthest, limitsFor } from './clock'
import { scheduleFor, windowFor, windowsOf } from './schedule'
import { latestEnd } from './starts'

const blank = { students: [], groups: [], instead: false, ...noAccommodation }
const rules = (over: Partial<Rules> = {}) => sampleRules({ limit: 60, grace: 0, ...over })

describe('windows', () => {
  const byClass = { ...sampleWindow, id: 'class' }
  const byGroup = { ...sampleWindow, id: 'group', classes: [], groups: ['g'] }
  const byName = { ...sampleWindow, id: 'name', classes: [], students: ['p1'] }
  const ids = (student: object) => windowsOf([byClass, byGroup, byName], sampleStudent(student)).map(({ id }) => id)
  it('are one’s own, else those of one’s groups, else those of one’s classes', () => {
    expect(ids({ id: 'other' })).toEqual(['class'])
    expect(ids({ id: 'other', groups: ['g'] })).toEqual(['group'])
    expect(ids({ groups: ['g'] })).toEqual(['name'])
    expect(ids({ id: 'other', classes: ['sat'] })).toEqual([])
  })
  it('make a quiz meant for whoever has one', () => {
    const students = ['p1', 'p2', 'p3'].map((id) => sampleStudent({ id, classes: ['sat'] }))
    students[1]!.groups.push('g')
    const meant = assignedTo(students, rules({ windows: [byGroup, byName] }))
    expect(meant.map(({ id, schedule }) => [id, schedule.windows.map((each) => each.id)])).toEqual([
      ['p1', ['name']],
      ['p2', ['group']],
    ])
  })
})

describe('a later end', () => {
  const window = { ...sampleWindow, due: at('11:00'), latestStart: at('10:30') }
  const student = sampleStudent({ accommodations: [{ ...noAccommodation, laterMinutes: 60 }] })
  it('moves the end, the due time and the latest start; never the opening, nor a window closed by hand', () => {
    const [mine] = scheduleFor(rules({ windows: [window] }), student).windows
    expect(mine).toMatchObject({ opens: at('09:00'), due: at('12:00'), latestStart: at('11:30'), closes: at('12:59') })
    const closed = { ...window, closedAt: window.closes }
    expect(scheduleFor(rules({ windows: [closed] }), student).windows).toEqual([closed])
  })
  it('holds for the window in which a sitting began, also when others have come in its place', () => {
    const own = { ...sampleWindow, id: 'own', classes: [], students: ['p1'] }
    expect(windowFor(rules({ windows: [window, own] }), student, 'w1')!.due).toBe(at('12:00'))
    expect(windowFor(rules(), student, 'gone')).toBeUndefined()
  })
})

describe('accommodations for this quiz only', () => {
  const student = sampleStudent({
    groups: ['g'],
    accommodations: [
      { ...noAccommodation, factor: 1.5 },
      { ...noAccommodation, extraMinutes: 10, by: { group: 'Dinghies' } },
    ],
  })
  const scheduled = (needs: Rules['needs']) => scheduleFor(rules({ needs }), student)
  it('stand beside the rest: for each quantity the most generous wins', () => {
    const here = { ...blank, id: 'a', students: ['p1'], factor: 1.25, extraMinutes: 20, moreAttempts: 1 }
    expect(scheduled([here])).toMatchObject({ limit: 60 * 1.5 + 20, attempts: { count: 2 } })
    expect(scheduled([here]).given.map(({ by }) => by)).toEqual([undefined, { group: 'Dinghies' }, 'quiz'])
  })
  it('or in place of it, where it is said so', () => {
    const here = { ...blank, id: 'a', groups: ['g'], instead: true, extraMinutes: 5 }
    expect(scheduled([here])).toMatchObject({ limit: 65, given: [{ by: 'quiz', extraMinutes: 5 }] })
    const beside = { ...blank, id: 'b', students: ['p1'], factor: 3 }
    expect(scheduled([beside, here]).limit).toBe(65)
  })
  it('are for those whom they name alone, and more attempts than any number are any number', () => {
    expect(scheduled([{ ...blank, id: 'a', students: ['p2'], factor: 5 }]).limit).toBe(100)
    const any = rules({
      attempts: { ...rules().attempts, count: null },
      needs: [{ ...blank, id: 'a', students: ['p1'], moreAttempts: 3 }],
    })
    expect(scheduleFor(any, student).attempts.count).toBeNull()
  })
})

describe('breaks', () => {
  const student = sampleStudent({ accommodations: [{ ...noAccommodation, breakMinutes: 15 }] })
  it('count whole in the latest end, and as they were taken in the clock', () => {
    const schedule = scheduleFor(rules(), student)
    // A start just before 11:59, with 60 minutes and 15 of breaks.
    expect(instantOfEnd(latestEnd(schedule))).toBe(at('13:14'))
    expect(furthest(schedule, at('09:00'), sampleWindow).deadline).toBe(at('10:15'))
    expect(limitsFor(schedule, { startedAt: at('09:00'), window: 'w1', breaks: 4 * minute }).deadline).toBe(
      plus(at('10:00'), 4 * minute),
    )
  })
  it('never reach past a window that wins', () => {
    expect(instantOfEnd(latestEnd(scheduleFor(rules({ atClosing: 'window' }), student)))).toBe(at('11:59'))
  })
})
