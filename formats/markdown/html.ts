import type { ListItem, Nodes, PhrasingContent, RootContent } from 'mdast'
import type {} from 'mdast-util-math'
import { looksLikeMaths } from '../maths'
import { escapeHtml } from '../../core/kit/escape'

/** What is being read, for telling what is left out at its line. */
export interface Reading {
  /** The text itself: what was taken for maths and is none stands as it was written. */
  source: string
  /** Line of its first line. */
  line: number
  /** Addresses that it defines, by their names. */
  links: ReadonlyMap<string, string>
  notes: string[]
}

export const lineOf = (node: Nodes, { line }: Reading): number => line + (node.position?.start.line ?? 1) - 1

export const textOf = (node: Nodes): string =>
  'value' in node
    ? node.value
    : 'children' in node
      ? node.children.map((child) => textOf(child as Nodes)).join('')
      : 'alt' in node
        ? (node.alt ?? '')
        : node.type === 'break'
          ? '\n'
          : ''

/** The addresses that a text defines; of two of one name the first counts. */
export function linksIn(root: Nodes, found = new Map<string, string>()): Map<string, string> {
  if (root.type === 'definition' && !found.has(root.identifier)) found.set(root.identifier, root.url)
  if ('children' in root) for (const child of root.children) linksIn(child as Nodes, found)
  return found
}

const maths = (tex: string) => `<span data-type="inline-math" data-latex="${escapeHtml(tex)}"></span>`

function inlineOne(node: PhrasingContent, reading: Reading): string {
  switch (node.type) {
    case 'text':
      return escapeHtml(node.value)
    case 'inlineMath': {
      const { start, end } = node.position!
      return looksLikeMaths(node.value) ? maths(node.value) : escapeHtml(reading.source.slice(start.offset, end.offset))
    }
    case 'emphasis':
      return `<em>${inline(node.children, reading)}</em>`
    case 'strong':
      return `<strong>${inline(node.children, reading)}</strong>`
    case 'inlineCode':
      return `<code>${escapeHtml(node.value)}</code>`
    case 'break':
      return '<br>'
    case 'link':
      return `<a href="${escapeHtml(node.url)}">${inline(node.children, reading)}</a>`
    case 'linkReference':
      return `<a href="${escapeHtml(reading.links.get(node.identifier) ?? '')}">${inline(node.children, reading)}</a>`
    case 'imageReference':
      return inlineOne(
        { type: 'image', url: reading.links.get(node.identifier) ?? '', alt: node.alt, position: node.position },
        reading,
      )
    case 'image':
      reading.notes.push(
        `Line ${lineOf(node, reading)}: a picture cannot come along with a text; its words stay. Put it in afterwards: “${(node.alt || node.url).slice(0, 60)}”.`,
      )
      return `<em>${escapeHtml(node.alt || node.url)}</em>`
    case 'html':
      reading.notes.push(
        `Line ${lineOf(node, reading)}: HTML within a line stands as it was typed: ${node.value.slice(0, 40)}`,
      )
      return escapeHtml(node.value)
    default:
      return escapeHtml(textOf(node))
  }
}

export const inline = (nodes: readonly PhrasingContent[], reading: Reading): string =>
  nodes.map((node) => inlineOne(node, reading)).join('')

const blocks = (nodes: readonly Nodes[], reading: Reading): string =>
  nodes.map((node) => blockHtml(node as RootContent, reading)).join('')

export function blockHtml(block: RootContent, reading: Reading): string {
  switch (block.type) {
    case 'paragraph':
      return `<p>${inline(block.children, reading)}</p>`
    case 'math':
      return `<p>${maths(block.value)}</p>`
    case 'code':
      return `<pre><code>${escapeHtml(block.value)}</code></pre>`
    case 'blockquote':
      return `<blockquote>${blocks(block.children, reading)}</blockquote>`
    case 'list': {
      const name = block.ordered ? 'ol' : 'ul'
      const start = block.ordered && block.start !== null && (block.start ?? 1) !== 1 ? ` start="${block.start}"` : ''
      const box = ({ checked }: ListItem) => (typeof checked === 'boolean' ? (checked ? '☑ ' : '☐ ') : '')
      return `<${name}${start}>${block.children.map((entry) => `<li data-line="${lineOf(entry, reading)}">${box(entry)}${blocks(entry.children, reading)}</li>`).join('')}</${name}>`
    }
    case 'table':
      return `<table><tbody>${block.children.map((row) => `<tr>${row.children.map((cell) => `<td>${inline(cell.children, reading)}</td>`).join('')}</tr>`).join('')}</tbody></table>`
    case 'html':
      reading.notes.push(`Line ${lineOf(block, reading)}: HTML is not read here; write it as Markdown.`)
      return ''
    case 'definition':
      return ''
    default:
      return `<p>${escapeHtml(textOf(block))}</p>`
  }
}
