import { z } from 'zod'
import { instant } from '../kit/instant'
import { html } from '../question/html'
import { id, points, question } from '../question/schema'
import { stimulus } from '../question/stimulus'
import { releaseRules } from '../release/schema'

const title = z.string().trim().min(1, 'Give it a title.').max(160, 'A title has at most 160 characters.')

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

/** How much of a paper is shown at once. */
export const pages = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('all') }),
  z.strictObject({ by: z.literal('section') }),
  z.strictObject({ by: z.literal('count'), count: z.int().min(1).max(50) }),
])
export type Pages = z.infer<typeof pages>

export const section = z.strictObject({
  id,
  title,
  intro: html.default(''),
  order: z.enum(['kept', 'shuffled']),
  rows: z.array(row).max(300, 'A section has at most 300 rows.'),
})
export type Section = z.infer<typeof section>

/** What a wrong answer costs (semantics §2). */
export const wrongCost = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('none') }),
  z.strictObject({ by: z.literal('share'), share: z.number().min(0).max(1).multipleOf(0.01) }),
  z.strictObject({ by: z.literal('formula') }),
])
export type WrongCost = z.infer<typeof wrongCost>

/** What is frozen at opening. */
export const content = z.strictObject({
  title,
  intro: html.default(''),
  sections: z.array(section).min(1, 'A quiz has at least one section.').max(40),
  shuffleOptions: z.boolean(),
  pages,
  movement: z.enum(['free', 'forward']),
  wrongCost,
})
export type Content = z.infer<typeof content>

export const window = z.strictObject({
  id,
  classes: z.array(id).min(1, 'A window is for at least one class.').max(60),
  opens: instant,
  closes: instant.nullable(),
  due: instant.nullable(),
  latestStart: instant.nullable(),
})
export type Window = z.infer<typeof window>

const minutes = z
  .number()
  .min(0)
  .max(60 * 24 * 366)
  .multipleOf(0.5)

export const gradeMethods = ['highest', 'latest', 'first', 'average', 'lowest'] as const

/** What stays living after opening; each change is versioned. Minutes are minutes of the clock. */
export const rules = z.strictObject({
  windows: z.array(window).max(60),
  announced: z.boolean(),
  limit: minutes.min(1, 'A time limit is at least a minute.').nullable(),
  grace: minutes.max(60, 'Grace is at most an hour.'),
  atDeadline: z.enum(['handIn', 'finish', 'unsent']),
  /** With "finish": how long after the deadline a student may go on; null is until the window ends. */
  overrun: minutes.nullable(),
  /** When the window closes on somebody still working: the student's clock wins, or the window does. */
  atClosing: z.enum(['clock', 'window']),
  late: z.strictObject({ accepted: z.boolean(), costPerDay: z.number().min(0).max(100).multipleOf(0.5) }),
  attempts: z.strictObject({
    count: z.int().min(1).max(100).nullable(),
    /** Minutes from handing in to the next start. */
    wait: minutes,
    draw: z.enum(['fresh', 'same']),
    untilPassed: z.boolean(),
    /** Percent of what was earned, for each further attempt. */
    cost: z.number().min(0).max(100).multipleOf(0.5),
  }),
  grade: z.strictObject({
    method: z.enum(gradeMethods),
    decimals: z.int().min(0).max(3),
    pass: z
      .strictObject({ by: z.enum(['percent', 'points']), value: z.number().min(0).max(100_000).multipleOf(0.001) })
      .nullable(),
  }),
  password: z.string().trim().min(1, 'A password has at least one character.').max(80).nullable(),
  release: releaseRules,
})
export type Rules = z.infer<typeof rules>

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
