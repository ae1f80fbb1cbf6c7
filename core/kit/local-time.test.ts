import { describe, expect, it } from 'vitest'
import { fromLocal, toLocal } from './local-time'
import { duration, sentenceTime } from './phrases'

describe('local times of a school', () => {
  it('reads an ordinary time', () =>
    expect(fromLocal('2030-05-14T19:00', 'Europe/London')).toBe('2030-05-14T18:00:00.000Z'))
  it('moves a time that does not exist forward', () =>
    expect(fromLocal('2030-03-31T01:30', 'Europe/London')).toBe('2030-03-31T01:30:00.000Z'))
  it('takes the earlier of an ambiguous time', () =>
    expect(fromLocal('2030-10-27T01:30', 'Europe/London')).toBe('2030-10-27T00:30:00.000Z'))
  it('writes back what it read', () =>
    expect(toLocal(fromLocal('2030-05-14T19:00', 'Asia/Tokyo'), 'Asia/Tokyo')).toBe('2030-05-14T19:00'))
  it('refuses what is no time', () => expect(() => fromLocal('yesterday', 'UTC')).toThrow(RangeError))
})

describe('times and durations in words', () => {
  it('says day and time', () =>
    expect(sentenceTime('2026-11-24T19:00:00.000Z', 'Europe/London')).toBe('Tue 24 Nov, 19:00'))
  it.each([
    [45, '45 minutes'],
    [90, '1 hour 30 minutes'],
    [1440, '1 day'],
    [2 * 1440 + 61, '2 days 1 hour 1 minute'],
    [0, '0 minutes'],
    [67.5, '1 hour 7 minutes 30 seconds'],
  ])('%d minutes', (minutes, words) => expect(duration(minutes)).toBe(words))
})
