import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { noAccommodation, type Rules } from '../quiz'
import { dayLine } from './day-line'
import { scheduleFor } from '../schedule/schedule'

const saturday = {
  ...sampleWindow,
  id: 'w2',
  classes: ['sat'],
  opens: at('09:30', '2030-05-18'),
  closes: at('12:00', '2030-05-18'),
  due: at('11:00', '2030-05-18'),
}
const rules = sampleRules({ limit: 45, grace: 1, windows: [sampleWindow, saturday] })
const pupil = (over: Rules, id: string, group: string, factor = 1) => {
  const student = sampleStudent({ id, name: id, classes: [group], accommodations: [{ ...noAccommodation, factor }] })
  return { id, name: id, classes: [group], schedule: scheduleFor(over, student) }
}
const line = (over = rules) =>
  dayLine(
    over,
    [
      { id: 'tue', name: 'Tuesday', students: 2 },
      { id: 'sat', name: 'Saturday', students: 1 },
      { id: 'none', name: 'Unused', students: 4 },
    ],
    [pupil(over, 'a', 'tue'), pupil(over, 'b', 'tue', 1.5), pupil(over, 'c', 'sat')],
    (id) => scheduleFor(over, sampleStudent({ classes: [id] })),
    at('08:00'),
  )

describe('the day line', () => {
  it('has a lane for each class that sits and each student who differs', () => {
    expect(line().sitting.map((lane) => [lane.name, lane.note])).toEqual([
      ['Tuesday', '2'],
      ['Saturday', '1'],
      ['b', '+23 min'],
    ])
  })
  it('says why a student’s times are their own', () => {
    const own = { ...rules.windows[0]!, id: 'own', classes: [], students: ['a'] }
    const need = { ...noAccommodation, id: 'n', students: ['c'], groups: [], instead: false, breakMinutes: 10 }
    const lanes = line({ ...rules, windows: [...rules.windows, own], needs: [need] }).sitting
    expect(lanes.filter(({ isClass }) => !isClass).map(({ name, causes }) => [name, causes])).toEqual([
      ['a', ['a window of their own']],
      ['b', ['time and a half']],
      ['c', ['10 minutes of breaks, for this quiz']],
    ])
  })
  it('shows how far a running clock may reach beyond the window', () => {
    expect(line().sitting[0]!.spans[0]).toMatchObject({ opens: at('09:00'), closes: at('11:59'), reach: at('12:45') })
    // Half of 45 is 22.5 minutes more.
    expect(line().sitting[2]!.spans[0]!.reach).toBe('2030-05-14T13:07:30.000Z')
  })
  it('marks the latest start and the due time on the lane', () => {
    const windows = [{ ...sampleWindow, latestStart: at('10:30'), due: at('11:30') }]
    const spans = line({ ...rules, windows }).sitting[0]!.spans
    expect(spans[0]!.marks).toEqual([
      { at: at('11:30'), words: 'due', sort: 'due' },
      { at: at('10:30'), words: 'last start', sort: 'last' },
    ])
    expect(spans[0]!.reach).toBe(at('11:16'))
  })
  it('has a lane for each facet that is ever shown, with a span for each instant at which it comes', () => {
    const { release } = line()
    expect(release.map((lane) => lane.facet)).toEqual([
      'score',
      'grade',
      'questions',
      'answers',
      'marks',
      'key',
      'comments',
    ])
    expect(release.find((lane) => lane.facet === 'questions')!.spans.map((span) => [span.groups, span.from])).toEqual([
      [['Tuesday'], '2030-05-14T13:07:30.000Z'],
      [['Saturday'], at('12:46', '2030-05-18')],
    ])
    expect(release.find((lane) => lane.facet === 'key')!.spans).toMatchObject([
      { groups: ['Tuesday', 'Saturday'], leak: null },
    ])
  })
  it('marks what leaks', () => {
    const leaky = {
      ...rules,
      release: { ...rules.release, key: { ...rules.release.key, from: { at: 'windowClosed' as const, offset: 0 } } },
    }
    const { spans } = line(leaky).release.find((lane) => lane.facet === 'key')!
    expect(spans.map((span) => span.leak?.sitters ?? null)).toEqual([['c'], null])
  })
  it('reaches from now or the first event to the last, and knows the due times', () => {
    expect(line()).toMatchObject({ starts: at('08:00'), dues: [at('11:00', '2030-05-18')] })
  })
})
