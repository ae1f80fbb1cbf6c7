import { z } from 'zod'
import { gathered } from '../../kit/chances'
import { Fraction, exact } from '../../kit/exact'
import type { Kind } from './kind'
import { closeIds, layout, openIds, optionBase, optionFaults, optionWords, sealedOptions } from './options'

export const choiceBody = z.strictObject({
  options: z
    .array(
      optionBase.extend({
        /** Share of the points that choosing it earns, −1 to 1 (QTI mapping; 1 for one option and 0 for the rest is match_correct). */
        credit: z.number().min(-1).max(1).multipleOf(0.01),
      }),
    )
    .max(30, 'A choice has at most 30 options.'),
  /** Keeps the authored order on every paper. */
  inOrder: z.boolean().default(false),
  layout: layout.default('list'),
})
export type ChoiceBody = z.infer<typeof choiceBody>

export const choiceAnswer = z.strictObject({ chosen: z.array(z.string().max(24)).max(1, 'Choose one option.') })
export type ChoiceAnswer = z.infer<typeof choiceAnswer>

/** Single choice (QTI choiceInteraction with maxChoices 1): the chosen option's credit. */
export const choice: Kind<ChoiceBody, ChoiceAnswer> = {
  name: 'choice',
  label: 'Choice',
  body: choiceBody,
  answer: choiceAnswer,
  blank: () => ({
    options: ['a', 'b', 'c', 'd'].map((id) => ({
      id,
      html: '',
      comment: '',
      fixed: false,
      credit: id === 'a' ? 1 : 0,
    })),
    inOrder: false,
    layout: 'list',
  }),
  faults(body) {
    const faults = optionFaults(body.options, 2)
    if (!body.options.some((option) => option.credit === 1))
      faults.push('No option earns full credit. Mark one as right.')
    return faults
  },
  keylessFaults: (body) => optionFaults(body.options, 2),
  options: (body) => body.options.map(({ id, fixed }) => ({ id, fixed: fixed || body.inOrder })),
  score(body, answer) {
    const chosen = body.options.find((option) => option.id === answer.chosen[0])
    return {
      fraction: chosen ? exact(chosen.credit) : new Fraction(0),
      parts: body.options.map((option) => ({ part: option.id, right: (option.credit === 1) === (option === chosen) })),
    }
  },
  isEmpty: (answer) => answer.chosen.length === 0,
  guessable: (body) => (body.options.some((option) => option.credit < 0) ? null : body.options.length),
  guesses: ({ options }) => gathered(options.map(({ credit }) => [exact(credit), 1 / options.length])),
  seal: (body, placed) => ({ asks: 'one', options: sealedOptions(body.options, placed), layout: body.layout }),
  open: (answer, placed) => ({ chosen: openIds(answer.chosen, placed) }),
  close: (answer, placed) => ({ chosen: closeIds(answer.chosen, placed) }),
  solution: (body) => ({
    chosen: body.options
      .filter((option) => option.credit === 1)
      .slice(0, 1)
      .map((option) => option.id),
  }),
  keyText: (body) =>
    optionWords(
      body.options,
      body.options.filter((option) => option.credit === 1).map((option) => option.id),
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
