import { z } from 'zod'
import { slot } from './pieces'
import type { Rule } from './rule'

/** What a student has to know to start; null for nothing. The record never repeats it. */
export const password: Rule<string | null> = {
  title: 'password',
  chapter: 'sitting',
  schema: z.string().trim().min(1, 'A password has at least one character.').max(80).nullable(),
  usual: null,
  sentences: (value) => [
    {
      key: 'password',
      pieces: [
        'To start, they need ',
        slot('Password', ['rules', 'password'], value, value ? `the password “${value}”` : 'no password', {
          sort: 'text',
          longest: 80,
          none: 'No password',
        }),
        '.',
      ],
    },
  ],
  told: (value) => (value === null ? [] : ['You need a password to start; your teacher gives it to you.']),
  words: (value) => (value === null ? 'none' : 'set'),
  changed: (before, after) =>
    before && after
      ? ['password changed']
      : [`password ${before === null ? 'none' : 'set'} → ${after === null ? 'none' : 'set'}`],
}
