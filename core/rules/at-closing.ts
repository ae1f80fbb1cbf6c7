import { z } from 'zod'
import { list } from '../kit/phrases'
import { look } from '../quiz/check/check'
import { setAt } from '../quiz/edits/make'
import { choice } from './pieces'
import type { Rule } from './rule'

const names = ['clock', 'window'] as const
const options = [
  { value: 'clock', label: 'let their clock run out' },
  { value: 'window', label: 'end the paper with the window' },
]

/** When the window closes on somebody still working: the student's clock wins, or the window does (semantics §5). */
export const atClosing: Rule<(typeof names)[number]> = {
  title: 'at the closing of the window',
  chapter: 'sitting',
  schema: z.enum(names),
  usual: 'clock',
  sentences: (value, { quiz: { rules } }) =>
    rules.limit === null || !rules.windows.some((window) => window.closes)
      ? []
      : [
          {
            key: 'atClosing',
            pieces: [
              'If the window closes on someone still working, ',
              choice('At the closing of the window', ['rules', 'atClosing'], value, options),
              '.',
            ],
          },
        ],
  told: (value, { schedule }) =>
    schedule.limit !== null && value === 'window'
      ? ['The paper also ends when the window closes, even if your time is not up.']
      : [],
  checks(value, quiz, { students }) {
    const extended = students.filter(({ schedule }) => schedule.extra > 0 && !schedule.stretchWindow)
    if (value !== 'window' || !extended.length) return []
    const names = list(extended.slice(0, 4).map(({ name }) => name))
    const more = extended.length > 4 ? ` and ${extended.length - 4} more` : ''
    return [
      look(
        'extra-cut',
        'rules',
        'Extra time may be cut off',
        `The window wins over the clock: ${names}${more} ${extended.length === 1 ? 'loses' : 'lose'} extra time when starting late.`,
        { label: 'Let their clock run out', edit: setAt(quiz, ['rules', 'atClosing'], 'clock') },
      ),
    ]
  },
  words: (value) => options.find((option) => option.value === value)!.label,
}
