/**
 * Rules of the trade with no single source: common practice, as docs/semantics.md states it. Formula scoring is
 * Frary (1988), "Formula scoring of multiple-choice tests (correction for guessing)", NCME Instructional Topics in
 * Educational Measurement: R − W/(k − 1).
 */
import { describe, expect, it } from 'vitest'
import { gradeFor, markAttempt, type GradedAttempt } from '../../core/marking'
import { compilePaper } from '../../core/paper'
import { clockFor, scheduleFor } from '../../core/schedule'
import { kindOf } from '../../core/question'
import { at, names, questionRow, sampleContent, sampleEdition, sampleRules, sampleStudent } from '../fixtures/core'
import { noAccommodation } from '../../core/quiz'

describe('formula scoring (Frary 1988)', () => {
  const edition = sampleEdition(
    sampleContent(
      names('q', 10).map((id) => questionRow(id)),
      { wrongCost: { by: 'formula' } },
    ),
  )
  const paper = compilePaper(edition, 'x', 1, [])
  const answers = (right: number, wrong: number) =>
    Object.fromEntries(
      paper.items
        .slice(0, right + wrong)
        .map((item, i) => [item.id, kindOf('choice').close({ chosen: [i < right ? 'b' : 'a'] }, item.options)]),
    )
  // R − W/(k − 1) with k = 4.
  it.each([
    [10, 0, '10'],
    [6, 3, '5'],
    [4, 6, '2'],
    [5, 0, '5'],
    [0, 10, '0'],
    [3, 4, '5/3'],
  ])('%i right and %i wrong of ten with four options', (right, wrong, score) => {
    expect(markAttempt(edition, paper, answers(right, wrong)).score).toBe(score)
  })
})

describe('clocks (common practice): limit 60 minutes, window to 11:59, start 11:50', () => {
  const started = { startedAt: at('11:50'), window: 'w1' }
  const deadline = (
    atClosing: 'clock' | 'window',
    accommodations = [{ ...noAccommodation, factor: 1, extraMinutes: 0, stretchWindow: false }],
  ) =>
    clockFor(
      scheduleFor(sampleRules({ limit: 60, atClosing }), sampleStudent({ accommodations })),
      started,
      at('11:50'),
    ).deadline
  it('the clock wins: 12:50', () => expect(deadline('clock')).toBe(at('12:50')))
  it('the window wins: 11:59', () => expect(deadline('window')).toBe(at('11:59')))
  it('time and a half of 60 is 90 minutes', () =>
    expect(deadline('clock', [{ ...noAccommodation, factor: 1.5, extraMinutes: 0, stretchWindow: false }])).toBe(
      '2030-05-14T13:20:00.000Z',
    ))
  it('extra time does not stretch a window that wins, unless the accommodation says so', () => {
    expect(deadline('window', [{ ...noAccommodation, factor: 1.5, extraMinutes: 0, stretchWindow: false }])).toBe(
      at('11:59'),
    )
    expect(deadline('window', [{ ...noAccommodation, factor: 1.5, extraMinutes: 0, stretchWindow: true }])).toBe(
      at('12:29'),
    )
  })
  it('of several accommodations the most generous counts for each quantity', () => {
    expect(
      deadline('clock', [
        { ...noAccommodation, factor: 1.25, extraMinutes: 10, stretchWindow: false },
        { ...noAccommodation, factor: 1.5, extraMinutes: 5, stretchWindow: false },
      ]),
    ).toBe('2030-05-14T13:30:00.000Z')
  })
})

describe('grading methods (common practice)', () => {
  const attempts: GradedAttempt[] = [
    ['4', '10'],
    ['9', '10'],
    ['1', '3'],
  ].map(([score, possible], i) => ({ number: i + 1, state: 'handed', score: score!, possible: possible!, daysLate: 0 }))
  const percent = (method: 'highest' | 'latest' | 'first' | 'average' | 'lowest') =>
    gradeFor(
      attempts,
      null,
      sampleRules({
        grade: { method, decimals: 1, pass: { by: 'percent', value: 60 }, scale: { by: 'percent' }, sections: [] },
      }),
    ).percent
  it.each([
    ['highest', '90.0'],
    ['latest', '33.3'],
    ['first', '40.0'],
    ['average', '54.4'],
    ['lowest', '33.3'],
  ] as const)('%s', (method, expected) => expect(percent(method)).toBe(expected))
})
