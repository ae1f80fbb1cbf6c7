import { z } from 'zod'
import type { WindowRule } from '../rule'

/** A password of one session alone, in place of the quiz's; null for none of its own. The record never repeats it. */
export const password: WindowRule<string | null> = {
  title: 'password of the window',
  schema: z.string().trim().min(1, 'A password has at least one character.').max(80).nullable(),
  usual: null,
  // It is set where the quiz's is.
  pieces: () => [],
  words: (value) => (value === null ? 'none' : 'set'),
}
