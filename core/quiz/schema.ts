import { z } from 'zod'
import { html } from '../question/html-schema'
import { id, points, question } from '../question/schema'
import { stimulus } from '../question/stimulus'
import { contentRules } from '../rules/content'
import { quizRules } from '../rules/registry'
import type { ValuesOf } from '../rules/rule'
import { schemasOf } from '../rules/values-of'

export type { Pages } from '../rules/content/pages'
export type { WrongCost } from '../rules/content/wrong-cost'

const title = z.string().trim().min(1, 'Give it a title.').max(160, 'A title has at most 160 characters.')

/** What a pool may be spread over: main objective, difficulty, or each pair of both. */
export const spreads = ['none', 'objectives', 'difficulty', 'both'] as const
export type Spread = (typeof spreads)[number]

export const row = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('question'), id, question: id, points, fixed: z.boolean().default(false) }),
  z.strictObject({
    type: z.literal('pool'),
    id,
    title: z.string().trim().max(160).default(''),
    questions: z.array(id).min(1, 'A pool holds at least one question.').max(2000),
    draw: z.int().min(1, 'A pool draws at least one question.').max(200),
    points,
    fixed: z.boolean().default(false),
    /** What is given by its share of the pool on every paper, as near as whole questions allow (semantics §4.3). */
    spread: z.enum(spreads).default('none'),
  }),
  // The questions of one stimulus stay together: all of them, or as many as are drawn.
  z.strictObject({
    type: z.literal('stimulus'),
    id,
    stimulus: id,
    questions: z.array(id).min(1, 'A stimulus group holds at least one question.').max(200),
    draw: z.int().min(1, 'A stimulus group gives at least one question.').max(200),
    order: z.enum(['kept', 'shuffled']).default('kept'),
    points,
    fixed: z.boolean().default(false),
  }),
  z.strictObject({ type: z.literal('text'), id, html }),
])
export type Row = z.infer<typeof row>
export type PoolRow = Extract<Row, { type: 'pool' }>
export type GroupRow = Extract<Row, { type: 'stimulus' }>
/** A row that holds questions of which a paper gets some. */
export type DrawRow = PoolRow | GroupRow

export const section = z.strictObject({
  id,
  title,
  intro: html.default(''),
  order: z.enum(['kept', 'shuffled']),
  rows: z.array(row).max(300, 'A section has at most 300 rows.'),
})
export type Section = z.infer<typeof section>

/** What is frozen at opening. */
export const content = z.strictObject({
  title,
  intro: html.default(''),
  sections: z.array(section).min(1, 'A quiz has at least one section.').max(40),
  ...schemasOf(contentRules),
})
export type Content = z.infer<typeof content>

export type Window = Rules['windows'][number]

/** What stays living after opening; each change is versioned. Each rule is one file in core/rules. */
export const rules = z.strictObject(schemasOf(quizRules))
export type Rules = ValuesOf<typeof quizRules>

export const quiz = z.strictObject({ content, rules })
export type Quiz = z.infer<typeof quiz>

/** The frozen content of a quiz that students sit (semantics §3). Question texts are as shown: cleaned, maths rendered. */
export const edition = z.strictObject({
  id,
  number: z.int(),
  content,
  /** Hexadecimal; seeds every paper. Never leaves the server. */
  secret: z.string().regex(/^[0-9a-f]{64}$/),
  questions: z.record(id, z.strictObject({ version: z.int(), question })),
  /** What its questions share. */
  stimuli: z.record(id, stimulus).default({}),
})
export type Edition = z.infer<typeof edition>

/** A number of people's own, or of this quiz: extra time. */
export const accommodation = z.strictObject({
  factor: z.number().min(1, 'A time factor is at least 1.').max(5, 'A time factor is at most 5.').multipleOf(0.01),
  extraMinutes: z.number().min(0).max(600).multipleOf(0.5),
  /** Extra time also stretches the window's end. */
  stretchWindow: z.boolean(),
})
export type Accommodation = z.infer<typeof accommodation>
export const noAccommodation: Accommodation = { factor: 1, extraMinutes: 0, stretchWindow: false }

/** A student as the schedule needs one. */
export interface Student {
  id: string
  name: string
  classes: string[]
  accommodations: Accommodation[]
}
