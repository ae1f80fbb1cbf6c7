import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { noAccommodation } from '../quiz'
import { maySit } from './may-sit'
import { scheduleFor } from './schedule'
import { dueFor, windowThatCounts } from './due'

/** Of two classes: the one's window is due early, the other's late; both are open at 10:00. */
const rules = sampleRules({
  windows: [
    { ...sampleWindow, id: 'early', classes: ['c1'], opens: at('09:00'), closes: at('11:00'), due: at('10:30') },
    { ...sampleWindow, id: 'late', classes: ['c2'], opens: at('09:30'), closes: at('15:00'), due: at('14:00') },
    { ...sampleWindow, id: 'evening', classes: ['c2'], opens: at('18:00'), closes: at('20:00'), due: at('19:00') },
  ],
})
const student = { ...sampleStudent(), classes: ['c1', 'c2'] }
const told = (time: string, attempts: { state: 'open' | 'handed'; window: string }[] = []) => {
  const sat = attempts.map(({ state }, i) => ({
    number: i + 1,
    state: state === 'open' ? ('sitting' as const) : state,
    handedInAt: state === 'open' ? null : at('09:00'),
  }))
  const may = maySit(
    'open',
    scheduleFor(rules, student),
    { passed: null, percent: null, undecided: false, missed: 'some', attempts: sat },
    at(time),
    'UTC',
  )
  return dueFor(rules, student, windowThatCounts(rules, student, { may, attempts }, at(time)))
}

describe('when a quiz is due for a student of two classes', () => {
  it('is the due time of the window in which they would start: the one that ends latest', () => {
    expect(told('10:00')).toBe(at('14:00'))
    expect(told('09:10')).toBe(at('10:30'))
  })
  it('is that of the paper under way, wherever they could start now', () => {
    expect(told('10:00', [{ state: 'open', window: 'early' }])).toBe(at('10:30'))
  })
  it('is that of the next window while they wait', () => {
    expect(told('16:00')).toBe(at('19:00'))
  })
  it('is that of their last paper when nothing more comes', () => {
    expect(told('21:00', [{ state: 'handed', window: 'early' }])).toBe(at('10:30'))
    expect(told('21:00')).toBeNull()
  })
  it('is later for whom everything is later', () => {
    const later = { ...student, accommodations: [{ ...noAccommodation, laterMinutes: 60 }] }
    expect(dueFor(rules, later, 'early')).toBe(at('11:30'))
    expect(dueFor(rules, later, 'gone')).toBeNull()
  })
})
