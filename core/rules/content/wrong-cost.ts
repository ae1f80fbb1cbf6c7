import { z } from 'zod'
import { percent } from '../../kit/phrases'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const costSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('none') }),
  z.strictObject({ by: z.literal('share'), share: z.number().min(0).max(1).multipleOf(0.01) }),
  z.strictObject({ by: z.literal('formula') }),
])
export type WrongCost = z.infer<typeof costSchema>

const formula = '1/(k − 1) of its points, for k options'
const wordsOf = (value: WrongCost) =>
  value.by === 'none' ? 'nothing' : value.by === 'formula' ? formula : `${percent(value.share)} of its points`

/** What a wrong answer to a single choice costs (semantics §2). */
export const wrongCost: Rule<WrongCost> = {
  title: 'cost of a wrong answer',
  chapter: 'marks',
  schema: costSchema,
  usual: { by: 'none' },
  sentences: (value) => [
    {
      key: 'wrongCost',
      pieces: [
        'A wrong answer to a single choice costs ',
        choice(
          'Cost of a wrong answer',
          ['content', 'wrongCost'],
          value,
          [
            { value: { by: 'none' }, label: 'nothing' },
            {
              value: { by: 'share', share: 0.25 },
              label: '% of its points',
              fill: { key: 'share', sort: 'number', label: 'Percent of its points', min: 0, max: 100, per: 100 },
            },
            { value: { by: 'formula' }, label: formula },
          ],
          wordsOf(value),
        ),
        '.',
      ],
    },
  ],
  told: (value) =>
    value.by === 'none' ? [] : ['A wrong answer to a single choice costs points; leaving it out does not.'],
  words: wordsOf,
}
