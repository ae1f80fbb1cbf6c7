import { element, isElement, type XmlElement } from '../../xml'
import { parseHtml } from '../../html'
import { drawnAs } from './drawn-as'
import { mathsOf } from './maths'

type Node = XmlElement | string

/** Attributes that only Thistle's own pages read. */
const own = new Set(['data-type', 'data-latex', 'data-plays', 'download'])

function one(node: Node): Node[] {
  if (!isElement(node)) return [node]
  const tex = node.attributes['data-latex']
  if (tex !== undefined) return [mathsOf(tex) ?? element('span', {}, `$${tex}$`)]
  const attributes = Object.fromEntries(
    Object.entries(node.attributes)
      .filter(([name]) => !own.has(name))
      .map(([name, value]) => [name === 'lang' ? 'xml:lang' : name, value]),
  )
  const drawn = drawnAs[node.name]
  return [
    {
      name: drawn ? 'span' : node.name,
      attributes: drawn ? { class: drawn } : attributes,
      children: node.children.flatMap(one),
    },
  ]
}

/** HTML of a question as the elements of an item: maths as MathML with its TeX beside it. */
export const contentNodes = (html: string): Node[] => parseHtml(html).flatMap(one)
