import { z } from 'zod'
import { html } from '../question/html-schema'
import { id, points, question } from '../question/schema'
import { stimulus } from '../question/stimulus'
import { contentRules } from '../rules/content'
import { ownPages } from '../rules/content/pages'
import { quizRules } from '../rules/registry'
import type { ValuesOf } from '../rules/rule'
import { minutes } from '../rules/values'
import { schemasOf } from '../rules/values-of'
import { band } from './closing'
import { condition, mostHeld } from './condition'

export type { Band } from './closing'
export type { Pages } from '../rules/content/pages'
export type { WrongCost } from '../rules/content/wrong-cost'

const title = z.string().trim().min(1, 'Give it a title.').max(160, 'A title has at most 160 characters.')

/** What a pool may be spread over: main objective, difficulty, or each pair of both. */
export const spreads = ['none', 'objectives', 'difficulty', 'both'] as const
export type Spread = (typeof spreads)[number]

/** In which order options stand on papers: as the quiz says, or as this row does. */
export const optionOrders = ['quiz', 'shuffled', 'kept'] as const
export type OptionOrder = (typeof optionOrders)[number]

/** What all rows have that give questions. */
const giving = {
  id,
  points,
  /** Keeps its place where its section is shuffled. */
  fixed: z.boolean().default(false),
  /** A paper is not handed in by hand without an answer to it. */
  required: z.boolean().default(false),
  options: z.enum(optionOrders).default('quiz'),
}

export const row = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('question'),
    ...giving,
    question: id,
    /** The version that it stays at; null is the newest one at opening. */
    version: z.int().min(1).max(1_000_000).nullable().default(null),
  }),
  z
    .strictObject({
      type: z.literal('pool'),
      ...giving,
      title: z.string().trim().max(160).default(''),
      /** What it holds; found anew by its condition, where it has one. */
      questions: z.array(id).max(mostHeld, `A pool holds at most ${mostHeld} questions.`),
      condition: condition.nullable().default(null),
      draw: z.int().min(1, 'A pool draws at least one question.').max(200),
      /** What is given by its share of the pool on every paper, as near as whole questions allow (semantics §4.3). */
      spread: z.enum(spreads).default('none'),
    })
    .refine((pool) => pool.condition !== null || pool.questions.length > 0, 'A pool holds at least one question.')
    .refine((pool) => pool.condition === null || !pool.questions.length, 'A pool has a list or a condition, not both.'),
  // The questions of one stimulus stay together: all of them, or as many as are drawn.
  z.strictObject({
    type: z.literal('stimulus'),
    ...giving,
    stimulus: id,
    questions: z.array(id).min(1, 'A stimulus group holds at least one question.').max(200),
    draw: z.int().min(1, 'A stimulus group gives at least one question.').max(200),
    order: z.enum(['kept', 'shuffled']).default('kept'),
  }),
  z.strictObject({ type: z.literal('text'), id, html }),
  // What follows begins a page, where pages are parted by hand.
  z.strictObject({ type: z.literal('break'), id }),
])
export type Row = z.infer<typeof row>
/** A row as it may be written: what has a usual value may be left out. */
export type RowInput = z.input<typeof row>
/** A row that gives questions. */
export type GivingRow = Extract<Row, { points: number }>
export type PoolRow = Extract<Row, { type: 'pool' }>
export type GroupRow = Extract<Row, { type: 'stimulus' }>
/** A row that holds questions of which a paper gets some. */
export type DrawRow = PoolRow | GroupRow

export const section = z.strictObject({
  id,
  title,
  intro: html.default(''),
  order: z.enum(['kept', 'shuffled']),
  /** How it is parted into pages; null is as the quiz says. */
  pages: ownPages.nullable().default(null),
  /** Minutes of a clock of its own; null for none (semantics §4.7). */
  limit: minutes
    .min(1, 'A section’s clock is at least a minute.')
    .max(1440, 'A section’s clock is at most a day.')
    .nullable()
    .default(null),
  /** What it is about. */
  objectives: z.array(id).max(20, 'A section has at most 20 objectives.').default([]),
  rows: z.array(row).max(300, 'A section has at most 300 rows.'),
})
export type Section = z.infer<typeof section>
export type SectionInput = z.input<typeof section>

/** What is frozen at opening. */
export const content = z.strictObject({
  title,
  intro: html.default(''),
  sections: z.array(section).min(1, 'A quiz has at least one section.').max(40),
  /** What it is about: some question on every paper should be on each of them. */
  objectives: z.array(id).max(40, 'A quiz has at most 40 objectives.').default([]),
  /** What each question of a new row is worth; null is as the question says. */
  rowPoints: points.nullable().default(null),
  /** Read by everybody after handing in: what to do next. */
  after: html.default(''),
  /** Closing words by score (core/quiz/closing.ts). */
  closing: z.array(band).max(20, 'There are at most 20 bands of closing words.').default([]),
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

export { accommodation, noAccommodation, type Accommodation, type Given, type Student } from './accommodation'
