import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleWindow } from '../../tests/fixtures/core'
import type { Rules } from '../quiz'
import { whoSits } from '.'

const classes = [
  { id: 'tue', name: 'Tuesday evening' },
  { id: 'sat', name: 'Saturday morning' },
]
const window = (id: string, named: string[], over: Partial<Rules['windows'][number]> = {}) => ({
  ...sampleWindow,
  id,
  classes: named,
  ...over,
})
const said = (rules: Partial<Rules>, now: string, state: Parameters<typeof whoSits>[1] = 'open', of = classes) =>
  whoSits(sampleRules(rules), state, of, at(now), 'UTC')

describe('who can see and sit a quiz', () => {
  const tuesday = { windows: [window('w1', ['tue'], { opens: at('19:00'), closes: at('21:00') })] }
  it.each([
    [
      'before it opens',
      said(tuesday, '09:00'),
      'Tuesday evening can sit it from Tue 14 May, 19:00; Saturday morning does not see it.',
    ],
    [
      'not announced',
      said({ ...tuesday, announced: false }, '09:00'),
      'Tuesday evening can sit it from Tue 14 May, 19:00, and does not see it before; Saturday morning does not see it.',
    ],
    [
      'while it is open',
      said(tuesday, '20:00'),
      'Tuesday evening can sit it now, until Tue 14 May, 21:00; Saturday morning does not see it.',
    ],
    [
      'when it is over',
      said(tuesday, '22:00'),
      'Tuesday evening cannot begin it any more; Saturday morning does not see it.',
    ],
    [
      'a draft is spoken of as it would be opened',
      said(tuesday, '20:00', 'draft'),
      'Tuesday evening can sit it now, until Tue 14 May, 21:00; Saturday morning does not see it.',
    ],
    ['withdrawn', said(tuesday, '20:00', 'withdrawn'), 'Tuesday evening and Saturday morning cannot sit it.'],
    ['for nobody', said({ windows: [] }, '20:00'), 'Tuesday evening and Saturday morning do not see it.'],
    [
      'held back',
      said(tuesday, '20:00', 'open', [{ ...classes[0]!, held: true } as never]),
      'Tuesday evening does not see it, for all quizzes of the class are held back.',
    ],
    [
      'without an end',
      said({ windows: [window('w1', ['tue', 'sat'], { opens: at('08:00'), closes: null })] }, '09:00'),
      'Tuesday evening and Saturday morning can sit it now.',
    ],
    ['no classes', said(tuesday, '09:00', 'open', []), ''],
  ])('%s', (_words, found, expected) => expect(found).toBe(expected))
})
