import { z } from 'zod'
import { choice } from './pieces'
import type { Rule } from './rule'

const kinds = ['none', 'handedIn', 'answers'] as const
/** What somebody has in hand once they have handed in: that they did, or also what they answered. */
export type Receipt = (typeof kinds)[number]

const labels: Record<Receipt, string> = {
  none: 'no receipt',
  handedIn: 'a receipt that they have',
  answers: 'a receipt with what they answered',
}

export const receipt: Rule<Receipt> = {
  title: 'receipt',
  chapter: 'release',
  schema: z.enum(kinds),
  usual: 'handedIn',
  sentences: (value) => [
    {
      key: 'receipt',
      pieces: [
        'Whoever has handed in gets ',
        choice(
          'Receipt',
          ['rules', 'receipt'],
          value,
          kinds.map((each) => ({ value: each, label: labels[each] })),
        ),
        '.',
      ],
    },
  ],
  words: (value) => labels[value],
}
