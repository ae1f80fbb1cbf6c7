import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const options = [
  { value: false, label: 'has to sit it' },
  { value: true, label: 'may sit it or leave it' },
]

/** Whether it is asked of those for whom it is, or left to them. */
export const voluntary: Rule<boolean> = {
  title: 'required or voluntary',
  chapter: 'who',
  schema: z.boolean(),
  usual: false,
  sentences: (value) => [
    {
      key: 'voluntary',
      pieces: ['Whoever it is for ', choice('Required or voluntary', ['rules', 'voluntary'], value, options), '.'],
    },
  ],
  told: (value) => (value ? ['It is voluntary: whoever leaves it out misses nothing.'] : []),
  words: (value) => (value ? 'voluntary' : 'required'),
}
