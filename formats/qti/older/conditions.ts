import { childrenOf, element, textOf, type XmlElement } from '../../xml'
import type { Response } from './responses'

/** Responses of an item by their names, and where what is taken for granted is told. */
export interface Reading {
  responses: ReadonlyMap<string, Response>
  notes: Set<string>
}

export const base = (baseType: string, text: string): XmlElement => element('baseValue', { baseType }, text)
export const variable = (identifier: string): XmlElement => element('variable', { identifier })

const isPlain = (parts: readonly XmlElement[]) =>
  parts.length > 1 &&
  parts.every(
    ({ name, attributes }) =>
      name === 'varequal' && attributes.index === undefined && attributes.respident === parts[0]!.attributes.respident,
  )

/** One after another of a response that is put in order: the order as a whole. */
function wholeOrder(parts: readonly XmlElement[], { responses }: Reading): XmlElement | null {
  const response = responses.get(parts[0]?.attributes.respident ?? '')
  if (response?.cardinality !== 'ordered' || !isPlain(parts)) return null
  const names = parts.map((each) => base('identifier', textOf(each).trim()))
  return element('match', {}, variable(response.identifier), element('ordered', {}, names))
}

/** Several values of what has only one, without a word of how they are joined: whoever writes that means any of them. */
function anyOf(node: XmlElement, parts: readonly XmlElement[], { responses, notes }: Reading): boolean {
  const response = responses.get(parts[0]?.attributes.respident ?? '')
  if (node.name !== 'conditionvar' || response?.cardinality !== 'single' || !isPlain(parts)) return false
  notes.add('It names several answers without saying how they belong together; here each of them is right.')
  return true
}

const sizes: Record<string, string> = { vargte: 'gte', vargt: 'gt', varlte: 'lte', varlt: 'lt' }

/**
 * A condition as one of 2.x; of what it does not know it keeps the name, so that nobody takes it for understood.
 * @param before conditions that "other" is none of
 */
export function condition(node: XmlElement, reading: Reading, before: readonly XmlElement[]): XmlElement {
  const parts = childrenOf(node)
  const all = () => parts.map((each) => condition(each, reading, before))
  switch (node.name) {
    case 'conditionvar':
    case 'and': {
      const order = wholeOrder(parts, reading)
      if (order) return order
      const inner = all()
      if (inner.length === 1) return inner[0]!
      return element(anyOf(node, parts, reading) ? 'or' : 'and', {}, inner)
    }
    case 'or':
      return element('or', {}, all())
    case 'not':
      return element('not', {}, all())
    case 'other':
      return before.length ? element('not', {}, element('or', {}, before)) : base('boolean', 'true')
    case 'unanswered':
      return element('isNull', {}, variable(node.attributes.respident ?? ''))
  }
  const response = reading.responses.get(node.attributes.respident ?? '')
  return response ? test(node, response) : element(node.name, { identifier: node.attributes.respident })
}

/** What is asked of one response. */
function test(node: XmlElement, { identifier, baseType, cardinality }: Response): XmlElement {
  const own = variable(identifier)
  const text = textOf(node).trim()
  if (Object.hasOwn(sizes, node.name)) return element(sizes[node.name]!, {}, own, base('float', text))
  const isSubstring = node.name === 'varsubstring'
  if (!isSubstring && node.name !== 'varequal') return element(node.name)
  if (isSubstring || baseType === 'string')
    return element(
      'stringMatch',
      { caseSensitive: /^yes$/i.test(node.attributes.case ?? ''), substring: isSubstring },
      own,
      base('string', text),
    )
  if (baseType === 'float') return element('equal', { toleranceMode: 'exact' }, own, base('float', text))
  const name = base('identifier', text)
  if (cardinality === 'ordered' && /^[1-9]\d?$/.test(node.attributes.index ?? ''))
    return element('match', {}, element('index', { n: node.attributes.index }, own), name)
  return cardinality === 'single' ? element('match', {}, own, name) : element('member', {}, name, own)
}
