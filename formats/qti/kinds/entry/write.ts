import { exact } from '../../../../core/kit/exact'
import type { Question } from '../../../../core/question'
import { element, type XmlElement } from '../../../xml'
import { type Parts, decimal, declaration, mapping, variable, base, firstOf, stem } from '../writing'

type NumberAnswer = Extract<Question, { kind: 'number' }>['body']['answers'][number]

export function isNumber(answer: NumberAnswer, identifier: string): XmlElement {
  const pair = [variable(identifier), base('float', answer.value)]
  const { near } = answer
  switch (near.by) {
    case 'absolute':
      return element('equal', { toleranceMode: 'absolute', tolerance: `${near.tolerance} ${near.tolerance}` }, pair)
    case 'relative':
      return element(
        'equal',
        {
          toleranceMode: 'relative',
          tolerance: `${decimal(exact(near.tolerance).mul(100))} ${decimal(exact(near.tolerance).mul(100))}`,
        },
        pair,
      )
    case 'figures':
      return element('equalRounded', { roundingMode: 'significantFigures', figures: near.digits }, pair)
    case 'decimals':
      return element('equalRounded', { roundingMode: 'decimalPlaces', figures: near.digits }, pair)
  }
}

export function number(question: Extract<Question, { kind: 'number' }>): Parts {
  const { answers, label, unit } = question.body
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'float',
        answers
          .filter((answer) => answer.credit === 1)
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
    processing: firstOf(
      [...answers]
        .sort((a, b) => b.credit - a.credit)
        .map((answer) => ({ condition: isNumber(answer, 'RESPONSE'), score: answer.credit })),
    ),
  }
}

type TextAnswer = Extract<Question, { kind: 'text' }>['body']['answers'][number]

const literal = (text: string) => text.replace(/[\\^$.|?*+()[\]{}]/g, '\\$&')

const patterns = {
  is: (text: string) => literal(text),
  begins: (text: string) => `${literal(text)}.*`,
  contains: (text: string) => `.*${literal(text)}.*`,
  ends: (text: string) => `.*${literal(text)}`,
  matches: (text: string) => text,
}

/** Without regard to case, each letter in both cases: QTI's patterns know no flag for it. */
const eitherCase = (pattern: string) =>
  pattern.replace(
    /(\\.)|(\p{L})/gu,
    (_whole, escaped: string | undefined, letter: string | undefined) =>
      escaped ??
      (letter!.toLowerCase() === letter!.toUpperCase()
        ? letter!
        : `[${letter!.toLowerCase()}${letter!.toUpperCase()}]`),
  )

const isText = (answer: TextAnswer, caseMatters: boolean, identifier: string) =>
  element(
    'patternMatch',
    {
      pattern:
        caseMatters || answer.how === 'matches'
          ? patterns[answer.how](answer.text)
          : eitherCase(patterns[answer.how](answer.text)),
    },
    variable(identifier),
  )

export function text(question: Extract<Question, { kind: 'text' }>): Parts {
  const { answers, caseMatters, label, longest } = question.body
  const whole = answers.every((answer) => answer.how === 'is')
  const entries = answers.map((answer): [string, number] => [answer.text, answer.credit])
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'string',
        answers
          .filter((answer) => answer.credit === 1 && answer.how !== 'matches')
          .slice(0, 1)
          .map((answer) => answer.text),
        whole ? mapping(entries, { caseSensitive: caseMatters }) : null,
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
    processing: whole
      ? element('responseProcessing', { template: 'map_response' })
      : firstOf(
          [...answers]
            .sort((a, b) => b.credit - a.credit)
            .map((answer) => ({ condition: isText(answer, caseMatters, 'RESPONSE'), score: answer.credit })),
        ),
  }
}
