import { SaxesParser } from 'saxes'
import { UnreadableFile } from './bundle'
import { escapeHtml } from './plain-html'

/** An element of XML with local names; namespaces are left out, because the standards read here never mix names. */
export interface XmlElement {
  name: string
  attributes: Record<string, string>
  children: (XmlElement | string)[]
}

const deepest = 120
const most = 200_000

/**
 * Reads XML. Entities that a document declares are not expanded and nothing outside it is fetched: a document type with a
 * subset of its own is refused, so that no entity bomb can grow. Depth and size are bounded.
 * @throws UnreadableFile with a sentence
 */
export function readXml(source: string): XmlElement {
  const parser = new SaxesParser({ xmlns: false })
  const top: XmlElement = { name: '', attributes: {}, children: [] }
  const open: XmlElement[] = [top]
  let count = 0
  const local = (name: string) => name.slice(name.indexOf(':') + 1)
  parser.on('doctype', (text) => {
    if (/ENTITY|\[/.test(text))
      throw new UnreadableFile('This XML declares entities of its own. Take the document type out.')
  })
  parser.on('opentag', ({ name, attributes }) => {
    if (++count > most || open.length > deepest) throw new UnreadableFile('This XML is too large or too deep.')
    const element: XmlElement = {
      name: local(name),
      attributes: Object.fromEntries(
        Object.entries(attributes as Record<string, string>)
          .filter(([key]) => !key.startsWith('xmlns'))
          .map(([key, value]) => [key === 'xml:lang' ? 'lang' : local(key), value]),
      ),
      children: [],
    }
    open.at(-1)!.children.push(element)
    open.push(element)
  })
  parser.on('closetag', () => {
    open.pop()
  })
  const text = (words: string) => {
    if (words) open.at(-1)!.children.push(words)
  }
  parser.on('text', text)
  parser.on('cdata', text)
  parser.on('error', (error) => {
    throw new UnreadableFile(`This XML is broken: ${error.message.replace(/^\d+:\d+: /, '')} (line ${parser.line}).`)
  })
  parser.write(source.replace(/^\uFEFF/, '')).close()
  const root = top.children.find((child): child is XmlElement => typeof child !== 'string')
  if (!root) throw new UnreadableFile('This XML holds nothing.')
  return root
}

export const isElement = (child: XmlElement | string): child is XmlElement => typeof child !== 'string'
export const childrenOf = (element: XmlElement, name?: string): XmlElement[] =>
  element.children.filter(isElement).filter((child) => !name || child.name === name)
export const childOf = (element: XmlElement, name: string): XmlElement | undefined => childrenOf(element, name)[0]
export const textOf = (element: XmlElement): string =>
  element.children.map((child) => (isElement(child) ? textOf(child) : child)).join('')
/** All elements of a name at any depth. */
export const within = (element: XmlElement, name: string): XmlElement[] =>
  childrenOf(element).flatMap((child) => [...(child.name === name ? [child] : []), ...within(child, name)])

type Part = XmlElement | string | null | undefined | false
/** An element to write. Attributes without a value are left out. */
export function element(
  name: string,
  attributes: Record<string, string | number | boolean | null | undefined> = {},
  ...children: (Part | Part[])[]
): XmlElement {
  return {
    name,
    children: children.flat().filter((child): child is XmlElement | string => Boolean(child)),
    attributes: Object.fromEntries(
      Object.entries(attributes)
        .filter(([, value]) => value !== null && value !== undefined)
        .map(([key, value]) => [key, String(value)]),
    ),
  }
}

const empty = new Set(['br', 'hr', 'img', 'col'])
const start = ({ name, attributes }: XmlElement) =>
  `<${name}${Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escapeHtml(value)}"`)
    .join('')}`

/** Writes XML; or HTML, whose empty elements stand without a slash. */
export function writeXml(node: XmlElement | string, html = false): string {
  if (typeof node === 'string') return escapeHtml(node).replace(/&quot;/g, '"')
  const inner = node.children.map((child) => writeXml(child, html)).join('')
  if (html) return empty.has(node.name) ? `${start(node)}>` : `${start(node)}>${inner}</${node.name}>`
  return inner === '' ? `${start(node)}/>` : `${start(node)}>${inner}</${node.name}>`
}

export const document = (root: XmlElement) => `<?xml version="1.0" encoding="UTF-8"?>\n${writeXml(root)}\n`
