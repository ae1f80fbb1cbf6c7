import { z } from 'zod'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const names = ['free', 'section', 'forward'] as const
export type Movement = (typeof names)[number]
const options = [
  { value: 'free', label: 'in any order' },
  { value: 'section', label: 'section by section: one that they have left is closed' },
  { value: 'forward', label: 'forward only, page by page' },
]

/** In which order questions may be answered. */
export const movement: Rule<(typeof names)[number]> = {
  title: 'order of answering',
  chapter: 'page',
  schema: z.enum(names),
  usual: 'free',
  sentences: (value) => [
    { key: 'movement', pieces: ['They answer ', choice('Movement', ['content', 'movement'], value, options), '.'] },
  ],
  told: (value) =>
    value === 'section'
      ? ['You answer section by section: one that you have left cannot be changed.']
      : value === 'forward'
        ? ['You go through the pages forward only: a page that you have left cannot be changed.']
        : [],
  words: (value) => options.find((option) => option.value === value)!.label,
}
