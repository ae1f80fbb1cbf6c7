import { z } from 'zod'
import { id } from './schema'

const name = (what: string, most = 80) =>
  z.string().trim().min(1, `Give ${what} a name.`).max(most, `A name has at most ${most} characters.`)
const unique = <T extends { id: string }>(list: T[]) => new Set(list.map((each) => each.id)).size === list.length

/** How a school describes its questions: schemes of thinking levels, fields of its own, grade levels. */
export const vocabulary = z.strictObject({
  schemes: z
    .array(
      z.strictObject({
        id,
        name: name('the scheme'),
        /** From the simplest up. */
        levels: z
          .array(z.strictObject({ id, name: name('the level') }))
          .min(1, 'A scheme has at least one level.')
          .max(12)
          .refine(unique, 'Two levels have the same id.'),
      }),
    )
    .max(6, 'A school keeps at most six schemes.')
    .refine(unique, 'Two schemes have the same id.'),
  /** Without values anything can be written. */
  fields: z
    .array(z.strictObject({ id, name: name('the field'), values: z.array(name('the value', 40)).max(60) }))
    .max(12, 'A school has at most twelve fields of its own.')
    .refine(unique, 'Two fields have the same id.'),
  grades: z.array(name('the grade level', 40)).max(30),
})
export type Vocabulary = z.infer<typeof vocabulary>

export const noVocabulary: Vocabulary = { schemes: [], fields: [], grades: [] }
