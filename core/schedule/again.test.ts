import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { usualRules } from '../quiz'
import { againUntil, limitsFor, mayAgain, scheduleFor } from '.'

const until = (over: Parameters<typeof sampleRules>[0], window = {}, startedAt = at('10:00')) => {
  const rules = sampleRules({
    attempts: { ...usualRules.attempts, again: true },
    windows: [{ ...sampleWindow, closes: at('12:00'), ...window }],
    ...over,
  })
  const schedule = scheduleFor(rules, sampleStudent())
  return againUntil(schedule, schedule.windows[0], limitsFor(schedule, { startedAt, window: sampleWindow.id }))
}

describe('taking a paper up again', () => {
  it.each([
    ['final', { attempts: usualRules.attempts }, {}, { is: 'beforeAll' }],
    ['the due time', { limit: null }, { due: at('11:00') }, { is: 'at', at: at('11:00') }],
    ['the end of the window without a due time', { limit: null }, {}, { is: 'at', at: at('12:00') }],
    ['the end of its own time', { limit: 45 }, { due: at('11:00') }, { is: 'at', at: at('10:45') }],
    [
      'its own time beyond the window, but not beyond the due time',
      { limit: 90, atClosing: 'clock' as const },
      { due: at('11:00') },
      { is: 'at', at: at('11:00') },
    ],
    ['never', { limit: null }, { closes: null }, { is: 'never' }],
  ])('until %s', (_words, rules, window, expected) => expect(until(rules, window)).toEqual(expected))

  it('ends when a teacher closes the window at once, whatever is due later', () => {
    const closed = { due: at('11:30'), closes: at('10:20'), closedAt: at('10:20') }
    expect(until({ limit: null }, closed)).toEqual({ is: 'at', at: at('10:20') })
  })

  const finished = {
    state: 'handed' as const,
    endedBy: 'student' as const,
    isLast: true,
    marking: false,
    isGiven: true,
  }
  const end = { is: 'at' as const, at: at('11:00') }
  it.each([
    [{}, at('10:59'), true],
    [{}, at('11:00'), 'It is too late to take this paper up again.'],
    [{ isLast: false }, at('10:30'), 'You have begun a further attempt: this one is as you handed it in.'],
    [{ endedBy: 'clock' as const }, at('10:30'), 'The time of this paper is up.'],
    [{ endedBy: 'teacher' as const }, at('10:30'), 'The time of this paper is up.'],
    [{ state: 'unsent' as const }, at('10:30'), 'The time of this paper is up.'],
    [{ state: 'open' as const }, at('10:30'), 'This paper is under way.'],
    [{ isGiven: false }, at('10:30'), 'This quiz is not open any more.'],
    [{ marking: true }, at('10:30'), 'Your teacher has begun to mark it.'],
  ])('%j at %s: %s', (over, now, expected) => {
    const found = mayAgain({ ...finished, ...over }, end, now)
    expect(found.may ? true : found.sentence).toBe(expected)
  })
})
