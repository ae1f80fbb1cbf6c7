import { escapeHtml } from '../core/kit/escape'
import { parseHtml } from './html'
import { isElement, type XmlElement } from './xml'

const isText = (node: XmlElement | string): node is string => !isElement(node)
const hasMarkup = (text: string) => text.includes('<') && parseHtml(text).some(isElement)

/** Plain lines as paragraphs; what holds markup already stays as it is (it is cleaned when it is kept). */
export function asHtml(text: string): string {
  const trimmed = text.trim()
  if (trimmed === '' || hasMarkup(trimmed)) return trimmed
  return trimmed
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${escapeHtml(paragraph).replace(/\n/g, '<br>')}</p>`)
    .join('')
}

/** HTML as `asHtml` reads it back: plain where it is plain, else with a tag, so that it is not taken for text. */
export function asPlain(html: string): string {
  const nodes = parseHtml(html)
  const [first] = nodes
  const isParagraph =
    nodes.length === 1 && isElement(first!) && first.name === 'p' && !Object.keys(first.attributes).length
  const inner = isParagraph ? first.children : nodes
  if (inner.every(isText)) {
    const text = inner.join('')
    if (!hasMarkup(text) && text === text.trim() && !text.includes('\n')) return text
  }
  return nodes.some(isElement) ? html : `<p>${html}</p>`
}
