import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { noAccommodation } from '../quiz'
import { assignedTo, stillToCome } from '../schedule/assigned'
import { endsOf } from '../release'
import { scheduleFor } from '../schedule/schedule'
import { kindsOf } from './kinds'
import { studentDays } from './student-days'

const saturday = {
  ...sampleWindow,
  id: 'w2',
  classes: ['sat'],
  opens: at('09:30', '2030-05-18'),
  closes: at('12:00', '2030-05-18'),
}
const rules = sampleRules({ limit: 45, grace: 1, windows: [sampleWindow, saturday] })
const classes = [
  { id: 'tue', name: 'Tuesday', students: 3 },
  { id: 'sat', name: 'Saturday', students: 1 },
]
const pupil = (id: string, groups: string[], factor = 1) =>
  sampleStudent({ id, name: id, classes: groups, accommodations: [{ ...noAccommodation, factor }] })
const students = [pupil('a', ['tue']), pupil('b', ['tue'], 1.5), pupil('c', ['tue']), pupil('d', ['tue', 'sat'])]

describe('kinds of student', () => {
  const kinds = kindsOf(assignedTo(students, rules), classes, null)
  it('are those that the rules tell apart: of a class, of two, with time of their own, and of an empty class', () => {
    expect(kinds.map(({ name, students: who }) => [name, who.map(({ id }) => id)])).toEqual([
      ['Tuesday', ['a', 'c']],
      ['Saturday and Tuesday', ['d']],
      ['Tuesday, time and a half', ['b']],
    ])
    const empty = kindsOf(assignedTo(students.slice(0, 1), rules), classes, null)
    expect(empty.map(({ name, who }) => [name, who])).toEqual([
      ['Tuesday', { student: 'a' }],
      ['Saturday', { inClass: 'sat' }],
    ])
  })
  it('have one of everyone with the link, whoever has come', () => {
    const link = { ...rules.windows[0]!, id: 'wl', classes: ['l'] }
    const open = { ...rules, windows: [...rules.windows, link], link: { ...sampleLink, audience: 'l' } }
    const all = assignedTo([...students, ...stillToCome(open)], open)
    expect(kindsOf(all, classes, 'l').at(-1)).toEqual({
      key: 'l',
      name: 'Everyone with the link',
      students: [],
      who: { inClass: 'l' },
    })
  })
})
const sampleLink = { audience: 'l', fields: [], who: 'anyone' as const } as unknown as NonNullable<typeof rules.link>

describe('what a student sees, moment by moment', () => {
  const never = Object.fromEntries(
    Object.entries(rules.release).map(([name, rule]) => [name, { ...rule, from: { at: 'never' as const } }]),
  ) as typeof rules.release
  const own = {
    ...rules,
    release: {
      ...never,
      score: { ...never.score, from: { at: 'handIn' as const, offset: 0 } },
      key: { ...never.key, from: { at: 'windowClosed' as const, offset: 30 }, once: true },
      comments: { ...never.comments, from: { at: 'everyoneDone' as const, offset: 0 }, ifPassed: true },
      questions: {
        ...never.questions,
        from: { at: 'instant' as const, instant: at('20:00') },
        until: at('21:00'),
      },
    },
  }
  const everyone = assignedTo(students, own)
  const days = (id: string) => {
    const student = students.find((each) => each.id === id)!
    return studentDays(own, { schedule: scheduleFor(own, student), classes: student.classes }, endsOf(everyone))
  }
  it('says when they can start and how long they have, what is shown from when, and what never is', () => {
    const said = days('b').moments.map(({ at: when, when: how, words }) => [when, how, words])
    expect(said).toContainEqual([at('09:00'), '', 'can start; has 1 hour 7 minutes 30 seconds at most'])
    expect(said).toContainEqual([null, 'on handing in', 'sees score of the attempt'])
    expect(said).toContainEqual([at('21:00'), '', 'no more: questions'])
    expect(said.find(([, how]) => how === 'when everyone is done')![2]).toBe(
      'sees comments on answers (only who has passed)',
    )
    // Closed for Tuesday is when the last of them, who has more time, can have ended; half an hour later it is shown.
    const key = said.find(([, , words]) => String(words).includes('correct answers'))!
    expect(key[1]).toBe('when the window has closed for them, 30 minutes later')
    expect(key[2]).toBe('sees correct answers (once)')
    expect(days('b').never).toContain('certificate')
  })
  it('is in order of time, and what is known stands after what hangs on them', () => {
    const times = days('a').moments.flatMap(({ at: when }) => when ?? [])
    expect(times).toEqual([...times].sort())
    expect(days('a').moments[0]).toMatchObject({ at: null, when: 'beforehand' })
  })
})
