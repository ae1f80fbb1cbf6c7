import { wrapInline } from '../html'
import { isElement, type XmlElement } from '../xml'
import { keyLineOf, type KeyLine } from './key-lines'
import { linesOf, type Line } from './lines'
import { elements, isBlank, isInline, isList, wordsOf, type Node } from './nodes'
import { letterOf } from './options'

/** The contents of a list entry as blocks. */
export const blocksIn = (nodes: readonly Node[]): Node[] => wrapInline(nodes, isInline, isBlank)

const linesIn = (item: XmlElement, plainText: boolean): Line[][] =>
  blocksIn(item.children).flatMap((block) =>
    isElement(block) && block.name === 'p' ? [linesOf(block.children, plainText)] : [],
  )

/** A key of its own stands in a line below the first, or options do. */
const hasOptionsOrKey = (item: XmlElement, plainText: boolean): boolean =>
  elements(item).some(isList) ||
  linesIn(item, plainText).some((lines) =>
    lines.slice(1).some(({ nodes }) => {
      const text = wordsOf(nodes)
      return letterOf(text.trim()) === 0 || keyLineOf(text)?.sign === false
    }),
  )

/** Whether the entries of a list are questions: one of them has options or a key, or the list is one numbered entry. */
export function areQuestions(items: readonly XmlElement[], numbered: boolean, plainText: boolean): boolean {
  if (items.slice(0, -1).some((item) => hasOptionsOrKey(item, plainText))) return true
  const last = items.at(-1)
  if (!last || !hasOptionsOrKey(last, plainText)) return numbered && items.length === 1
  return items.length === 1 || elements(last).some(isList) || separateKey(last, plainText) === null
}

/**
 * "3. flood", and "Answer: B" in the line below it: the key belongs to the whole list.
 * @returns the entry without that line, and the key; null for an entry without one
 */
export function separateKey(item: XmlElement, plainText: boolean): { item: XmlElement; key: KeyLine } | null {
  const [lines, ...more] = linesIn(item, plainText)
  if (
    !lines ||
    more.length ||
    lines.length !== 2 ||
    elements(item).some((each) => !isInline(each) && each.name !== 'p')
  )
    return null
  const key = keyLineOf(wordsOf(lines[1]!.nodes))
  return key && { item: { ...item, children: lines[0]!.nodes }, key }
}
