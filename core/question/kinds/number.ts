import { z } from 'zod'
import { certain } from '../../kit/chances'
import { Fraction, clamp, exact, roundHalfAway, roundToFigures } from '../../kit/exact'
import { isNumberText, numberAdvice, numberForPeople, valueForPeople } from '../../kit/number-text'
import { readQuantity } from '../../kit/quantity'
import { unitNamed, unitNames } from '../../kit/units'
import { html } from '../html-schema'
import type { Kind } from './kind'

/** An exact number, or a computation in a question that varies. */
const decimal = z
  .string()
  .trim()
  .refine((text) => isNumberText(text) || /^\{=[^{}]{1,210}\}$/.test(text), numberAdvice)

/** How near an answer has to be (QTI `equal` with toleranceMode, `equalRounded` with roundingMode). */
export const nearness = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('absolute'), tolerance: decimal }),
  /** Share of |key|: "0.02" is two per cent. */
  z.strictObject({ by: z.literal('relative'), tolerance: decimal }),
  z.strictObject({ by: z.literal('figures'), digits: z.int().min(1).max(15) }),
  z.strictObject({ by: z.literal('decimals'), digits: z.int().min(0).max(12) }),
  /** From so much below the key to so much above it; null is without end. `open` bounds are outside themselves. */
  z.strictObject({
    by: z.literal('between'),
    below: decimal.nullable(),
    above: decimal.nullable(),
    open: z.enum(['none', 'below', 'above', 'both']),
  }),
])
export type Nearness = z.infer<typeof nearness>

/** Accepted numbers of one question. */
export const mostNumbers = 40

export const numberBody = z.strictObject({
  answers: z
    .array(
      z.strictObject({
        value: decimal,
        near: nearness,
        credit: z.number().min(0).max(1).multipleOf(0.01).default(1),
        comment: html.default(''),
      }),
    )
    .max(mostNumbers, `A question has at most ${mostNumbers} accepted numbers.`),
  /** Words before the field: "Height". */
  label: z.string().max(60).default(''),
  unit: z.string().max(20).default(''),
  /** The student writes the unit; other units of the same quantity are converted. */
  unitAsked: z.boolean().default(false),
  style: z.enum(['point', 'comma']).default('point'),
})
export type NumberBody = z.infer<typeof numberBody>

export const textAnswer = z.strictObject({
  text: z.string().max(2_000, 'This answer is longer than 2,000 characters.'),
})
export type TextAnswer = z.infer<typeof textAnswer>

/** Decides in exact arithmetic, bounds inclusive (semantics §2): 0.3 is within 0.1 of 0.2. */
export function isNear(value: Fraction, key: Fraction, near: Nearness): boolean {
  switch (near.by) {
    case 'absolute':
      return value.sub(key).abs().compare(exact(near.tolerance)) <= 0
    case 'relative':
      return (
        value
          .sub(key)
          .abs()
          .compare(key.abs().mul(exact(near.tolerance))) <= 0
      )
    case 'figures':
      return roundToFigures(value, near.digits).equals(roundToFigures(key, near.digits))
    case 'decimals':
      return roundHalfAway(value, near.digits).equals(roundHalfAway(key, near.digits))
    case 'between':
      return isBetween(value.sub(key), near)
  }
}

/** @param off from the key */
function isBetween(off: Fraction, { below, above, open }: Extract<Nearness, { by: 'between' }>): boolean {
  const within = (room: Fraction, isOpen: boolean) => (isOpen ? room.compare(0) > 0 : room.compare(0) >= 0)
  return (
    (below === null || within(off.add(exact(below)), open === 'below' || open === 'both')) &&
    (above === null || within(exact(above).sub(off), open === 'above' || open === 'both'))
  )
}

function best(body: NumberBody, text: string): NumberBody['answers'][number] | undefined {
  const read = readQuantity(text, body)
  if (!read.ok) return undefined
  return body.answers
    .filter((answer) => isNear(read.value, exact(answer.value), answer.near))
    .sort((a, b) => b.credit - a.credit)[0]
}

function nearText(near: Nearness, value: string): string {
  switch (near.by) {
    case 'absolute':
      return Number(near.tolerance) ? ` ± ${numberForPeople(near.tolerance)}` : ''
    case 'relative':
      return ` ± ${near.tolerance.startsWith('{=') ? near.tolerance : valueForPeople(exact(near.tolerance).mul(100))} %`
    case 'figures':
      return ` to ${near.digits} significant figures`
    case 'decimals':
      return ` to ${near.digits} decimals`
    case 'between':
      return betweenText(near, value)
  }
}

function betweenText({ below, above, open }: Extract<Nearness, { by: 'between' }>, value: string): string {
  if (value.startsWith('{=')) return ` (− ${below ?? 'any'}, + ${above ?? 'any'})`
  const bound = (by: string, sign: 1 | -1) => valueForPeople(exact(value).add(exact(by).mul(sign)))
  const low = below === null ? '' : `${open === 'below' || open === 'both' ? 'above' : 'from'} ${bound(below, -1)}`
  const high = above === null ? '' : `${open === 'above' || open === 'both' ? 'below' : 'up to'} ${bound(above, 1)}`
  return ` (${[low, high].filter(Boolean).join(', ') || 'any number'})`
}

/** Whether a number that is accepted is so by its own bounds; of what is computed nobody knows yet. */
function acceptsItself(value: string, near: Nearness): boolean {
  const said = [
    value,
    ...('tolerance' in near ? [near.tolerance] : near.by === 'between' ? [near.below, near.above] : []),
  ]
  const isKnown = said.every((each) => each === null || /^-?\d/.test(each))
  return !isKnown || isNear(exact(value), exact(value), near)
}

/** A number (QTI textEntryInteraction, float): tolerance, rounding, units. */
export const number: Kind<NumberBody, TextAnswer> = {
  name: 'number',
  label: 'Number',
  body: numberBody,
  answer: textAnswer,
  blank: () => ({
    answers: [{ value: '0', near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' }],
    label: '',
    unit: '',
    unitAsked: false,
    style: 'point',
  }),
  keylessFaults: () => [],
  faults(body) {
    const faults: string[] = []
    if (!body.answers.length) faults.push('Give at least one accepted number.')
    if (!body.answers.some((answer) => answer.credit === 1)) faults.push('No accepted number earns full credit.')
    if (
      body.answers.some(({ near }) =>
        ('tolerance' in near ? [near.tolerance] : near.by === 'between' ? [near.below, near.above] : []).some(
          (each) => each !== null && Number(each) < 0,
        ),
      )
    )
      faults.push('A tolerance cannot be below 0.')
    else
      for (const { value, near } of body.answers)
        if (!acceptsItself(value, near))
          faults.push(`The number ${value} is shown as right, but its own bounds leave it out. Choose one within them.`)
    if (body.unitAsked && !unitNamed(body.unit))
      faults.push(`Choose a unit that can be converted (${unitNames.join(', ')}) to ask for it.`)
    return faults
  },
  options: () => [],
  score(body, answer) {
    const met = best(body, answer.text)
    return {
      fraction: met ? clamp(new Fraction(0), exact(met.credit), new Fraction(1)) : new Fraction(0),
      parts: [{ part: met ? String(body.answers.indexOf(met)) : 'none', right: met?.credit === 1 }],
    }
  },
  isEmpty: (answer) => answer.text.trim() === '',
  guessable: () => null,
  guesses: () => certain(0),
  seal: (body) => ({
    asks: 'number',
    label: body.label,
    unit: body.unitAsked ? '' : body.unit,
    style: body.style,
    unitAsked: body.unitAsked,
  }),
  open: (answer) => answer,
  close: (answer) => answer,
  solution(body) {
    const full = body.answers.find((answer) => answer.credit === 1)
    return {
      text: full
        ? `${numberForPeople(full.value, body.style === 'comma')}${body.unitAsked ? ` ${body.unit}` : ''}`
        : '',
    }
  },
  keyText: (body) =>
    body.answers
      .filter((answer) => answer.credit === 1)
      .map(
        (answer) =>
          `${numberForPeople(answer.value)}${nearText(answer.near, answer.value)}${body.unit ? ' ' + body.unit : ''}`,
      )
      .join(' or '),
  answerText: (body, answer) =>
    answer.text.trim() +
    (body.unit && !body.unitAsked && answer.text.trim() && !/[a-z°%]/i.test(answer.text) ? ' ' + body.unit : ''),
  comments(body, answer) {
    const comment = best(body, answer.text)?.comment
    return comment ? [comment] : []
  },
  mapHtml: (body, map) => ({
    ...body,
    answers: body.answers.map((answer, i) => ({ ...answer, comment: map(answer.comment, `answer:${i}:comment`) })),
  }),
}
