import type { Heading, RootContent } from 'mdast'
import { blankQuestion, type Question } from '../../core/question'
import { brokenItem, onlyItems, readItem, UnreadableFile, type Bundle, type BundleItem } from '../bundle'
import {
  answerLine,
  AskedBack,
  isOrder,
  isPairs,
  isTaskList,
  keyed,
  optionsOf,
  orderOf,
  pairsOf,
  type Answer,
} from './answers'
import { openFolder } from '../folders'
import { blockHtml, lineOf, linksIn, textOf, type Reading } from './html'
import { NotParsed, parsePiece, piecesOf, type Piece } from './pieces'

const most = 20_000

/**
 * Questions as Markdown: CommonMark with its task lists and tables, and maths (docs/files.md has the whole of it).
 * `---` parts questions; a task list is the options, an ordered list an ordering, a table of two columns a matching,
 * a line "= 3.9 ± 0.1 m" a number, "= ebb | ebb tide" a text, headings the folder.
 * @throws UnreadableFile for more questions than a file may have
 */
export function readMarkdown(source: string): Bundle {
  const folder: string[] = []
  const items: BundleItem[] = []
  for (const piece of piecesOf(source.replace(/^\uFEFF/, ''))) {
    if (items.length > most) throw new UnreadableFile('A file has at most 20,000 questions. Part it.')
    items.push(...itemsOf(piece, items.length + 1, folder))
  }
  return onlyItems(items)
}

/** The questions of one piece: one, unless a heading that is underlined stands in it. */
function itemsOf(piece: Piece, number: number, folder: string[]): BundleItem[] {
  const broken = (problem: string) => [
    brokenItem(`question ${number}, line ${piece.line}`, problem, { folder: folder.filter(Boolean) }),
  ]
  try {
    const items: BundleItem[] = []
    let blocks: RootContent[] = []
    const close = () => {
      if (blocks.length)
        items.push({ ...questionFrom(blocks, number + items.length, piece, links), folder: folder.filter(Boolean) })
      blocks = []
    }
    const parsed = parsePiece(piece)
    const links = linksIn(parsed)
    for (const block of parsed.children) {
      if (block.type === 'heading') {
        close()
        open(folder, block)
      } else if (block.type !== 'definition') blocks.push(block)
    }
    close()
    return items
  } catch (error) {
    if (error instanceof NotParsed || error instanceof AskedBack) return broken(error.message)
    // What lies too deep within itself for anybody to read.
    if (error instanceof RangeError) return broken('It lies too deep within itself to be read.')
    throw error
  }
}

const open = (folder: string[], heading: Heading) => openFolder(folder, heading.depth, textOf(heading))

/** Blocks that say by themselves that they are the answer: before them, lists and tables are part of what is asked. */
const isPlain = (block: RootContent) => isTaskList(block) || answerLine(block) !== null

function questionFrom(
  blocks: readonly RootContent[],
  number: number,
  piece: Piece,
  links: Reading['links'],
): BundleItem {
  const reading: Reading = { source: piece.source, line: piece.line, links, notes: [] }
  const { notes } = reading
  const place = `question ${number}, line ${lineOf(blocks[0]!, reading)}`
  const stem: string[] = []
  const plain = blocks.some(isPlain)
  let answer: Answer | null = null
  let general = ''
  const take = (block: RootContent, read: () => Answer) => {
    if (answer)
      notes.push(
        `Line ${lineOf(block, reading)}: a second answer to the same question is left out. Put --- between two questions.`,
      )
    else answer = read()
  }
  try {
    for (const block of blocks) {
      const line = answerLine(block)
      if (line) {
        if (line.before) stem.push(blockHtml(line.before, reading))
        take(block, () => keyed(line.answer))
      } else if (isTaskList(block)) take(block, () => optionsOf(block, reading))
      else if (!plain && isOrder(block)) take(block, () => orderOf(block, reading))
      else if (!plain && isPairs(block)) take(block, () => pairsOf(block, reading))
      else if (block.type === 'blockquote' && answer)
        general += block.children.map((child) => blockHtml(child as RootContent, reading)).join('')
      else stem.push(blockHtml(block, reading))
    }
  } catch (error) {
    if (error instanceof AskedBack) return brokenItem(place, error.message, { notes })
    throw error
  }
  if (!answer)
    return brokenItem(
      place,
      'There is no answer: add a task list, an ordered list, a table of two columns, or a line that begins with "=".',
      { notes },
    )
  const { kind, body } = answer as Answer
  return readItem(
    place,
    { ...blankQuestion(kind), stem: stem.join(''), body, comments: { right: '', wrong: '', general } } as Question,
    { notes },
  )
}
