import type { Root } from 'mdast'
import { fromMarkdown } from 'mdast-util-from-markdown'
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table'
import { gfmTaskListItemFromMarkdown } from 'mdast-util-gfm-task-list-item'
import { mathFromMarkdown } from 'mdast-util-math'
import { gfmTable } from 'micromark-extension-gfm-table'
import { gfmTaskListItem } from 'micromark-extension-gfm-task-list-item'
import { math } from 'micromark-extension-math'

/** One question's lines, or those between two of them. */
export interface Piece {
  source: string
  /** Of its first line, from 1. */
  line: number
}

/** A line that parts questions, wherever it stands (CommonMark 4.1); what is indented belongs to what it stands in. */
const rule = /^(?:(?:-[ \t]*){3,}|(?:\*[ \t]*){3,}|(?:_[ \t]*){3,})$/
const heading = /^ {0,3}#{1,6}(?:[ \t]|$)/
const fence = /^ {0,3}(`{3,}|~{3,})/
/** Where a link leads whose name stands elsewhere (CommonMark 4.7). */
const definition = /^ {0,3}\[([^[\]]{1,200})\]:\s*\S/

/**
 * A text in its questions, before any of it is parsed: the parser's work grows with the square of what it is given at once. A rule
 * ends a question, a heading begins one; within code neither does. What links are called is known in every piece.
 */
export function piecesOf(text: string): Piece[] {
  const pieces: Piece[] = []
  const definitions = new Map<string, string>()
  let lines: string[] = []
  let first = 1
  let open: string | null = null
  const close = (next: number) => {
    if (lines.some((line) => line.trim() !== '')) pieces.push({ source: lines.join('\n'), line: first })
    lines = []
    first = next
  }
  text.split(/\r\n?|\n/).forEach((line, i) => {
    const mark = fence.exec(line)?.[1]
    if (open !== null) {
      if (mark?.startsWith(open) && line.trim() === mark) open = null
      lines.push(line)
      return
    }
    if (mark) open = mark
    else if (rule.test(line)) {
      close(i + 2)
      return
    } else if (heading.test(line)) close(i + 1)
    const named = definition.exec(line)?.[1]
    if (named !== undefined && !definitions.has(label(named))) definitions.set(label(named), line)
    lines.push(line)
  })
  close(0)
  return definitions.size ? pieces.map((piece) => withDefinitions(piece, definitions)) : pieces
}

const label = (name: string) => name.trim().toLowerCase().replace(/\s+/g, ' ')

function withDefinitions(piece: Piece, definitions: ReadonlyMap<string, string>): Piece {
  const used = new Set([...piece.source.matchAll(/\[([^[\]]{1,200})\]/g)].map(([, name]) => label(name!)))
  const added = [...used].flatMap((name) => definitions.get(name) ?? [])
  return added.length ? { ...piece, source: `${piece.source}\n\n${added.join('\n')}` } : piece
}

/** More letters than a question has: what is parsed at once has a bound, since some texts take the cube of their length. */
const longest = 20_000
/** Quotes and lists within one another. */
const nested = /^(?:[ \t]*(?:>|[-*+]|\d{1,9}[.)])){25,}/m
/** Signs in a row that the parser tries in all ways. */
const rows = /[[\]*_`<!]{400,}/

const extensions = [
  { sign: '|', parses: gfmTable(), makes: gfmTableFromMarkdown() },
  { sign: '[', parses: gfmTaskListItem(), makes: gfmTaskListItemFromMarkdown() },
  { sign: '$', parses: math(), makes: mathFromMarkdown() },
]

/** What cannot be parsed, in a sentence. */
export class NotParsed extends Error {
  override name = 'NotParsed'
}

/** One piece as CommonMark with tables, task lists and maths. @throws NotParsed */
export function parsePiece({ source }: Piece): Root {
  if (source.length > longest)
    throw new NotParsed('One question of this text is longer than 20,000 characters. Put --- between questions.')
  if (nested.test(source)) throw new NotParsed('Quotes or lists lie more than 25 deep within one another.')
  if (rows.test(source)) throw new NotParsed('It has hundreds of brackets or stars in a row, which mean nothing here.')
  try {
    // Putting the parser together takes longer than a question: it gets what the question has signs of.
    const used = extensions.filter(({ sign }) => source.includes(sign))
    return fromMarkdown(source, {
      extensions: used.map(({ parses }) => parses),
      mdastExtensions: used.flatMap(({ makes }) => makes),
    })
  } catch {
    // The parser has states of which it says itself that they cannot be: an empty item before a box without one.
    throw new NotParsed('It cannot be read as Markdown. Look for list items that hold nothing.')
  }
}
