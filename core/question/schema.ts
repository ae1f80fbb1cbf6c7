import { z } from 'zod'
import { html } from './html'
import { choiceBody } from './kinds/choice'
import { choicesBody } from './kinds/choices'
import { numberBody } from './kinds/number'
import { textBody } from './kinds/text'

export const id = z.string().regex(/^[a-zA-Z0-9_-]{1,40}$/, 'This is not an id that Thistle gave.')

/** Points, from 0 to 1000 in hundredths. */
export const points = z.number('Points are a number.').min(0, 'Points cannot be below 0.').max(1000, 'A question has at most 1000 points.').multipleOf(0.01, 'Points go in hundredths.')

const common = {
  /** For teachers; never shown to students. */
  internalName: z.string().trim().max(160).default(''),
  language: z.string().regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/).default('en'),
  stem: html,
  points,
  /** Expected working time: the median, in seconds. */
  seconds: z.int().min(5, 'The expected time is at least 5 seconds.').max(7200, 'The expected time is at most two hours.'),
  difficulty: z.int().min(1).max(5),
  objectives: z.array(id).max(10).default([]),
  tags: z.array(z.string().trim().min(1).max(40)).max(20).default([]),
  source: z.string().trim().max(200).default(''),
  comments: z.strictObject({ right: html.default(''), wrong: html.default(''), general: html.default('') }).default({ right: '', wrong: '', general: '' }),
}

/** One version of a question, as an author writes it. */
export const question = z.discriminatedUnion('kind', [
  z.strictObject({ ...common, kind: z.literal('choice'), body: choiceBody }),
  z.strictObject({ ...common, kind: z.literal('choices'), body: choicesBody }),
  z.strictObject({ ...common, kind: z.literal('trueFalse'), body: choiceBody }),
  z.strictObject({ ...common, kind: z.literal('number'), body: numberBody }),
  z.strictObject({ ...common, kind: z.literal('text'), body: textBody }),
])
export type Question = z.infer<typeof question>
