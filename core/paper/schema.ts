import { z } from 'zod'
import { id } from '../question/schema'

/** One question on a paper. Ids are made per paper and mean nothing outside it. */
export const paperItem = z.strictObject({
  id,
  question: id,
  version: z.int(),
  section: id,
  row: id,
  points: z.number(),
  page: z.int(),
  options: z.array(z.strictObject({ id, option: id })),
})
export type PaperItem = z.infer<typeof paperItem>

/** What one student gets in one attempt, as compiled and stored. */
export const paper = z.strictObject({ edition: id, student: id, attempt: z.int(), items: z.array(paperItem), pages: z.int() })
export type Paper = z.infer<typeof paper>

const sealedOption = z.strictObject({ id: z.string(), html: z.string() })

/** The only form of a paper that leaves the server before a key is released (semantics §4.6). Strict: nothing else passes. */
export const sheet = z.strictObject({
  title: z.string(),
  intro: z.string(),
  movement: z.enum(['free', 'forward']),
  pages: z.int(),
  sections: z.array(z.strictObject({
    title: z.string(),
    intro: z.string(),
    entries: z.array(z.discriminatedUnion('type', [
      z.strictObject({
        type: z.literal('question'), id: z.string(), number: z.int(), page: z.int(), points: z.number(), stem: z.string(), language: z.string(),
        body: z.discriminatedUnion('asks', [
          z.strictObject({ asks: z.literal('one'), options: z.array(sealedOption) }),
          z.strictObject({ asks: z.literal('several'), options: z.array(sealedOption), exactly: z.int().nullable() }),
          z.strictObject({ asks: z.literal('number'), label: z.string(), unit: z.string(), style: z.enum(['point', 'comma']), unitAsked: z.boolean() }),
          z.strictObject({ asks: z.literal('text'), label: z.string(), longest: z.int() }),
        ]),
      }),
      z.strictObject({ type: z.literal('text'), page: z.int(), html: z.string() }),
    ])),
  })),
})
export type Sheet = z.infer<typeof sheet>
export type SheetEntry = Sheet['sections'][number]['entries'][number]
export type SheetQuestion = Extract<SheetEntry, { type: 'question' }>
