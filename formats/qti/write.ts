import { kindOf, type Question } from '../../core/question'
import { mapElements } from '../html'
import { childrenOf, element, isElement, within, type XmlElement } from '../xml'
import { contentNodes } from './content/write'
import { namespaces, templates, toVersion3, type QtiVersion } from './names'
import { withTemplate } from './template-write'
import { partsOf } from './kinds'
import { base, chosenOutcome, decimal, firstOf, outcome, value, variable, worth, type Parts } from './kinds/writing'
import type { Responses } from './processing'

const feedbackOutcome = 'FEEDBACK'

/** A comment of a question, as the feedback that shows it. */
interface Said {
  name: string
  html: string
  /** Null for one that is always shown. */
  when: XmlElement | null
}

/** Comments in the order in which they are read: on what was answered, right or wrong, general. */
function comments(question: Question, parts: Parts): Said[] {
  const { right, wrong, general } = question.comments
  // What is all right earns all of the points, but for the rounding of shares.
  const full = element('gte', {}, variable('SCORE'), base('float', worth(question, '0.9999')))
  const verdicts: Said[] =
    parts.rules === null
      ? []
      : [
          { name: 'right', html: right, when: full },
          { name: 'wrong', html: wrong, when: element('not', {}, full) },
        ]
  return [
    ...parts.comments.map(({ html, when }, i) => ({ name: `comment-${i + 1}`, html, when })),
    ...verdicts,
    { name: 'general', html: general, when: null },
  ].filter(({ html }) => html !== '')
}

/** Shows a comment beside those that are shown already. */
const shows = (expression: XmlElement) =>
  outcome(element('multiple', {}, variable(feedbackOutcome), expression), feedbackOutcome)

function rulesFor(parts: Parts, said: readonly Said[], onOptions: boolean): XmlElement[] {
  return [
    ...(parts.rules ?? []),
    ...(onOptions ? [outcome(element('multiple', {}, variable('RESPONSE')), chosenOutcome)] : []),
    ...said.map(({ name, when }) =>
      when ? firstOf([{ condition: when, then: shows(base('identifier', name)) }]) : shows(base('identifier', name)),
    ),
  ]
}

/** A survey says nothing of what was answered. */
const withoutComments = (body: Parts['body']) =>
  mapElements(body, (node) => (node.name === 'feedbackInline' ? null : node))

/** What a survey asks has no key to give away. */
const withoutKey = (declaration: XmlElement): XmlElement => ({ ...declaration, children: [] })

const outcomeOf = (
  identifier: string,
  cardinality: string,
  baseType: string,
  more: XmlElement[] = [],
  attributes: { normalMaximum?: string; externalScored?: 'human' | null } = {},
) => element('outcomeDeclaration', { identifier, cardinality, baseType, ...attributes }, more)

/** What a question becomes: the item in the names of 2.x, as yet of no version, and how an answer to it stands there. */
export interface Written {
  tree: XmlElement
  responses: (answer: unknown) => Responses
}

/**
 * One question as an assessment item (1EdTech QTI) in the names of 2.x. Its SCORE is in points.
 * @param passage what it shares with others, where it has to stand in the item itself (2.1)
 */
export function itemOf(
  question: Question,
  identifier: string,
  version: QtiVersion,
  shared?: { identifier: string; href: string },
  passage?: string,
): Written {
  const parts = partsOf(question)
  const keyless = question.keyless
  const body = keyless ? withoutComments(parts.body) : parts.body
  const said = keyless ? [] : comments(question, parts)
  const onOptions = body.some((node) => isElement(node) && within(node, 'feedbackInline').length > 0)
  const plain = !said.length && !onOptions && question.points === 1 && parts.template !== undefined
  const rules = keyless || plain ? [] : rulesFor(parts, said, onOptions)
  const processing =
    plain && !keyless
      ? element('responseProcessing', { template: templates(version, parts.template!) })
      : rules.length
        ? element('responseProcessing', {}, rules)
        : null
  const tree = element(
    'assessmentItem',
    {
      identifier,
      title: question.internalName || kindOf(question.kind).label,
      adaptive: false,
      timeDependent: false,
      'xml:lang': question.language,
      toolName: 'Thistle',
      toolVersion: '1',
    },
    keyless ? parts.declarations.map(withoutKey) : parts.declarations,
    outcomeOf('SCORE', 'single', 'float', [element('defaultValue', {}, value(0))], {
      normalMaximum: decimal(keyless ? 0 : question.points),
      // 2.1 has no word for it.
      externalScored: kindOf(question.kind).byHand && !keyless && version !== '2.1' ? 'human' : null,
    }),
    said.length ? outcomeOf(feedbackOutcome, 'multiple', 'identifier') : null,
    onOptions ? outcomeOf(chosenOutcome, 'multiple', 'identifier') : null,
    shared ? element('assessmentStimulusRef', shared) : null,
    element('itemBody', {}, passage ? element('div', {}, contentNodes(passage)) : null, body),
    processing,
    said.map(({ name, html }) =>
      element(
        'modalFeedback',
        { outcomeIdentifier: feedbackOutcome, identifier: name, showHide: 'show' },
        contentNodes(html),
      ),
    ),
  )
  return {
    tree: question.vary ? withTemplate(tree, question.vary) : tree,
    responses: parts.responses as (answer: unknown) => Responses,
  }
}

/** Elements whose content stands in a body of its own in 3.0. */
const wrapped = new Set(['modalFeedback', 'feedbackBlock', 'rubricBlock', 'templateBlock'])
const withBodies = (node: XmlElement): XmlElement => {
  const children = node.children.map((child) => (isElement(child) ? withBodies(child) : child))
  const held = childrenOf({ ...node, children }, 'contentBody').length > 0
  return wrapped.has(node.name) && !held
    ? { ...node, children: [element('contentBody', {}, children)] }
    : { ...node, children }
}

/** A tree in the names of 2.x as a version writes it, with its namespace. */
export function inVersion(tree: XmlElement, version: QtiVersion): XmlElement {
  const named = version === '3.0' ? toVersion3(withBodies(tree)) : tree
  return { ...named, attributes: { xmlns: namespaces[version], ...named.attributes } }
}

/**
 * One question as an assessment item of a version. One that varies becomes an item with a template.
 * @param shared the stimulus that it refers to (2.2 and 3.0)
 * @throws NotSayable | ExpressionError where QTI cannot say how it varies: write an instance then
 */
export const writeItem = (
  question: Question,
  identifier: string,
  version: QtiVersion,
  shared?: { identifier: string; href: string },
  passage?: string,
): XmlElement => inVersion(itemOf(question, identifier, version, shared, passage).tree, version)
