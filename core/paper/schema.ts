import { z } from 'zod'
import { sealedBody } from '../question/kinds/sealed'
import { id, toolNames } from '../question/schema'

/** One question on a paper. Ids are made per paper and mean nothing outside it. */
export const paperItem = z.strictObject({
  id,
  question: id,
  version: z.int(),
  section: id,
  row: id,
  points: z.number(),
  page: z.int(),
  options: z.array(z.strictObject({ id, option: z.string().max(60) })),
  /** Of a varying question on this paper. */
  values: z.record(z.string(), z.string()).optional(),
})
export type PaperItem = z.infer<typeof paperItem>

/** What one student gets in one attempt, as compiled and stored. */
export const paper = z.strictObject({
  edition: id,
  student: id,
  attempt: z.int(),
  items: z.array(paperItem),
  pages: z.int(),
  /** It holds only what was missed in the attempts from this one on. */
  missedSince: z.int().optional(),
})
export type Paper = z.infer<typeof paper>

/** The only form of a paper that leaves the server before a key is released (semantics §4.6). Strict: nothing else passes. */
export const sheet = z.strictObject({
  title: z.string(),
  intro: z.string(),
  movement: z.enum(['free', 'section', 'forward']),
  pages: z.int(),
  /** Languages that some of its texts can be read in; the one asked for, where one was. */
  languages: z.array(z.string()),
  language: z.string().nullable(),
  /** It may be read as each question was written: the quiz names no languages. */
  mixed: z.boolean(),
  /** Two languages may be read together. */
  sideBySide: z.boolean(),
  stimuli: z.array(z.strictObject({ html: z.string(), language: z.string() })),
  sections: z.array(
    z.strictObject({
      title: z.string(),
      intro: z.string(),
      /** It has a clock of its own. */
      clocked: z.boolean(),
      /** What waits in a section with a clock of its own that has not been entered: nothing of it is in the sheet. */
      waits: z.strictObject({ page: z.int(), questions: z.int(), points: z.number() }).nullable(),
      entries: z.array(
        z.discriminatedUnion('type', [
          z.strictObject({
            type: z.literal('question'),
            id: z.string(),
            number: z.int(),
            page: z.int(),
            points: z.number(),
            stem: z.string(),
            language: z.string(),
            tools: z.array(z.enum(toolNames)),
            /** It is not handed in by hand without an answer. */
            required: z.boolean(),
            body: sealedBody,
            /** Place of what it shares with others among the sheet's stimuli. */
            stimulus: z.int().nullable(),
          }),
          z.strictObject({ type: z.literal('text'), page: z.int(), html: z.string() }),
        ]),
      ),
    }),
  ),
})
export type Sheet = z.infer<typeof sheet>
export type SheetEntry = Sheet['sections'][number]['entries'][number]
export type SheetQuestion = Extract<SheetEntry, { type: 'question' }>
