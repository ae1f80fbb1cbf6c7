import { z } from 'zod'
import { shape } from '../../kit/shapes'

const sealedOption = z.strictObject({ id: z.string(), html: z.string() })
const sealedNumber = { unit: z.string(), style: z.enum(['point', 'comma']), unitAsked: z.boolean() }

/**
 * The student's form of a body: one shape a way of asking, shared by kinds that are answered alike. Strict, because a
 * sheet is what passes here and nothing else (semantics §4.6).
 */
export const sealedBody = z.discriminatedUnion('asks', [
  z.strictObject({
    asks: z.literal('one'),
    options: z.array(sealedOption),
    layout: z.enum(['list', 'columns', 'row']),
  }),
  z.strictObject({
    asks: z.literal('several'),
    options: z.array(sealedOption),
    layout: z.enum(['list', 'columns', 'row']),
    exactly: z.int().nullable(),
  }),
  z.strictObject({ asks: z.literal('number'), label: z.string(), ...sealedNumber }),
  z.strictObject({ asks: z.literal('text'), label: z.string(), longest: z.int() }),
  z.strictObject({
    asks: z.literal('gaps'),
    html: z.string(),
    gaps: z.array(
      z.discriminatedUnion('asks', [
        z.strictObject({ id: z.string(), asks: z.literal('text'), longest: z.int() }),
        z.strictObject({ id: z.string(), asks: z.literal('number'), ...sealedNumber }),
        z.strictObject({ id: z.string(), asks: z.literal('list'), options: z.array(sealedOption) }),
      ]),
    ),
  }),
  /** `once`: each target takes one item (matching); otherwise any number (sorting). */
  z.strictObject({
    asks: z.literal('pairs'),
    items: z.array(sealedOption),
    targets: z.array(sealedOption),
    once: z.boolean(),
  }),
  /** Any number of columns in each row. */
  z.strictObject({ asks: z.literal('grid'), rows: z.array(sealedOption), columns: z.array(sealedOption) }),
  z.strictObject({ asks: z.literal('order'), items: z.array(sealedOption), layout: z.enum(['list', 'row']) }),
  z.strictObject({
    asks: z.literal('spot'),
    picture: z.string(),
    alt: z.string(),
    width: z.int(),
    height: z.int(),
    spots: z.int(),
  }),
  z.strictObject({
    asks: z.literal('places'),
    picture: z.string(),
    alt: z.string(),
    width: z.int(),
    height: z.int(),
    spots: z.int(),
    places: z.array(z.strictObject({ id: z.string(), label: z.string(), shape })),
  }),
  z.strictObject({ asks: z.literal('written'), longest: z.int(), lines: z.int() }),
  z.strictObject({ asks: z.literal('recording'), seconds: z.int() }),
])
export type SealedBody = z.infer<typeof sealedBody>
export type SealedGap = Extract<SealedBody, { asks: 'gaps' }>['gaps'][number]
