import { z } from 'zod'
import { language } from './language'
import { html } from './html-schema'
import { kindNames, kindOf, type BodyOf, type KindName } from './kinds'
import { vary } from './vary/schema'

export const id = z.string().regex(/^[a-zA-Z0-9_-]{1,40}$/, 'This is not an id that Thistle gave.')

/** Points, from 0 to 1000 in hundredths. */
export const points = z
  .number('Points are a number.')
  .min(0, 'Points cannot be below 0.')
  .max(1000, 'A question has at most 1000 points.')
  .multipleOf(0.01, 'Points go in hundredths.')

/** What a student may use for one question. */
export const toolNames = ['calculator', 'scrap paper'] as const

const common = {
  /** For teachers; never shown to students. */
  internalName: z.string().trim().max(160).default(''),
  language: language.default('en'),
  stem: html,
  points,
  /** Expected working time: the median, in seconds. */
  seconds: z
    .int()
    .min(5, 'The expected time is at least 5 seconds.')
    .max(7200, 'The expected time is at most two hours.'),
  difficulty: z.int().min(1).max(5),
  objectives: z
    .array(id)
    .max(10, 'A question has at most ten objectives.')
    .overwrite((ids) => [...new Set(ids)])
    .default([]),
  tags: z.array(z.string().trim().min(1).max(40)).max(20).default([]),
  source: z.string().trim().max(200).default(''),
  comments: z
    .strictObject({ right: html.default(''), wrong: html.default(''), general: html.default('') })
    .default({ right: '', wrong: '', general: '' }),
  /** Given one after another where the quiz allows it; never on a sheet before. */
  hints: z.array(html).max(5, 'A question has at most five hints.').default([]),
  tools: z.array(z.enum(toolNames)).max(toolNames.length).default([]),
  /** Null for a question that is the same on every paper. */
  vary: vary.nullable().default(null),
  /** By language, texts by their key (see texts.ts). What is missing stays in the first language. */
  translations: z.record(language, z.record(z.string().max(60), html)).default({}),
  /** It has no key: for surveys, and for what is asked beside a quiz. Nothing of it is marked, and it is worth no points. */
  keyless: z.boolean().default(false),
  /** A passage, table, picture or sound that it shares with others. */
  stimulus: id.nullable().default(null),
  /** Year or level of those it is meant for, in the school's own words. */
  grade: z.string().trim().max(40).default(''),
  /** Thinking level by scheme of the school. */
  levels: z.record(id, id).default({}),
  /** The school's own fields. */
  fields: z.record(id, z.string().trim().max(400)).default({}),
}

type Common = z.infer<z.ZodObject<typeof common, z.core.$strict>>
/** One version of a question, as an author writes it. */
export type Question = { [K in KindName]: Common & { kind: K; body: BodyOf<K> } }[KindName]

const ofKind = (name: KindName) => z.strictObject({ ...common, kind: z.literal(name), body: kindOf(name).body })
export const question = z.discriminatedUnion(
  'kind',
  kindNames.map(ofKind) as [ReturnType<typeof ofKind>],
) as unknown as z.ZodType<Question, QuestionInput>
/** As it may be written: what has a usual value may be left out. */
type QuestionInput = {
  kind: KindName
  body: unknown
  stem: string
  points: number
  seconds: number
  difficulty: number
} & Partial<Record<Exclude<keyof Common, 'stem' | 'points' | 'seconds' | 'difficulty'>, unknown>>
