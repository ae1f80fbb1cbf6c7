import { toHtml } from '../html'
import { isElement, type XmlElement } from '../xml'

/** Markup of a text whose questions are looked for. */
export type Node = XmlElement | string

export const words = (node: Node): string =>
  isElement(node) ? (node.name === 'br' ? '\n' : node.children.map(words).join('')) : node
export const wordsOf = (nodes: readonly Node[]): string => nodes.map(words).join('')
export const elements = (node: XmlElement): XmlElement[] => node.children.filter(isElement)
export const isList = (node: Node): node is XmlElement => isElement(node) && (node.name === 'ul' || node.name === 'ol')
export const isBlank = (node: Node): boolean =>
  words(node).trim() === '' &&
  !(
    isElement(node) &&
    (node.name === 'img' ||
      node.name === 'code' ||
      (node.name === 'a' && node.attributes.href !== undefined) ||
      node.attributes['data-latex'] !== undefined ||
      elements(node).some((each) => each.name !== 'br' && !isBlank(each)))
  )

const isStrong = (node: Node): boolean => isElement(node) && (node.name === 'strong' || node.name === 'b')

/** Bold as a whole: everything in it that is not blank. */
export function isBold(nodes: readonly Node[]): boolean {
  const inner = nodes.filter((node) => !isBlank(node) && !isList(node))
  return (
    inner.length > 0 &&
    inner.every(
      (node) =>
        isStrong(node) || (isElement(node) && ['p', 'span', 'em', 'i'].includes(node.name) && isBold(node.children)),
    )
  )
}
export const unbold = (nodes: readonly Node[]): Node[] =>
  nodes.flatMap((node): Node[] =>
    !isElement(node) ? [node] : isStrong(node) ? unbold(node.children) : [{ ...node, children: unbold(node.children) }],
  )

/** The nodes without what a pattern finds at the beginning of their first words. */
export function withoutStart(nodes: readonly Node[], start: RegExp): Node[] {
  const at = nodes.findIndex((node) => words(node).trim() !== '')
  if (at < 0) return [...nodes]
  const node = nodes[at]!
  const without = isElement(node) ? { ...node, children: withoutStart(node.children, start) } : node.replace(start, '')
  return [...nodes.slice(0, at), without, ...nodes.slice(at + 1)]
}

/** The nodes without what a pattern finds at the end of their last words. */
export function withoutEnd(nodes: readonly Node[], end: RegExp): Node[] {
  const at = nodes.findLastIndex((node) => words(node).trim() !== '')
  if (at < 0) return [...nodes]
  const node = nodes[at]!
  const without = isElement(node) ? { ...node, children: withoutEnd(node.children, end) } : node.replace(end, '')
  return [...nodes.slice(0, at), without, ...nodes.slice(at + 1)]
}

const inlineNames = new Set(['strong', 'b', 'em', 'i', 'sub', 'sup', 'a', 'img', 'span', 'br', 'code', 'u', 's'])
export const isInline = (node: Node): boolean => !isElement(node) || inlineNames.has(node.name)

/** Nodes as HTML, without the line numbers that a reader has put on list entries (data-line). */
export const htmlOf = (nodes: readonly Node[]): string => {
  const withoutLine = (node: Node): Node => {
    if (!isElement(node)) return node
    const { 'data-line': _line, ...attributes } = node.attributes
    return { ...node, attributes, children: node.children.map(withoutLine) }
  }
  return toHtml(nodes.map(withoutLine))
}

/** Contents of an entry or a cell: a paragraph that is all there is stands without its marks. */
export function insideHtml(nodes: readonly Node[]): string {
  const kept = nodes.filter((node) => !isBlank(node))
  const [only] = kept
  return htmlOf(kept.length === 1 && only && isElement(only) && only.name === 'p' ? only.children : nodes)
}
