import { z } from 'zod'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const names = ['before', 'begun'] as const
const options = [
  { value: 'before', label: 'before they start' },
  { value: 'begun', label: 'only once they have begun' },
]

/** When the instructions of a quiz can be read: what must not be known before is kept for those who have begun. */
export const introShown: Rule<(typeof names)[number]> = {
  title: 'instructions',
  chapter: 'page',
  schema: z.enum(names),
  usual: 'before',
  sentences: (value, { quiz }) =>
    quiz.content.intro
      ? [
          {
            key: 'introShown',
            pieces: [
              'Students read the instructions ',
              choice('Instructions', ['content', 'introShown'], value, options),
              '.',
            ],
          },
        ]
      : [],
  words: (value) => options.find((option) => option.value === value)!.label,
}
