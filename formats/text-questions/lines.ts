import { element, isElement, type XmlElement } from '../xml'
import type { Node } from './nodes'
import { letterOf } from './options'

/** One line of a paragraph, and what stood between it and the line before. */
export interface Line {
  nodes: Node[]
  between: Node | null
}

/** The lines of a paragraph: parted by breaks; in a plain text also by the ends of its lines. */
export function linesOf(nodes: readonly Node[], plainText: boolean): Line[] {
  const lines: Line[] = [{ nodes: [], between: null }]
  const part = (between: Node) => lines.push({ nodes: [], between })
  for (const node of nodes) {
    if (isElement(node) && node.name === 'br') part(node)
    else if (plainText && !isElement(node) && node.includes('\n'))
      node.split('\n').forEach((text, i) => {
        if (i) part('\n')
        if (text) lines.at(-1)!.nodes.push(text)
      })
    else lines.at(-1)!.nodes.push(node)
  }
  return lines
}

/** Lines as one paragraph again. */
export const paragraphOf = (lines: readonly Line[]): XmlElement =>
  element(
    'p',
    {},
    lines.flatMap(({ nodes, between }, i) => (i && between !== null ? [between, ...nodes] : nodes)),
  )

/** A line with several options, "A) ebb  B) flood", as a line for each. */
export function separateOptions(line: Line): Line[] {
  const [only, ...others] = line.nodes
  if (others.length || typeof only !== 'string' || letterOf(only) !== 0) return [line]
  const parts: string[] = []
  let rest = only
  for (let at = 1; ; at++) {
    const sign = String.fromCharCode(97 + at)
    const next = new RegExp(`\\s(?=\\(?${sign}[.)]\\)?\\s+\\S)`, 'i').exec(rest)
    if (!next) break
    parts.push(rest.slice(0, next.index))
    rest = rest.slice(next.index + 1)
  }
  return [...parts, rest].map((text, i) => ({ nodes: [text], between: i ? '\n' : line.between }))
}
