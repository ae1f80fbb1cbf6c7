import { z } from 'zod'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const options = [
  { value: false, label: 'is closed with its page' },
  { value: true, label: 'comes back at the end' },
]

/** Whether what is left empty can be put off, where questions are answered forward only. */
export const putOff: Rule<boolean> = {
  title: 'putting off',
  chapter: 'page',
  schema: z.boolean(),
  usual: false,
  sentences: (value, { quiz }) =>
    quiz.content.movement !== 'forward'
      ? []
      : [
          {
            key: 'putOff',
            pieces: ['What they leave empty ', choice('Putting off', ['content', 'putOff'], value, options), '.'],
          },
        ],
  told: (value, { quiz }) =>
    value && quiz.content.movement === 'forward' ? ['What you leave empty comes back at the end.'] : [],
  words: (value) => (value ? 'possible' : 'not possible'),
}
