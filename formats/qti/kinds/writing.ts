import { clamp, exact, type Fraction } from '../../../core/kit/exact'
import type { Question } from '../../../core/question'
import { mostOf, type CreditBounds } from '../../../core/question/kinds/credits'
import { element, type XmlElement } from '../../xml'
import { contentNodes } from '../content/write'
import type { Responses } from '../processing'

type Node = XmlElement | string

/** A comment of the question, and the condition under which it is shown. */
export interface ShownWhen {
  html: string
  when: XmlElement
}

/** What an item's kind puts into it. */
export interface Parts {
  declarations: XmlElement[]
  body: Node[]
  /** A template of the standard that says it all where the question is worth one point; null where people mark. */
  template?: 'match_correct' | 'map_response' | 'map_response_point'
  /** Rules that set SCORE in points. */
  rules: XmlElement[] | null
  comments: ShownWhen[]
  /** How an answer stands in the item. */
  responses: (answer: never) => Responses
}

export const value = (text: string | number) => element('value', {}, String(text))

/** Six decimals are enough: nobody's points go further than hundredths. */
export const decimal = (number: number | string | Fraction) => String(Math.round(exact(number).valueOf() * 1e6) / 1e6)

/** A share of the points, in points. */
export const worth = ({ points }: Pick<Question, 'points'>, share: number | string | Fraction) =>
  decimal(exact(share).mul(exact(points)))

/** A name as XML and the standard want it: not begun with a digit or a sign. */
export const legal = (id: string) => (/^[A-Za-z_]/.test(id) ? id : `_${id}`)

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

interface Entry {
  key: string
  worth: number | string
  caseSensitive?: boolean
}
export const mapping = (
  entries: readonly Entry[],
  bounds: { lower?: number | string | null; upper?: number | string | null; usual?: number | string } = {},
) =>
  element(
    'mapping',
    { lowerBound: bounds.lower, upperBound: bounds.upper, defaultValue: bounds.usual ?? 0 },
    entries.map(({ key, worth: mappedValue, caseSensitive }) =>
      element('mapEntry', { mapKey: key, mappedValue, caseSensitive }),
    ),
  )

/**
 * Credits as a mapping: what is worth everything here is worth all of the points.
 * @param all what the key's own credits add
 * @param usual the credit of what is not named
 */
export function creditMapping(
  question: Question & { body: CreditBounds },
  all: Fraction,
  credits: readonly { key: string; credit: number }[],
  usual = 0,
): XmlElement {
  const { lower, upper } = question.body
  const most = mostOf(question.body, all)
  const points = (credit: number | Fraction) =>
    most.compare(0) > 0 ? decimal(exact(credit).div(most).mul(exact(question.points))) : '0'
  return mapping(
    credits.map(({ key, credit }) => ({ key, worth: points(credit) })),
    // A question takes away at most what it is worth, and earns no more.
    {
      lower: points(clamp(most.neg(), exact(lower), most)),
      upper: points(upper === null ? most : clamp(most.neg(), exact(upper), most)),
      usual: points(usual),
    },
  )
}

export const variable = (identifier: string) => element('variable', { identifier })

export const base = (baseType: string, text: string | number) => element('baseValue', { baseType }, String(text))

export const outcome = (expression: XmlElement, identifier = 'SCORE') =>
  element('setOutcomeValue', { identifier }, expression)

/** Adds to the score. */
export const adding = (expression: XmlElement) => outcome(element('sum', {}, variable('SCORE'), expression))

/** The first condition that holds does its part. */
export const firstOf = (cases: readonly { condition: XmlElement; then: XmlElement }[]): XmlElement =>
  element(
    'responseCondition',
    {},
    cases.map(({ condition, then }, i) => element(i ? 'responseElseIf' : 'responseIf', {}, condition, then)),
  )

const answered = (identifier: string) => element('not', {}, element('isNull', {}, variable(identifier)))

/** The whole answer is the key: all of the points, else nothing. */
export const matched = (question: Question, identifier = 'RESPONSE'): XmlElement[] => [
  firstOf([
    {
      condition: element('match', {}, variable(identifier), element('correct', { identifier })),
      then: outcome(base('float', worth(question, 1))),
    },
  ]),
]
/** What the mapping says. */
export const mappedBy = (name: 'mapResponse' | 'mapResponsePoint', identifier = 'RESPONSE'): XmlElement[] => [
  firstOf([{ condition: answered(identifier), then: outcome(element(name, { identifier })) }]),
]

export const options = (question: Extract<Question, { body: { options: unknown } }>) => question.body.options

/** Outcome that holds what was chosen: it shows the comments on options. */
export const chosenOutcome = 'CHOSEN'

export const simpleChoices = (question: Extract<Question, { body: { options: unknown } }>) =>
  options(question).map((option) =>
    element(
      'simpleChoice',
      { identifier: legal(option.id), fixed: option.fixed || question.body.inOrder || null },
      contentNodes(option.html),
      option.comment
        ? element(
            'feedbackInline',
            { identifier: legal(option.id), outcomeIdentifier: chosenOutcome, showHide: 'show' },
            inlineOnly(contentNodes(option.comment)),
          )
        : null,
    ),
  )

const inline = new Set(['a', 'strong', 'em', 'b', 'i', 'u', 's', 'sub', 'sup', 'code', 'span', 'img', 'br', 'math'])
const isInline = (node: Node) => typeof node === 'string' || inline.has(node.name)

/** Blocks one after another on lines of their own: where the standard wants nothing but words within a line. */
export function inlineOnly(nodes: readonly Node[]): Node[] {
  return nodes.flatMap((node, i): Node[] => {
    if (isInline(node)) return [node]
    const { name, children } = node as XmlElement
    const words = inlineOnly(children)
    const line = name === 'li' || name === 'td' || name === 'th' ? [...words, ' '] : words
    return i > 0 && name !== 'td' && name !== 'th' ? [element('br'), ...line] : line
  })
}

/**
 * What is asked, before the interaction: a line of words is its prompt, which takes no blocks; anything else stands above it.
 */
export function asked(question: Question): { above: Node[]; prompt: XmlElement | null } {
  const nodes = contentNodes(question.stem)
  const [only] = nodes
  if (!nodes.length) return { above: [], prompt: null }
  if (nodes.every(isInline)) return { above: [], prompt: element('prompt', {}, nodes) }
  if (nodes.length === 1 && typeof only !== 'string' && only!.name === 'p')
    return { above: [], prompt: element('prompt', {}, only!.children) }
  return { above: [element('div', {}, nodes)], prompt: null }
}

export const stem = (question: Question): Node[] =>
  question.stem ? [element('div', {}, contentNodes(question.stem))] : []
