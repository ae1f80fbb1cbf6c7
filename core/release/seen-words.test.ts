import { describe, expect, it } from 'vitest'
import { at } from '../../tests/fixtures/core'
import { usualRules } from '../quiz'
import { visibleFacets, type ReleaseContext } from './facets'
import { seenWords } from './seen-words'

const never = Object.fromEntries(
  Object.entries(usualRules.release).map(([name, rule]) => [name, { ...rule, from: { at: 'never' as const } }]),
) as typeof usualRules.release
const context: ReleaseContext = {
  handedInAt: at('09:30'),
  markedAt: at('09:30'),
  passed: true,
  attemptsUsedAt: null,
  due: null,
  classEnd: { is: 'at', at: at('12:00') },
  everyoneEnd: { is: 'never' },
  releasedAt: null,
  againUntil: { is: 'beforeAll' },
  viewed: [],
}
const words = (release: typeof never, now = at('10:00')) => seenWords(visibleFacets(release, context, now), 'UTC')

describe('what a student can see, in sentences', () => {
  const score = { ...never.score, from: { at: 'handIn' as const, offset: 0 } }
  const key = { ...never.key, from: { at: 'windowClosed' as const, offset: 0 } }
  it('says what is there, what comes next and when, and nothing of what never does or nobody foresees', () => {
    expect(words({ ...never, score, key })).toBe(
      'You can see your score. Then the correct answers, from Tue 14 May, 12:00.',
    )
    expect(words({ ...never, score, key }, at('12:00'))).toBe('You can see your score and the correct answers.')
    expect(words({ ...never, key })).toBe('You will see the correct answers, from Tue 14 May, 12:00.')
    expect(words({ ...never, comments: { ...never.comments, from: { at: 'everyoneDone', offset: 0 } } })).toBe('')
    expect(words(never)).toBe('')
  })
  it('does not tell by what is to come whether somebody has passed', () => {
    const certificate = { ...never.certificate, from: { at: 'windowClosed' as const, offset: 0 }, ifPassed: true }
    const after = (passed: boolean) =>
      seenWords(visibleFacets({ ...never, score, key, certificate }, { ...context, passed }, at('10:00')), 'UTC')
    expect(after(true)).toBe(after(false))
    expect(after(true)).toBe('You can see your score. Then the correct answers, from Tue 14 May, 12:00.')
  })
  it('says nothing of what was to be seen once and has been', () => {
    const once = { ...never, key: { ...key, once: true } }
    const seen = visibleFacets(once, { ...context, viewed: ['key'] }, at('12:30'))
    expect(seenWords(seen, 'UTC')).toBe('')
  })
})
