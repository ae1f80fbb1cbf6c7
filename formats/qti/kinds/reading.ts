import type { Question } from '../../../core/question'
import type { Shape } from '../../../core/kit/shapes'
import { UnreadableFile } from '../../bundle'
import { withMaths } from '../../plain-html'
import { childOf, childrenOf, textOf, type XmlElement } from '../../xml'
import { mapElements, toHtml } from '../xhtml'

/** What was read of an item, and what of it has no place in Thistle. */
export interface ReadItem {
  question: Question
  identifier: string
  notes: string[]
}

export interface Declaration {
  identifier: string
  cardinality: string
  baseType: string
  correct: string[]
  mapping: Mapping | null
  areas: { shape: Shape; value: number }[]
  wrong: number
}

interface Mapping {
  entries: { key: string; value: number; caseSensitive: boolean }[]
  lower: number | null
  upper: number | null
  wrong: number
}

export const numeric = (text: string | undefined, usual = 0) =>
  text === undefined || text === '' || Number.isNaN(Number(text)) ? usual : Number(text)

export const hundredths = (value: number) => Math.round(value * 100) / 100

export const refuse = (sentence: string): never => {
  throw new UnreadableFile(sentence)
}

export function shapeOf(node: XmlElement): Shape | null {
  const numbers = (node.attributes.coords ?? '').split(/[\s,]+/).map(Number)
  if (numbers.some((each) => !Number.isFinite(each) || each < 0)) return null
  const [a, b, c, d] = numbers as [number, number, number, number]
  switch (node.attributes.shape) {
    case 'circle':
      return numbers.length === 3 ? { is: 'circle', x: a, y: b, r: Math.max(1, c) } : null
    case 'rect':
      return numbers.length === 4
        ? { is: 'rectangle', x: a, y: b, width: Math.max(1, c - a), height: Math.max(1, d - b) }
        : null
    case 'poly':
      return numbers.length >= 6 && numbers.length % 2 === 0
        ? { is: 'polygon', points: numbers.flatMap((x, i) => (i % 2 ? [] : [{ x, y: numbers[i + 1]! }])) }
        : null
    default:
      return null
  }
}

export function declarationOf(node: XmlElement): Declaration {
  const mapping = childOf(node, 'mapping')
  const areas = childOf(node, 'areaMapping')
  const correct = childOf(node, 'correctResponse')
  return {
    identifier: node.attributes.identifier ?? 'RESPONSE',
    cardinality: node.attributes.cardinality ?? 'single',
    baseType: node.attributes.baseType ?? 'identifier',
    correct: correct ? childrenOf(correct, 'value').map((each) => textOf(each).trim()) : [],
    mapping: mapping
      ? {
          entries: childrenOf(mapping, 'mapEntry').map((entry) => ({
            key: entry.attributes.mapKey ?? '',
            value: numeric(entry.attributes.mappedValue),
            caseSensitive: entry.attributes.caseSensitive !== 'false',
          })),
          lower: mapping.attributes.lowerBound === undefined ? null : numeric(mapping.attributes.lowerBound),
          upper: mapping.attributes.upperBound === undefined ? null : numeric(mapping.attributes.upperBound),
          wrong: numeric(mapping.attributes.defaultValue),
        }
      : null,
    areas: areas
      ? childrenOf(areas, 'areaMapEntry').flatMap((entry) => {
          const shape = shapeOf(entry)
          return shape ? [{ shape, value: numeric(entry.attributes.mappedValue) }] : []
        })
      : [],
    wrong: numeric(areas?.attributes.defaultValue),
  }
}

/** Interactions of the standard that are not read: one of them is told by its name. */
export const strangeInteractions = [
  'associateInteraction',
  'hottextInteraction',
  'graphicOrderInteraction',
  'graphicAssociateInteraction',
  'graphicGapMatchInteraction',
  'positionObjectInteraction',
  'sliderInteraction',
  'drawingInteraction',
  'mediaInteraction',
  'customInteraction',
  'portableCustomInteraction',
  'endAttemptInteraction',
]

/** HTML of a part, without what belongs to interactions, feedback and scorers. */
export const htmlOf = (nodes: readonly (XmlElement | string)[]) =>
  withMaths(
    toHtml(
      mapElements(nodes, (node) =>
        node.name.endsWith('Interaction') ||
        node.name === 'prompt' ||
        node.name.startsWith('feedback') ||
        node.name === 'rubricBlock' ||
        node.name === 'stylesheet'
          ? null
          : node,
      ),
    ),
  )
    .replace(/^<div>([\s\S]*)<\/div>$/, '$1')
    .replace(/<(p|div|span)>\s*<\/\1>/g, '')
    .trim()

export const inlineHtml = (node: XmlElement) => {
  const html = htmlOf(node.children)
  return html.replace(/^<p>([^<]*)<\/p>$/, '$1')
}

export const feedbackOf = (node: XmlElement) =>
  childrenOf(node, 'feedbackInline')
    .map((each) => toHtml(each.children))
    .join('')

export interface Context {
  item: XmlElement
  body: XmlElement
  declarations: Map<string, Declaration>
  notes: string[]
}

export type Found = Pick<Question, 'kind' | 'body'>

export const declared = (context: Context, node: XmlElement): Declaration =>
  context.declarations.get(node.attributes.responseIdentifier ?? '') ??
  refuse('An interaction answers a response that is not declared.')

export const idOf = (node: XmlElement, i: number) => {
  const written = node.attributes.identifier ?? ''
  return /^[a-zA-Z0-9_-]{1,24}$/.test(written) ? written : `c${i + 1}`
}
