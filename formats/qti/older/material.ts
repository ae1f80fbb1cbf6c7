import { parseHtml } from '../../html'
import { childrenOf, element, isElement, textOf, type XmlElement } from '../../xml'

export type Nodes = (XmlElement | string)[]

const groups = new Set([
  'flow',
  'flow_mat',
  'flow_label',
  'material',
  'presentation',
  'presentation_material',
  'hint',
  'hintmaterial',
  'solution',
  'solutionmaterial',
])
/** What the version before had that nobody shows any more. */
const programs = new Set(['matapplet', 'matapplication', 'mat_extension'])

/** Words, markup, pictures and sounds of a material. @param notes gets what is left out */
export function material(node: XmlElement, notes: Set<string>): Nodes {
  return childrenOf(node).flatMap((child): Nodes => {
    const { uri, label, width, height } = child.attributes
    switch (child.name) {
      case 'mattext':
      case 'matemtext': {
        if (uri !== undefined && !child.children.length)
          notes.add('Words of it stand in another file and are left out.')
        const words = wordsOf(child)
        return child.name === 'matemtext' ? [element('em', {}, words)] : words
      }
      case 'matimage':
        return [element('img', { src: uri, alt: label ?? '', width, height })]
      case 'mataudio':
      case 'matvideo':
        return [element(child.name.slice(3), { src: uri })]
      case 'matbreak':
        return [element('br')]
      default:
        if (programs.has(child.name)) notes.add('A program that stands in its text is left out.')
        return groups.has(child.name) ? material(child, notes) : []
    }
  })
}

/** HTML where it is said or where it looks like it; a text that is said to be plain is plain, whatever stands in it. */
function wordsOf(node: XmlElement): Nodes {
  if (node.children.some(isElement)) return node.children
  const text = textOf(node)
  const type = node.attributes.texttype ?? ''
  const isHtml = /html/i.test(type) || (!/^text\/plain$/i.test(type.trim()) && /<[a-z][^>]*>/i.test(text))
  return isHtml ? parseHtml(text) : linesOf(text)
}

const linesOf = (text: string): Nodes =>
  text
    .trim()
    .split(/\n/)
    .flatMap((line, i): Nodes => (i ? [element('br'), line.trim()] : [line.trim()]))

export const block = (nodes: Nodes): XmlElement | null => (nodes.length ? element('div', {}, nodes) : null)

const blocks = new Set([
  'p',
  'div',
  'ul',
  'ol',
  'table',
  'blockquote',
  'pre',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'hr',
  'dl',
])
/** Words without blocks of their own as one. */
export const paragraph = (nodes: Nodes): Nodes =>
  nodes.some((node) => isElement(node) && blocks.has(node.name)) ? nodes : [element('p', {}, nodes)]

/** What is said beside an item or a section, to those who answer or to others; objectives are for others. */
export const rubricsIn = (node: XmlElement, names: readonly string[], notes: Set<string>): XmlElement[] =>
  names.flatMap((name) =>
    childrenOf(node, name).map((each) => {
      const isForStudents = name !== 'objectives' && /^(all|candidate)$/i.test(each.attributes.view ?? 'All')
      return element('rubricBlock', { view: isForStudents ? 'candidate' : 'author' }, paragraph(material(each, notes)))
    }),
  )
