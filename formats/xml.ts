import render from 'dom-serializer'
import { Element, Text, type ChildNode } from 'domhandler'
import { decodeHTMLStrict, escapeUTF8 } from 'entities'
import { SaxesParser } from 'saxes'
import { UnreadableFile } from './bundle'

/** An element of XML with local names; namespaces are left out, because the standards read here never mix names. */
export interface XmlElement {
  name: string
  attributes: Record<string, string>
  children: (XmlElement | string)[]
}

/** Many programs write names of HTML ("&nbsp;") without saying where they come from; they can mean one thing only. */
const namesOfHtml = new Proxy<Record<string, string>>(
  {},
  {
    get(_, name) {
      const written = `&${String(name)};`
      const sign = decodeHTMLStrict(written)
      return sign === written ? undefined : sign
    },
  },
)

const deepest = 120
const most = 200_000

/**
 * Reads XML, with the names of signs that HTML has. Entities that a document declares are not expanded and nothing outside it is
 * fetched: a document type with a subset of its own is refused, so that no entity bomb can grow. Depth and size are bounded.
 * @throws UnreadableFile with a sentence
 */
export function readXml(source: string): XmlElement {
  const parser = new SaxesParser({ xmlns: false, position: false })
  parser.ENTITIES = namesOfHtml
  const top: XmlElement = { name: '', attributes: {}, children: [] }
  const open: XmlElement[] = [top]
  let count = 0
  parser.on('doctype', (text) => {
    if (/ENTITY|\[/.test(text))
      throw new UnreadableFile('This XML declares entities of its own. Take the document type out.')
  })
  parser.on('opentag', ({ name, attributes }) => {
    if (++count > most || open.length > deepest) throw new UnreadableFile('This XML is too large or too deep.')
    const element: XmlElement = {
      name: local(name),
      attributes: plainAttributes(attributes as Record<string, string>),
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

const local = (name: string) => name.slice(name.indexOf(':') + 1)

/** Attributes by their local names, without what says namespaces. */
function plainAttributes(written: Record<string, string>): Record<string, string> {
  const attributes: Record<string, string> = {}
  for (const key of Object.keys(written))
    if (!key.startsWith('xmlns') && key !== '__proto__')
      attributes[key === 'xml:lang' ? 'lang' : local(key)] = written[key]!
  return attributes
}

export const isElement = (child: XmlElement | string): child is XmlElement => typeof child !== 'string'
export function childrenOf(element: XmlElement, name?: string): XmlElement[] {
  const found: XmlElement[] = []
  for (const child of element.children)
    if (typeof child !== 'string' && (name === undefined || child.name === name)) found.push(child)
  return found
}
export function childOf(element: XmlElement, name: string): XmlElement | undefined {
  return element.children.find((child): child is XmlElement => typeof child !== 'string' && child.name === name)
}
export const textOf = (element: XmlElement): string =>
  element.children.map((child) => (isElement(child) ? textOf(child) : child)).join('')
/** All elements of a name at any depth, in the order in which they begin. */
export function within(element: XmlElement, name: string): XmlElement[] {
  const found: XmlElement[] = []
  const look = (node: XmlElement) => {
    for (const child of node.children) {
      if (typeof child === 'string') continue
      if (child.name === name) found.push(child)
      look(child)
    }
  }
  look(element)
  return found
}

type Part = XmlElement | string | null | undefined | false
/** An element to write. Attributes without a value are left out. */
export function element(
  name: string,
  attributes: Record<string, string | number | boolean | null | undefined> = {},
  ...children: (Part | readonly Part[])[]
): XmlElement {
  const written: Record<string, string> = {}
  for (const key of Object.keys(attributes)) {
    const value = attributes[key]
    if (value !== null && value !== undefined) written[key] = String(value)
  }
  return {
    name,
    children: children.flat().filter((child): child is XmlElement | string => Boolean(child)),
    attributes: written,
  }
}

/** As domhandler's tree, which the serialiser writes; texts of XML are escaped before, since it would write them in ASCII. */
function asDom(node: XmlElement | string, escape: (text: string) => string): ChildNode {
  if (!isElement(node)) return new Text(escape(node))
  const attributes = Object.entries(node.attributes).map(([name, value]) => [name, escape(value)] as const)
  return new Element(
    node.name,
    Object.fromEntries(attributes),
    node.children.map((child) => asDom(child, escape)),
  )
}

/** Writes XML; or HTML, whose empty elements stand without a slash. */
export const writeXml = (node: XmlElement | string, html = false): string =>
  html
    ? render(
        asDom(node, (text) => text),
        { encodeEntities: 'utf8' },
      )
    : render(asDom(node, escapeUTF8), { xmlMode: true, encodeEntities: false })

export const document = (root: XmlElement) => `<?xml version="1.0" encoding="UTF-8"?>\n${writeXml(root)}\n`
