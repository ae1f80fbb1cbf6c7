import { childOf, element, within, type XmlElement } from '../../xml'

/** A response, as 2.x declares it. */
export interface Response {
  identifier: string
  cardinality: 'single' | 'multiple' | 'ordered'
  baseType: 'identifier' | 'string' | 'float'
}

/** A field for numbers says so by itself, or in how it is drawn. */
const isNumeric = (node: XmlElement) =>
  node.name === 'response_num' ||
  within(node, 'render_fib').some(({ attributes }) => /^(decimal|integer|scientific)$/i.test(attributes.fibtype ?? ''))

export function responseOf(node: XmlElement): Response {
  const cardinality = (node.attributes.rcardinality ?? 'Single').toLowerCase()
  const baseType = node.name === 'response_lid' ? 'identifier' : isNumeric(node) ? 'float' : 'string'
  const isList = baseType === 'identifier' && (cardinality === 'multiple' || cardinality === 'ordered')
  return {
    identifier: node.attributes.ident ?? 'RESPONSE',
    cardinality: isList ? (cardinality as 'multiple') : 'single',
    baseType,
  }
}

const names = ['response_lid', 'response_str', 'response_num', 'response_xy', 'response_grp']

/** Everything that an item asks, as it stands in its file. */
export const askedIn = (item: XmlElement): XmlElement[] => {
  const presentation = childOf(item, 'presentation') ?? element('presentation')
  return names.flatMap((name) => within(presentation, name))
}

/** Why what is asked cannot be had here, in a sentence; null where it can. */
export function strangeness(node: XmlElement): string | null {
  if (node.name === 'response_xy') return 'It asks for a place in a picture in the way of QTI 1.2, which is not read.'
  if (node.name === 'response_grp') return 'It asks for groups in the way of QTI 1.2, which are not read.'
  if (within(node, 'render_hotspot').length)
    return 'It asks for areas of a picture in the way of QTI 1.2, which are not read.'
  if (within(node, 'render_extension').length && !within(node, 'response_label').length && !drawn(node))
    return 'It asks in a way of some program of its own.'
  if (node.name !== 'response_lid' && within(node, 'response_label').length > 1)
    return 'It asks for several words in one answer, which fields here have one by one.'
  return null
}
const drawn = (node: XmlElement) =>
  ['render_choice', 'render_fib', 'render_slider'].some((name) => within(node, name)[0])
