import { z } from 'zod'
import { isNumberText, numberAdvice } from '../../kit/number-text'

const decimal = z.string().trim().refine(isNumberText, numberAdvice)

/** A computation as authors write it; `vary/expression.ts` says what is understood. */
export const expression = z
  .string()
  .trim()
  .min(1, 'Write a computation.')
  .max(200, 'A computation has at most 200 characters.')

const over = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('range'), from: decimal, to: decimal, step: decimal }),
  /** Numbers or words. */
  z.strictObject({
    by: z.literal('list'),
    values: z.array(z.string().trim().min(1).max(80)).min(1, 'Give at least one value.').max(200),
  }),
  /** Computed from the variables above it. */
  z.strictObject({ by: z.literal('computed'), as: expression }),
])

/** How a question varies from paper to paper (semantics §2): named variables, and conditions between them. */
export const vary = z.strictObject({
  variables: z
    .array(
      z.strictObject({
        name: z
          .string()
          .regex(/^[a-zA-Z][a-zA-Z0-9_]{0,19}$/, 'A name begins with a letter and has letters, digits and _ only.'),
        over,
      }),
    )
    .min(1)
    .max(20),
  conditions: z.array(expression).max(10),
})
export type Vary = z.infer<typeof vary>
export type Variable = Vary['variables'][number]

/** Values of a varying question's variables on one paper; decimals as text, or words. Empty for a question that does not vary. */
export type Values = Readonly<Record<string, string>>

/** A computation within a text: `{= speed * time}`, or `{= speed * time ; 1}` with one decimal. */
export const placeholder = /\{=\s*([^{};]{1,200}?)\s*(?:;\s*(\d{1,2})\s*)?\}/g
export const hasPlaceholder = (text: string) => new RegExp(placeholder.source).test(text)
