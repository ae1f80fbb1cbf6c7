import { expect, it } from 'vitest'
import { namelessTitle, sealNameless } from './nameless'

const paper = { id: 'k2m4p6', state: 'handed' as const, score: '2', possible: '3', percent: '66.7' }

it('lets out what is named, and nothing else', () => {
  const whole = { ...paper, number: 2, startedAt: 'x', handedInAt: 'y', daysLate: 1, minutesOver: 3, endedBy: 'clock' }
  expect(sealNameless(whole)).toEqual(paper)
})
it('lets nothing out of a paper under way', () => {
  expect(sealNameless({ ...paper, state: 'open' })).toBeNull()
})
it('names a paper by the end of its id', () => {
  expect(namelessTitle('k2m4p6')).toBe('Paper m4p6')
})
