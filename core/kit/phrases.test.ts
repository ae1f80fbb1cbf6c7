import { describe, expect, it } from 'vitest'
import { clockTime, count, duration, list, longDate, percent, sentenceTime } from './phrases'

describe('words for people', () => {
  it('times in a zone, across the day line and summer time', () => {
    expect(sentenceTime('2030-05-14T23:30:00.000Z', 'Europe/London')).toBe('Wed 15 May, 00:30')
    expect(sentenceTime('2030-01-14T23:30:00.000Z', 'Europe/London')).toBe('Mon 14 Jan, 23:30')
    expect(sentenceTime('2030-05-14T00:00:00.000Z', 'Pacific/Kiritimati')).toBe('Tue 14 May, 14:00')
    expect([clockTime('2030-05-14T08:05:09.000Z', 'UTC'), clockTime('2030-05-14T08:05:09.000Z', 'UTC', true)]).toEqual([
      '08:05',
      '08:05:09',
    ])
    expect(longDate('2030-12-31T23:30:00.000Z', 'Europe/Berlin')).toBe('1 January 2031')
  })
  it.each([
    [0, '0 minutes'],
    [1, '1 minute'],
    [45, '45 minutes'],
    [60, '1 hour'],
    [90, '1 hour 30 minutes'],
    [1440, '1 day'],
    [1441, '1 day 1 minute'],
    [2 * 1440 + 120, '2 days 2 hours'],
    [67.5, '1 hour 7 minutes 30 seconds'],
  ])('%d minutes are %s', (minutes, words) => expect(duration(minutes)).toBe(words))
  it.each([
    [['a'], 'a'],
    [['a', 'b'], 'a and b'],
    [['a', 'b', 'c'], 'a, b and c'],
    [[], ''],
  ])('%j is %s', (words, text) => expect(list(words)).toBe(text))
  it('numbers with their words', () =>
    expect([
      count(1, 'question'),
      count(2, 'question'),
      count(0, 'child', 'children'),
      percent('5/8'),
      percent('1/3', 1),
    ]).toEqual(['1 question', '2 questions', '0 children', '63 %', '33.3 %']))
})

describe('durations to the second', () => {
  it.each([
    [0, '0 minutes'],
    [1, '1 minute'],
    [13.7, '13 minutes 42 seconds'],
    [73.7, '1 hour 13 minutes 42 seconds'],
    [13.700000000000003, '13 minutes 42 seconds'],
    [0.5, '30 seconds'],
    [59.9999999, '1 hour'],
    [1440, '1 day'],
    [1441.0166, '1 day 1 minute 1 second'],
    [90, '1 hour 30 minutes'],
  ])('%s minutes are %s', (minutes, words) => expect(duration(minutes)).toBe(words))
})
