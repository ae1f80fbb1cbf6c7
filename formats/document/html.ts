import type { BundleItem } from '../bundle'
import { mapElements, parseHtml } from '../html'
import { isElement, type XmlElement } from '../xml'
import type { Block } from '../text-questions/blocks'
import { questionsIn } from '../text-questions/read'
import { elements, isBlank, isList, words, type Node } from '../text-questions/nodes'
import { equationMark } from './equations'

const isNote = ({ attributes }: XmlElement) => /^(?:footnote|endnote)-\d/.test(attributes.id ?? '')
const leadsToNote = (node: Node): boolean =>
  isElement(node) &&
  ((node.name === 'a' && /^#(?:footnote|endnote)-\d/.test(node.attributes.href ?? '')) ||
    node.children.some(leadsToNote))

/** Boxes as signs; footnotes, which stand in a list at the end, not at all. */
const tidied = (nodes: readonly Node[]): Node[] =>
  mapElements(nodes, (node) => {
    if (node.name === 'input' && node.attributes.type === 'checkbox') return 'checked' in node.attributes ? '☑ ' : '☐ '
    return isList(node) && elements(node).length > 0 && elements(node).every(isNote) ? null : node
  })

const equation = '[equation]'

/** What of a block is left out. */
const notesOn = (node: Node): string[] => [
  ...(words(node).includes(equation) ? [`An equation of it is not read. Write it anew where ${equation} stands.`] : []),
  ...(leadsToNote(node) ? ['A footnote of it is left out.'] : []),
]

function blockOf(node: Node): Block {
  const heading = isElement(node) ? /^h([1-6])$/.exec(node.name) : null
  if (heading) return { is: 'heading', depth: Number(heading[1]), words: words(node).trim() }
  const isRule = /^\s*(?:-{3,}|_{3,}|\*{3,})\s*$/.test(words(node)) && !(isElement(node) && node.name === 'table')
  return isRule || (isElement(node) && node.name === 'hr') ? { is: 'end' } : { is: 'node', node, notes: notesOn(node) }
}

/**
 * Reads the markup that a word processor's text is turned into (text-questions/read.ts).
 * @param mayBeOpen options of which none is marked are a choice without a key: for whoever goes on writing
 */
export function questionsFromHtml(html: string, mayBeOpen = false): BundleItem[] {
  const nodes = tidied(parseHtml(html.replaceAll(equationMark, equation)))
  return questionsIn(
    nodes.filter((node) => !isBlank(node) || (isElement(node) && node.name === 'hr')).map(blockOf),
    { plainText: false, mayBeOpen },
    (number, _line, stem) => `question ${number}, “${stem}”`,
  )
}
