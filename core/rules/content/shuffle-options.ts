import { z } from 'zod'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const options = [
  { value: true, label: 'shuffled' },
  { value: false, label: 'in the order written' },
]

/** Whether options of questions come in an order of their own on each paper (semantics §4). */
export const shuffleOptions: Rule<boolean> = {
  title: 'options',
  chapter: 'page',
  schema: z.boolean(),
  usual: true,
  sentences: (value) => [
    {
      key: 'options',
      pieces: ['Options come ', choice('Options', ['content', 'shuffleOptions'], value, options), '.'],
    },
  ],
  words: (value) => options.find((option) => option.value === value)!.label,
}
