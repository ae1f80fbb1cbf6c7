import type { Nodes, Root, RootContent } from 'mdast'
import { fromMarkdown } from 'mdast-util-from-markdown'
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table'
import { gfmTaskListItemFromMarkdown } from 'mdast-util-gfm-task-list-item'
import { gfmTable } from 'micromark-extension-gfm-table'
import { gfmTaskListItem } from 'micromark-extension-gfm-task-list-item'
import { UnreadableFile } from '../bundle'

function parse(source: string): Root {
  try {
    return fromMarkdown(source, {
      extensions: [gfmTable(), gfmTaskListItem()],
      mdastExtensions: [gfmTableFromMarkdown(), gfmTaskListItemFromMarkdown()],
    })
  } catch {
    // The parser has states of which it says itself that they cannot be: an empty item before a box without one.
    throw new UnreadableFile('This text cannot be read as Markdown. Look for list items that hold nothing.')
  }
}

/** A line that parts questions wherever it follows an empty one (CommonMark 4.1). */
const rule = /^(?:-[ \t]*){3,}$/
/** A space that does not break is a word, and what follows it may be its underline (CommonMark 2.1). */
const empty = /^[ \t]*$/
const fence = /^ {0,3}(`{3,}|~{3,})/
/** What reaches over empty lines or from one end of a text to the other: definitions of links, HTML that ends by its own mark. */
const reaching = /^ {0,3}\[[^\]]*\]:|<(?:pre|script|style|textarea|!|\?)/im
/** Lines that are parsed together: the parser's work grows with the square of what it is given at once. */
const enough = 100

/** Where a text can be cut into parts that mean the same by themselves: numbers of lines, from 0. */
function cuts(lines: readonly string[]): number[] {
  const found: number[] = []
  let open: string | null = null
  let last = 0
  lines.forEach((line, i) => {
    const mark = fence.exec(line)?.[1]
    if (open) {
      if (mark?.startsWith(open) && line.replace(/^ +|[ \t]+$/g, '') === mark) open = null
    } else if (mark) open = mark
    else if (i - last >= enough && rule.test(line) && empty.test(lines[i - 1]!)) {
      found.push(i)
      last = i
    }
  })
  // One that is never closed reaches to the end: whatever was taken for one may have been none.
  return open ? [] : found
}

function moveDown(node: Nodes, lines: number): void {
  if (node.position) {
    node.position.start.line += lines
    node.position.end.line += lines
  }
  if ('children' in node) for (const child of node.children) moveDown(child, lines)
}

/** The blocks of a text (CommonMark with tables and task lists), with the lines at which they stand. @throws UnreadableFile */
export function blocksOf(source: string): RootContent[] {
  const lines = source.split(/\r\n?|\n/)
  const starts = reaching.test(source) ? [0] : [0, ...cuts(lines)]
  return starts.flatMap((start, i) => {
    const tree = parse(lines.slice(start, starts[i + 1]).join('\n'))
    if (start) moveDown(tree, start)
    return tree.children
  })
}
