import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const options = [
  { value: false, label: 'is not noted' },
  { value: true, label: 'is noted, with how long it was' },
]

/** A quiet record of leaving the page, for supervised sittings: a fact for the teacher, never a verdict, and said to students. */
export const watched: Rule<boolean> = {
  title: 'leaving the page',
  chapter: 'page',
  schema: z.boolean(),
  usual: false,
  sentences: (value) => [
    {
      key: 'watched',
      pieces: ['That somebody leaves the page ', choice('Leaving the page', ['rules', 'watched'], value, options), '.'],
    },
  ],
  told: (value) =>
    value ? ['It is noted when you leave the page while you sit it, and for how long; your teacher can read it.'] : [],
  words: (value) => (value ? 'noted' : 'not noted'),
}
