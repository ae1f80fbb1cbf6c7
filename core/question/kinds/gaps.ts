import { z } from 'zod'
import { added, certain, gathered, mapped } from '../../kit/chances'
import { Fraction, atLeast, exact, sum } from '../../kit/exact'
import { plainText } from '../allowed-html'
import { html } from '../html-schema'
import { markedSpans, withSpans } from '../marked-spans'
import { choice, choiceBody } from './choice'
import type { Kind, PlacedOption } from './kind'
import { number, numberBody } from './number'
import { id, sealedOptions } from './options'
import { text, textBody } from './text'

const gapBase = {
  id: id.max(12),
  /** What it counts among the gaps. */
  weight: z.number().min(0.01).max(100).multipleOf(0.01).default(1),
}
const gap = z.discriminatedUnion('as', [
  z.strictObject({ ...gapBase, as: z.literal('text'), body: textBody }),
  z.strictObject({ ...gapBase, as: z.literal('number'), body: numberBody }),
  z.strictObject({ ...gapBase, as: z.literal('list'), body: choiceBody }),
])
export type Gap = z.infer<typeof gap>

export const gapsBody = z.strictObject({
  /** A text in which each gap stands as `<span data-gap="id">…</span>`; what is inside the mark never reaches a sheet. */
  text: html,
  gaps: z.array(gap).max(40, 'A text has at most 40 gaps.'),
  /** Each gap earns its share, or everything is earned only where all of them are fully right. */
  rule: z.enum(['share', 'all']).default('share'),
})
export type GapsBody = z.infer<typeof gapsBody>

/** By gap: what was typed, or the id of what was chosen. */
export const gapsAnswer = z.strictObject({
  gaps: z
    .record(z.string().max(24), z.string().max(500))
    .refine((gaps) => Object.keys(gaps).length <= 40, 'A text has at most 40 gaps.'),
})
export type GapsAnswer = z.infer<typeof gapsAnswer>

export const gapMark = 'data-gap'

/** Ids of the gaps that a text marks, in reading order. */
export function gapsMarked(source: string): string[] {
  return markedSpans(source, gapMark).map(({ mark }) => mark)
}

/** Each kind of gap is answered and marked as the question kind of that name. */
function inner(gap: Gap): { kind: Kind<unknown, unknown>; answer: (given: string) => unknown } {
  const kinds = { text, number, list: choice } as unknown as Record<Gap['as'], Kind<unknown, unknown>>
  return {
    kind: kinds[gap.as],
    answer: (given) => (gap.as === 'list' ? { chosen: given === '' ? [] : [given] } : { text: given }),
  }
}

function scoreGap(gap: Gap, given: string | undefined): Fraction {
  const { kind, answer } = inner(gap)
  const response = answer(given ?? '')
  return kind.isEmpty(response) ? new Fraction(0) : kind.score(gap.body, response).fraction
}

const optionId = (gap: string, option: string) => `${gap}.${option}`

function sealGap(gap: Gap, placed: PlacedOption[]) {
  const id = placed.find(({ option }) => option === gap.id)?.id ?? gap.id
  switch (gap.as) {
    case 'text':
      return { id, asks: 'text' as const, longest: gap.body.longest }
    case 'number':
      return {
        id,
        asks: 'number' as const,
        unit: gap.body.unitAsked ? '' : gap.body.unit,
        style: gap.body.style,
        unitAsked: gap.body.unitAsked,
      }
    case 'list':
      return {
        id,
        asks: 'list' as const,
        options: sealedOptions(
          gap.body.options.map((option) => ({ id: optionId(gap.id, option.id), html: option.html })),
          placed,
        ),
      }
  }
}

function reply(gap: Gap, given: string | undefined): string {
  const { kind, answer } = inner(gap)
  return given === undefined || given === '' ? '–' : kind.answerText(gap.body, answer(given))
}

function solutionOf(gap: Gap): string {
  const solved = inner(gap).kind.solution(gap.body) as { chosen?: string[]; text?: string } | null
  return solved?.chosen?.[0] ?? solved?.text ?? ''
}

/** A text with gaps to fill (QTI inline textEntryInteraction and inlineChoiceInteraction). */
export const gaps: Kind<GapsBody, GapsAnswer> = {
  name: 'gaps',
  label: 'Gaps',
  body: gapsBody,
  answer: gapsAnswer,
  stemOptional: true,
  blank: () => ({ text: '', gaps: [], rule: 'share' }),
  faults(body) {
    const marked = gapsMarked(body.text)
    const faults = body.gaps.flatMap((each, i) =>
      inner(each)
        .kind.faults(each.body)
        .map((fault) => `Gap ${i + 1}: ${fault}`),
    )
    if (!marked.length) faults.unshift('The text has no gap. Mark a word and make it one.')
    if (new Set(marked).size < marked.length) faults.push('A gap stands twice in the text. Take one out.')
    if (marked.some((id) => !body.gaps.some((each) => each.id === id)))
      faults.push('A gap in the text has no key. Take it out and mark the word anew.')
    if (body.gaps.some((each) => !marked.includes(each.id)))
      faults.push('A gap with a key no longer stands in the text.')
    return faults
  },
  options: (body) =>
    body.gaps.flatMap((each) => [
      { id: each.id, fixed: true, list: 'gaps' },
      ...(each.as === 'list'
        ? each.body.options.map((option) => ({
            id: optionId(each.id, option.id),
            fixed: option.fixed || each.body.inOrder,
            list: each.id,
          }))
        : []),
    ]),
  score(body, answer) {
    const all = sum(body.gaps.map((each) => exact(each.weight)))
    const scored = body.gaps.map((each) => ({ each, fraction: scoreGap(each, answer.gaps[each.id]) }))
    const whole = scored.every(({ fraction }) => fraction.equals(1))
    return {
      fraction: all.equals(0)
        ? new Fraction(0)
        : body.rule === 'all'
          ? new Fraction(whole ? 1 : 0)
          : atLeast(0, sum(scored.map(({ each, fraction }) => fraction.mul(exact(each.weight)))).div(all)),
      parts: scored.map(({ each, fraction }) => ({ part: each.id, right: fraction.equals(1) })),
    }
  },
  isEmpty: (answer) => Object.values(answer.gaps).every((given) => given.trim() === ''),
  guessable: () => null,
  guesses(body) {
    const all = sum(body.gaps.map((each) => exact(each.weight)))
    if (all.equals(0)) return certain(0)
    if (body.rule === 'all') {
      const full = (each: Gap) =>
        inner(each)
          .kind.guesses(each.body)
          .find(({ value }) => value === '1')?.chance ?? 0
      const chance = body.gaps.reduce((product, each) => product * full(each), 1)
      return gathered([
        [new Fraction(1), chance],
        [new Fraction(0), 1 - chance],
      ])
    }
    const earned = body.gaps
      .map((each) => mapped(inner(each).kind.guesses(each.body), (share) => share.mul(exact(each.weight)).div(all)))
      .reduce(added, certain(0))
    return mapped(earned, (share) => atLeast(0, share))
  },
  seal(body, placed) {
    const opaque = new Map(placed.map(({ id, option }) => [option, id]))
    return {
      asks: 'gaps',
      html: withSpans(body.text, gapMark, ({ mark }) => `<span data-gap="${opaque.get(mark) ?? ''}"></span>`),
      gaps: body.gaps.map((each) => sealGap(each, placed)),
    }
  },
  open(answer, placed) {
    const authored = new Map(placed.map(({ id, option }) => [id, option]))
    return {
      gaps: Object.fromEntries(
        Object.entries(answer.gaps).flatMap(([id, given]) => {
          const gapId = authored.get(id)
          if (gapId === undefined) return []
          const option = authored.get(given)
          return [[gapId, option?.startsWith(`${gapId}.`) ? option.slice(gapId.length + 1) : given]]
        }),
      ),
    }
  },
  close(answer, placed) {
    const opaque = new Map(placed.map(({ id, option }) => [option, id]))
    return {
      gaps: Object.fromEntries(
        Object.entries(answer.gaps).flatMap(([id, given]) => {
          const gapId = opaque.get(id)
          return gapId === undefined ? [] : [[gapId, opaque.get(optionId(id, given)) ?? given]]
        }),
      ),
    }
  },
  solution: (body) => ({ gaps: Object.fromEntries(body.gaps.map((each) => [each.id, solutionOf(each)])) }),
  keyText: (body) => body.gaps.map((each) => inner(each).kind.keyText(each.body)).join(' · '),
  answerText: (body, answer) => body.gaps.map((each) => reply(each, answer.gaps[each.id])).join(' · '),
  comments: (body, answer) =>
    body.gaps.flatMap((each) => {
      const { kind, answer: read } = inner(each)
      const given = answer.gaps[each.id]
      return given ? kind.comments(each.body, read(given)) : []
    }),
  mapHtml: (body, map) => ({
    ...body,
    text: map(body.text, 'text'),
    gaps: body.gaps.map(
      (each) =>
        ({
          ...each,
          body: inner(each).kind.mapHtml(each.body, (source, key) => map(source, `gap:${each.id}:${key}`)),
        }) as Gap,
    ),
  }),
}

/** The text with its gaps as lines to fill, in plain words. */
export function gapText(source: string): string {
  return plainText(withSpans(source, gapMark, () => ' ____ '))
}
