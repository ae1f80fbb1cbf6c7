/** Stretches of a text, by places of characters in what an element holds. */
export type Stretch = [from: number, to: number]

function textNodes(root: Node): Text[] {
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
  const nodes: Text[] = []
  while (walker.nextNode()) nodes.push(walker.currentNode as Text)
  return nodes
}

/** Where a place in the tree lies in the text of an element. */
function placeOf(nodes: readonly Text[], container: Node, offset: number): number {
  const range = document.createRange()
  let before = 0
  for (const node of nodes) {
    if (node === container) return before + offset
    range.selectNodeContents(node)
    if (range.comparePoint(container, offset) < 0) return before
    before += node.length
  }
  return before
}

/** What of an element's text is selected; null for nothing. */
export function selectedIn(root: HTMLElement): Stretch | null {
  const selection = document.getSelection()
  if (!selection?.rangeCount || selection.isCollapsed) return null
  const range = selection.getRangeAt(0)
  if (!range.intersectsNode(root)) return null
  const nodes = textNodes(root)
  const whole = nodes.reduce((sum, node) => sum + node.length, 0)
  const from = root.contains(range.startContainer) ? placeOf(nodes, range.startContainer, range.startOffset) : 0
  const to = root.contains(range.endContainer) ? placeOf(nodes, range.endContainer, range.endOffset) : whole
  return from < to ? [from, to] : null
}

/** A stretch of an element's text as a range; null where the text is shorter by now. */
export function rangeOf(root: HTMLElement, [from, to]: Stretch): Range | null {
  const range = document.createRange()
  let [before, begun] = [0, false]
  for (const node of textNodes(root)) {
    const end = before + node.length
    if (!begun && from < end) {
      range.setStart(node, from - before)
      begun = true
    }
    if (begun && to <= end) {
      range.setEnd(node, to - before)
      return range
    }
    before = end
  }
  return null
}

/** Stretches with one more: what touches or overlaps is one. One that is in another already takes it out. */
export function toggled(marks: readonly Stretch[], [from, to]: Stretch): Stretch[] {
  const around = marks.find(([start, end]) => start <= from && to <= end)
  if (around)
    return marks.flatMap((each): Stretch[] =>
      each === around
        ? (
            [
              [each[0], from],
              [to, each[1]],
            ] as Stretch[]
          ).filter(([start, end]) => start < end)
        : [each],
    )
  const apart = marks.filter(([start, end]) => end < from || to < start)
  const joined = marks.filter((each) => !apart.includes(each))
  const one: Stretch = [
    Math.min(from, ...joined.map(([start]) => start)),
    Math.max(to, ...joined.map(([, end]) => end)),
  ]
  return [...apart, one].sort((a, b) => a[0] - b[0])
}
