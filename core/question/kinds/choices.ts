import { z } from 'zod'
import { choose, share } from '../../kit/counting'
import { gathered, type Chances } from '../../kit/chances'
import { Fraction, atLeast, exact, sum } from '../../kit/exact'
import {
  credit,
  creditBounds,
  inHundredths,
  mostOf,
  nothingToEarn,
  shareOf,
  sharesOf,
  spreadOf,
  stepped,
} from './credits'
import type { Kind } from './kind'
import { letter } from './letter'
import { closeIds, layout, openIds, optionBase, optionFaults, optionWords, sealedOptions } from './options'

export const choicesBody = z.strictObject({
  options: z
    .array(
      optionBase.extend({
        right: z.boolean(),
        /** What choosing it adds under the rule "credits" (QTI mapEntry). */
        credit: credit.default(0),
      }),
    )
    .max(30, 'A question has at most 30 options.'),
  inOrder: z.boolean().default(false),
  layout: layout.default('list'),
  /** How a fraction is formed: semantics §2. */
  rule: z.enum(['all', 'share', 'credits']),
  ...creditBounds,
  /** Tells students how many options are right. */
  tellHowMany: z.boolean().default(false),
})
export type ChoicesBody = z.infer<typeof choicesBody>

export const choicesAnswer = z.strictObject({ chosen: z.array(z.string().max(24)).max(30) })
export type ChoicesAnswer = z.infer<typeof choicesAnswer>

/** All that right options add. */
export const allCredits = (body: ChoicesBody): Fraction =>
  sum(body.options.filter((option) => option.credit > 0).map((option) => exact(option.credit)))

function fractionOf(body: ChoicesBody, chosen: Set<string>): Fraction {
  const right = body.options.filter((option) => option.right)
  const wrong = body.options.filter((option) => !option.right)
  const r = right.filter((option) => chosen.has(option.id)).length
  const w = wrong.filter((option) => chosen.has(option.id)).length
  switch (body.rule) {
    case 'all':
      return new Fraction(r === right.length && w === 0 ? 1 : 0)
    case 'share': {
      const cost = wrong.length ? new Fraction(w, wrong.length) : new Fraction(0)
      return atLeast(0, new Fraction(r, Math.max(1, right.length)).sub(cost))
    }
    case 'credits':
      return shareOf(
        body,
        allCredits(body),
        sum(body.options.filter((option) => chosen.has(option.id)).map((option) => exact(option.credit))),
      )
  }
}

/** By how many right and how many wrong options are chosen: the rules "all" and "share" look at nothing else. */
function guessesByNumber(body: ChoicesBody): Chances {
  const right = body.options.filter((option) => option.right).map((option) => option.id)
  const wrong = body.options.filter((option) => !option.right).map((option) => option.id)
  const all = body.tellHowMany ? choose(body.options.length, right.length) : 2n ** BigInt(body.options.length) - 1n
  return gathered(
    [...right.keys(), right.length].flatMap((r) =>
      [...wrong.keys(), wrong.length]
        .filter((w) => (body.tellHowMany ? r + w === right.length : r + w > 0))
        .map((w) => {
          const fraction = fractionOf(body, new Set([...right.slice(0, r), ...wrong.slice(0, w)]))
          return [fraction, share(choose(right.length, r) * choose(wrong.length, w), all)] as const
        }),
    ),
  )
}

/** By the sum of credits, in steps, and how many options are chosen: every set of options by dynamic programming. */
function guessesByCredit(body: ChoicesBody): Chances {
  const options = body.options.map((option) => [inHundredths(option.credit)])
  const { step, rows } = stepped(options, spreadOf(options))
  const credits = rows.flat()
  const low = credits.filter((credit) => credit < 0).reduce((a, b) => a + b, 0)
  const width = credits.reduce((all, credit) => all + Math.abs(credit), 0) + 1
  const sizes = credits.length + 1
  let sets = new Float64Array(sizes * width)
  sets[-low] = 1
  for (const credit of credits) {
    const next = sets.slice()
    for (let size = 0; size + 1 < sizes; size++)
      for (let at = Math.max(0, -credit); at < width - Math.max(0, credit); at++)
        next[(size + 1) * width + at + credit]! += sets[size * width + at]!
    sets = next
  }
  const told = body.options.filter((option) => option.right).length
  const counts: [number, number][] = []
  let all = 0
  for (let size = 1; size < sizes; size++) {
    if (body.tellHowMany && size !== told) continue
    for (let at = 0; at < width; at++) {
      const count = sets[size * width + at]!
      if (count) counts.push([at + low, count])
      all += count
    }
  }
  return sharesOf(
    body,
    inHundredths(allCredits(body)),
    counts.map(([earned, count]) => [earned * step, count / all]),
  )
}

/** Options whose credit and mark as right say different things: the key that is shown is not the one that is scored. */
function disagreements(body: ChoicesBody): string[] {
  return body.options.flatMap((option, i) => {
    const name = `Option ${letter(i)}`
    if (option.right && option.credit <= 0) return `${name} is marked as right, but choosing it earns nothing.`
    if (!option.right && option.credit > 0) return `${name} earns credit, but is not marked as right.`
    return []
  })
}

/** Multiple choice (QTI choiceInteraction with several choices): all or nothing, right less wrong share, or credits. */
export const choices: Kind<ChoicesBody, ChoicesAnswer> = {
  name: 'choices',
  label: 'Choices',
  body: choicesBody,
  answer: choicesAnswer,
  blank: () => ({
    options: ['a', 'b', 'c', 'd'].map((id) => ({
      id,
      html: '',
      comment: '',
      fixed: false,
      right: id < 'c',
      credit: id < 'c' ? 1 : -1,
    })),
    inOrder: false,
    layout: 'list',
    rule: 'share',
    lower: 0,
    upper: null,
    tellHowMany: false,
  }),
  keylessFaults: (body) => [
    ...optionFaults(body.options, 2),
    ...(body.tellHowMany ? ['It tells how many are right, and has no key.'] : []),
  ],
  faults(body) {
    const faults = optionFaults(body.options, 2)
    if (!body.options.some((option) => option.right)) faults.push('No option is marked as right. Mark at least one.')
    if (body.rule === 'credits' && mostOf(body, allCredits(body)).compare(0) <= 0) faults.push(nothingToEarn)
    return body.rule === 'credits' ? [...faults, ...disagreements(body)] : faults
  },
  options: (body) => body.options.map(({ id, fixed }) => ({ id, fixed: fixed || body.inOrder })),
  score(body, answer) {
    const chosen = new Set(answer.chosen)
    return {
      fraction: fractionOf(body, chosen),
      parts: body.options.map((option) => ({ part: option.id, right: option.right === chosen.has(option.id) })),
    }
  },
  isEmpty: (answer) => answer.chosen.length === 0,
  guessable: () => null,
  guesses: (body) => (body.rule === 'credits' ? guessesByCredit(body) : guessesByNumber(body)),
  seal: (body, placed) => ({
    asks: 'several',
    options: sealedOptions(body.options, placed),
    layout: body.layout,
    exactly: body.tellHowMany ? body.options.filter((option) => option.right).length : null,
  }),
  open: (answer, placed) => ({ chosen: openIds(answer.chosen, placed) }),
  close: (answer, placed) => ({ chosen: closeIds(answer.chosen, placed) }),
  solution: (body) => ({
    chosen: body.options
      .filter((option) => (body.rule === 'credits' ? option.credit > 0 : option.right))
      .map((option) => option.id),
  }),
  keyText: (body) =>
    optionWords(
      body.options,
      body.options.filter((option) => option.right).map((option) => option.id),
    ),
  answerText: (body, answer) => optionWords(body.options, answer.chosen),
  comments: (body, answer) =>
    body.options
      .filter((option) => answer.chosen.includes(option.id) && option.comment)
      .map((option) => option.comment),
  mapHtml: (body, map) => ({
    ...body,
    options: body.options.map((option) => ({
      ...option,
      html: map(option.html, `option:${option.id}`),
      comment: map(option.comment, `option:${option.id}:comment`),
    })),
  }),
}
