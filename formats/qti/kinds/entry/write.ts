import { exact } from '../../../../core/kit/exact'
import { nearestNumberText } from '../../../../core/kit/number-text'
import type { Question } from '../../../../core/question'
import { element, type XmlElement } from '../../../xml'
import {
  base,
  declaration,
  firstOf,
  mappedBy,
  mapping,
  outcome,
  stem,
  variable,
  worth,
  type Parts,
  type ShownWhen,
} from '../writing'
import { patternFor } from './patterns'
import { plainNumber } from './typed'

type NumberBody = Extract<Question, { kind: 'number' }>['body']
type NumberAnswer = NumberBody['answers'][number]
type TextBody = Extract<Question, { kind: 'text' }>['body']
type TextAnswer = TextBody['answers'][number]

const isComputed = (text: string) => text.startsWith('{=')

/** The key stands first: it says the range in which the answer has to lie (QTI 2.1 §15.3 equal). */
function isNumber({ value, near }: NumberAnswer, identifier: string): XmlElement {
  const pair = [base('float', value), variable(identifier)]
  const equal = (attributes: Record<string, string | boolean | null>) => element('equal', attributes, pair)
  switch (near.by) {
    case 'absolute':
      return Number(near.tolerance) === 0
        ? equal({ toleranceMode: 'exact' })
        : equal({ toleranceMode: 'absolute', tolerance: `${near.tolerance} ${near.tolerance}` })
    case 'relative': {
      // Below 0 the standard's range would stand on its head.
      if (!isComputed(value) && Number(value) < 0) {
        const by = nearestNumberText(exact(value).abs().mul(exact(near.tolerance)))
        return equal({ toleranceMode: 'absolute', tolerance: `${by} ${by}` })
      }
      const percent = isComputed(near.tolerance) ? near.tolerance : nearestNumberText(exact(near.tolerance).mul(100))
      return equal({ toleranceMode: 'relative', tolerance: `${percent} ${percent}` })
    }
    case 'figures':
      return element('equalRounded', { roundingMode: 'significantFigures', figures: near.digits }, pair)
    case 'decimals':
      return element('equalRounded', { roundingMode: 'decimalPlaces', figures: near.digits }, pair)
    case 'between': {
      const { below, above, open } = near
      if (below !== null && above !== null)
        return equal({
          toleranceMode: 'absolute',
          tolerance: `${below} ${above}`,
          includeLowerBound: open === 'below' || open === 'both' ? false : null,
          includeUpperBound: open === 'above' || open === 'both' ? false : null,
        })
      const bound = (by: string, sign: 1 | -1) =>
        isComputed(value)
          ? element(sign > 0 ? 'sum' : 'subtract', {}, base('float', value), base('float', by))
          : base('float', nearestNumberText(exact(value).add(exact(by).mul(sign))))
      if (below !== null)
        return element(open === 'below' || open === 'both' ? 'gt' : 'gte', {}, variable(identifier), bound(below, -1))
      if (above !== null)
        return element(open === 'above' || open === 'both' ? 'lt' : 'lte', {}, variable(identifier), bound(above, 1))
      return element('not', {}, element('isNull', {}, variable(identifier)))
    }
  }
}

const wraps = { is: ['', ''], begins: ['', '.*'], contains: ['.*', '.*'], ends: ['.*', ''] } as const

function isText(answer: TextAnswer, body: TextBody, identifier: string): XmlElement {
  const [caseMatters, accentsMatter] = [
    answer.caseMatters ?? body.caseMatters,
    answer.accentsMatter ?? body.accentsMatter,
  ]
  if (answer.how === 'is' && accentsMatter)
    return element(
      'stringMatch',
      { caseSensitive: caseMatters, substring: false },
      variable(identifier),
      base('string', answer.text),
    )
  const [before, after] = answer.how === 'matches' ? ['', ''] : wraps[answer.how]
  const pattern =
    answer.how === 'matches' ? answer.text : before + patternFor(answer.text, caseMatters, accentsMatter) + after
  return element('patternMatch', { pattern }, variable(identifier))
}

export interface Accepted {
  condition: XmlElement
  credit: number
  comment: string
}

/** Accepted answers, the best first. */
const byCredit = <T extends { credit: number }>(answers: readonly T[]) =>
  [...answers].sort((a, b) => b.credit - a.credit)

export const acceptedNumbers = (body: NumberBody, identifier: string): Accepted[] =>
  byCredit(body.answers).map((answer) => ({
    condition: isNumber(answer, identifier),
    credit: answer.credit,
    comment: answer.comment,
  }))
export const acceptedTexts = (body: TextBody, identifier: string): Accepted[] =>
  byCredit(body.answers).map((answer) => ({
    condition: isText(answer, body, identifier),
    credit: answer.credit,
    comment: answer.comment,
  }))

/** A comment on an accepted answer is shown for the first that is met. */
export const commentsOn = (accepted: readonly Accepted[]): ShownWhen[] =>
  accepted.flatMap(({ condition, comment }, i) =>
    comment
      ? [
          {
            html: comment,
            when: i
              ? element(
                  'and',
                  {},
                  accepted.slice(0, i).map((each) => element('not', {}, each.condition)),
                  condition,
                )
              : condition,
          },
        ]
      : [],
  )

const scored = (question: Question, accepted: readonly Accepted[]): XmlElement[] => [
  firstOf(
    accepted.map(({ condition, credit }) => ({ condition, then: outcome(base('float', worth(question, credit))) })),
  ),
]

export function number(question: Extract<Question, { kind: 'number' }>): Parts {
  const { answers, label, unit } = question.body
  const accepted = acceptedNumbers(question.body, 'RESPONSE')
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'float',
        byCredit(answers)
          .slice(0, 1)
          .map((answer) => answer.value),
      ),
    ],
    body: [
      ...stem(question),
      element(
        'p',
        {},
        label ? `${label} ` : null,
        element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: 12 }),
        unit ? ` ${unit}` : null,
      ),
    ],
    rules: scored(question, accepted),
    comments: commentsOn(accepted),
    responses: ({ text: typed }: { text: string }) => ({ RESPONSE: plainNumber(typed) }),
  }
}

/** Compared letter by letter, with capitals as each entry says: then a mapping says it all. */
export const isMapped = (body: TextBody): boolean =>
  body.answers.every((answer) => answer.how === 'is' && (answer.accentsMatter ?? body.accentsMatter)) &&
  new Set(body.answers.map((answer) => answer.text)).size === body.answers.length

export function text(question: Extract<Question, { kind: 'text' }>): Parts {
  const { answers, caseMatters, label, longest } = question.body
  const whole = isMapped(question.body)
  const accepted = acceptedTexts(question.body, 'RESPONSE')
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'string',
        byCredit(answers)
          .filter((answer) => answer.how !== 'matches')
          .slice(0, 1)
          .map((answer) => answer.text),
        whole
          ? mapping(
              byCredit(answers).map((answer) => ({
                key: answer.text,
                worth: worth(question, answer.credit),
                caseSensitive: answer.caseMatters ?? caseMatters,
              })),
            )
          : null,
      ),
    ],
    body: [
      ...stem(question),
      element(
        'p',
        {},
        label ? `${label} ` : null,
        element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: longest }),
      ),
    ],
    ...(whole ? { template: 'map_response' as const } : {}),
    rules: whole ? mappedBy('mapResponse') : scored(question, accepted),
    comments: commentsOn(accepted),
    responses: ({ text: typed }: { text: string }) => ({ RESPONSE: typed.trim() ? [typed.trim()] : [] }),
  }
}
