import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const options = [
  { value: true, label: 'see how far they are' },
  { value: false, label: 'do not see how far they are' },
]

/** Whether students see a line of the questions, with what they have answered. Before handing in they always read what is left. */
export const progress: Rule<boolean> = {
  title: 'progress',
  chapter: 'page',
  schema: z.boolean(),
  usual: true,
  sentences: (value) => [
    { key: 'progress', pieces: ['They ', choice('Progress', ['rules', 'progress'], value, options), '.'] },
  ],
  words: (value) => (value ? 'shown' : 'not shown'),
}
