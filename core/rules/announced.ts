import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const options = [
  { value: true, label: 'announced to them' },
  { value: false, label: 'not shown to them' },
]

/** Whether students see it before it opens (semantics §3). */
export const announced: Rule<boolean> = {
  title: 'beforehand',
  chapter: 'who',
  schema: z.boolean(),
  usual: true,
  sentences: (value) => [
    {
      key: 'announced',
      pieces: ['Beforehand it is ', choice('Announced', ['rules', 'announced'], value, options), '.'],
    },
  ],
  words: (value) => options.find((option) => option.value === value)!.label,
}
