import type { RootContent } from 'mdast'
import { onlyItems, UnreadableFile, type Bundle } from '../bundle'
import type { Block } from '../text-questions/blocks'
import { questionsIn } from '../text-questions/read'
import { parseHtml } from '../html'
import { blockHtml, lineOf, linksIn, textOf, type Reading } from './html'
import { NotParsed, parsePiece, piecesOf, type Piece } from './pieces'

const most = 20_000

/**
 * Questions as Markdown: CommonMark with its task lists and tables, and maths (docs/files.md has the whole of it). `---` parts
 * questions, headings are folders; how answers are written is the same in every text (text-questions/read.ts).
 * @throws UnreadableFile for more questions than a file may have
 */
export function readMarkdown(source: string): Bundle {
  const pieces = piecesOf(source.replace(/^\uFEFF/, ''))
  if (pieces.length > most) throw new UnreadableFile('A file has at most 20,000 questions. Part it.')
  const items = questionsIn(
    pieces.flatMap(blocksOf),
    { plainText: true, mayBeOpen: false },
    (number, line) => `question ${number}, line ${line ?? 1}`,
  )
  if (items.length > most) throw new UnreadableFile('A file has at most 20,000 questions. Part it.')
  return onlyItems(items)
}

/** The blocks of one piece, between two ends. */
function blocksOf(piece: Piece): Block[] {
  try {
    const parsed = parsePiece(piece)
    const links = linksIn(parsed)
    return [
      ...parsed.children.flatMap((block): Block[] => {
        if (block.type === 'heading') return [{ is: 'heading', depth: block.depth, words: textOf(block) }]
        return block.type === 'definition'
          ? []
          : nodesOf(block, { source: piece.source, line: piece.line, links, notes: [] })
      }),
      { is: 'end' },
    ]
  } catch (error) {
    if (error instanceof NotParsed) return [{ is: 'broken', problem: error.message, line: piece.line }]
    // What lies too deep within itself for anybody to read.
    if (error instanceof RangeError)
      return [{ is: 'broken', problem: 'It lies too deep within itself to be read.', line: piece.line }]
    throw error
  }
}

function nodesOf(block: RootContent, reading: Reading): Block[] {
  const html = blockHtml(block, reading)
  const line = lineOf(block, reading)
  if (block.type === 'list' && block.children.some(({ checked }) => typeof checked === 'boolean'))
    if (block.children.some(({ checked }) => typeof checked !== 'boolean'))
      reading.notes.push(`Line ${line}: some options have no box; write "- [ ]" or "- [x]" before each.`)
  const notes = [...new Set(reading.notes)]
  const nodes = parseHtml(html)
  return (nodes.length || !notes.length ? nodes : ['']).map((node) => ({ is: 'node', node, line, notes }))
}
