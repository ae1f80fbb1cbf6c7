import { z } from 'zod'
import { makesGrade } from './counts'
import { slot } from './pieces'
import type { Rule, Slot } from './rule'

/** Where the grade stands in the gradebook: its category and its period, as the school calls them. */
export interface GradebookPlace {
  category: string | null
  period: string | null
}

const longest = 60
const name = z.string().trim().min(1, 'A name has at least one character.').max(longest).nullable()

const place = (part: keyof GradebookPlace, title: string, value: GradebookPlace, none: string): Slot =>
  slot(title, ['rules', 'gradebook', part], value[part], value[part] === null ? none : `“${value[part]}”`, {
    sort: 'text',
    longest,
    none: `No ${part}`,
  })

const words = ({ category, period }: GradebookPlace) => [category, period].filter(Boolean).join(', ') || 'no place'

export const gradebook: Rule<GradebookPlace> = {
  title: 'gradebook',
  chapter: 'marks',
  schema: z.strictObject({ category: name, period: name }),
  usual: { category: null, period: null },
  sentences: (value, { quiz }) =>
    makesGrade(quiz.rules.counts)
      ? [
          {
            key: 'gradebook',
            pieces: [
              'In the gradebook it stands under ',
              place('category', 'Category', value, 'no category'),
              ' in ',
              place('period', 'Period', value, 'no period'),
              '.',
            ],
          },
        ]
      : [],
  words,
}
