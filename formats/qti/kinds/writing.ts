import { exact, type Fraction } from '../../../core/kit/exact'
import type { Question } from '../../../core/question'
import { element, type XmlElement } from '../../xml'
import { parseHtml } from '../xhtml'

type Node = XmlElement | string

/** What an item's kind puts into it. */
export interface Parts {
  declarations: XmlElement[]
  body: Node[]
  processing: XmlElement | null
  most?: string
}

export const value = (text: string | number) => element('value', {}, String(text))

export const decimal = (number: number | string | Fraction) => String(Math.round(exact(number).valueOf() * 1e6) / 1e6)

export function declaration(
  identifier: string,
  cardinality: string,
  baseType: string,
  correct: string[],
  mapping: XmlElement | null = null,
): XmlElement {
  return element(
    'responseDeclaration',
    { identifier, cardinality, baseType },
    correct.length > 0 && element('correctResponse', {}, correct.map(value)),
    mapping,
  )
}

export const mapping = (
  entries: [key: string, value: number | string][],
  bounds: { lower?: number | null; upper?: number | null; wrong?: number | string; caseSensitive?: boolean } = {},
) =>
  element(
    'mapping',
    { lowerBound: bounds.lower, upperBound: bounds.upper, defaultValue: bounds.wrong ?? 0 },
    entries.map(([mapKey, mappedValue]) =>
      element('mapEntry', { mapKey, mappedValue, caseSensitive: bounds.caseSensitive }),
    ),
  )

export const variable = (identifier: string) => element('variable', { identifier })

export const base = (baseType: string, text: string | number) => element('baseValue', { baseType }, String(text))

export const outcome = (expression: XmlElement) => element('setOutcomeValue', { identifier: 'SCORE' }, expression)

/** The first condition that holds sets the score. */
export const firstOf = (cases: { condition: XmlElement; score: number }[]) =>
  element(
    'responseProcessing',
    {},
    element(
      'responseCondition',
      {},
      cases.map(({ condition, score }, i) =>
        element(i ? 'responseElseIf' : 'responseIf', {}, condition, outcome(base('float', score))),
      ),
    ),
  )

export const options = (question: Extract<Question, { body: { options: unknown } }>) => question.body.options

export const simpleChoices = (question: Extract<Question, { body: { options: unknown } }>) =>
  options(question).map((option) =>
    element(
      'simpleChoice',
      { identifier: option.id, fixed: option.fixed || question.body.inOrder || null },
      parseHtml(option.html),
      option.comment
        ? element(
            'feedbackInline',
            { identifier: option.id, outcomeIdentifier: 'FEEDBACK', showHide: 'show' },
            parseHtml(option.comment),
          )
        : null,
    ),
  )

export const prompt = (question: Question) => (question.stem ? [element('prompt', {}, parseHtml(question.stem))] : [])

export const stem = (question: Question): Node[] =>
  question.stem ? [element('div', {}, parseHtml(question.stem))] : []
