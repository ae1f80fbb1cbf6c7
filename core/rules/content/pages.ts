import { z } from 'zod'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const pagesSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('all') }),
  z.strictObject({ by: z.literal('section') }),
  z.strictObject({ by: z.literal('count'), count: z.int().min(1).max(50) }),
])
/** How much of a paper is shown at once. */
export type Pages = z.infer<typeof pagesSchema>

const wordsOf = (value: Pages) =>
  value.by === 'all' ? 'all together' : value.by === 'section' ? 'by section' : `${value.count} to a page`

/** How a paper is parted into pages (semantics §3). */
export const pages: Rule<Pages> = {
  title: 'pages',
  chapter: 'sitting',
  schema: pagesSchema,
  usual: { by: 'section' },
  sentences: (value) => [
    {
      key: 'pages',
      pieces: [
        'Questions are shown ',
        choice(
          'Pages',
          ['content', 'pages'],
          value,
          [
            { value: { by: 'all' }, label: 'all together' },
            { value: { by: 'section' }, label: 'by section' },
            {
              value: { by: 'count', count: 1 },
              label: 'to a page',
              fill: { key: 'count', sort: 'number', label: 'Questions to a page', min: 1, max: 50 },
            },
          ],
          wordsOf(value),
        ),
        '.',
      ],
    },
  ],
  words: wordsOf,
}
