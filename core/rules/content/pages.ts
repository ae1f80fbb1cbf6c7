import { z } from 'zod'
import { choice } from '../pieces'
import type { Rule } from '../rule'

const parted = [
  z.strictObject({ by: z.literal('section') }),
  z.strictObject({ by: z.literal('count'), count: z.int().min(1).max(50) }),
  z.strictObject({ by: z.literal('breaks') }),
] as const
const pagesSchema = z.discriminatedUnion('by', [z.strictObject({ by: z.literal('all') }), ...parted])
/** How much of a paper is shown at once. */
export type Pages = z.infer<typeof pagesSchema>

/** What one section may say instead: on a page of its own, n each, or where breaks stand in it. */
export const ownPages = z.discriminatedUnion('by', [...parted])
export type OwnPages = z.infer<typeof ownPages>

export function pagesWords(value: Pages): string {
  switch (value.by) {
    case 'all':
      return 'all together'
    case 'section':
      return 'by section'
    case 'count':
      return `${value.count} to a page`
    case 'breaks':
      return 'page by page, parted by hand'
  }
}

/** How a paper is parted into pages (semantics §3). */
export const pages: Rule<Pages> = {
  title: 'pages',
  chapter: 'page',
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
            { value: { by: 'breaks' }, label: pagesWords({ by: 'breaks' }) },
          ],
          pagesWords(value),
        ),
        '.',
      ],
    },
  ],
  words: pagesWords,
}
