import { blankQuestion, type Question } from '../../core/question'
import { element, isElement, type XmlElement } from '../xml'
import { AskedBack, inThisOrder, optionsInKey } from './key-lines'
import {
  elements,
  htmlOf,
  insideHtml,
  isBold,
  unbold,
  withoutEnd,
  withoutStart,
  words,
  wordsOf,
  type Node,
} from './nodes'

export type Answer = Pick<Question, 'kind' | 'body'>
export const answer = (kind: Question['kind'], body: unknown): Answer => ({ kind, body }) as Answer

const ids = Array.from({ length: 60 }, (_, i) => `o${i + 1}`)

/** An option, or a line to be put in order. */
export interface Entry {
  html: string
  words: string
  comment: string
  /** What a tick, a box or bold letters say of it; null where there is none. */
  mark: 'right' | 'wrong' | null
}

/** Signs by which people tick. */
const ticked = /^\s*(?:\[[xX]\]|[☑☒✓✔✅])\s*/u
const unticked = /^\s*(?:\[ ?\]|[☐□])\s*/u
const tickedBehind = /\s*(?:[✓✔✅☑]|\((?:correct|right|correct answer)\))\s*$/iu

/** An entry of its markup: its mark is taken off, quotes in it are the comment on it. */
export function entryOf(nodes: readonly Node[]): Entry {
  const quotes = nodes.filter((node): node is XmlElement => isElement(node) && node.name === 'blockquote')
  const own = nodes.filter((node) => !quotes.includes(node as XmlElement))
  const comment = quotes.map((quote) => htmlOf(quote.children)).join('')
  const made = (content: readonly Node[], mark: Entry['mark']): Entry => ({
    html: insideHtml(content),
    words: wordsOf(content).trim(),
    comment,
    mark,
  })
  const text = wordsOf(own)
  if (ticked.test(text)) return made(withoutStart(own, ticked), 'right')
  if (unticked.test(text)) return made(withoutStart(own, unticked), 'wrong')
  if (tickedBehind.test(text)) return made(withoutEnd(own, tickedBehind), 'right')
  return isBold(own) ? made(unbold(own), 'right') : made(own, null)
}

/** @param right places of what is right @param either where each of several alone is right */
function choiceOf(entries: readonly Entry[], right: readonly number[], either: boolean): Answer {
  const several = right.length > 1 && !either
  const option = ({ html, comment }: Entry, i: number) => ({
    id: ids[i]!,
    html,
    comment,
    fixed: false,
    credit: right.includes(i) ? 1 : several ? -1 : 0,
  })
  return several
    ? answer('choices', {
        ...blankQuestion('choices').body,
        rule: 'share',
        options: entries.map((each, i) => ({ ...option(each, i), right: right.includes(i) })),
      })
    : answer('choice', { ...blankQuestion('choice').body, options: entries.map(option) })
}

const orderingOf = (entries: readonly Entry[]): Answer =>
  answer('ordering', {
    rule: 'moves',
    layout: 'list',
    items: entries.map(({ html, comment }, i) => ({ id: ids[i]!, html, comment })),
  })

/** What is known of a list beside its entries. */
export interface Circumstances {
  /** What a key line says of it. */
  key: string | null
  /** The question asks for an order. */
  order: boolean
  numbered: boolean
  /** Without a key it is a choice that has none yet. */
  mayBeOpen: boolean
}

/**
 * A list as an answer: what its marks and its key say is right, or, where the question or the key says so, lines in their order.
 * @param tell what is taken for granted
 * @throws AskedBack where nothing says what is right, or marks and key say different things
 */
export function listAnswer(entries: readonly Entry[], about: Circumstances, tell: (note: string) => void): Answer {
  const { key, order, numbered, mayBeOpen } = about
  if (key !== null && inThisOrder.test(key)) return bounded(entries, 'lines to put in order', orderingOf)
  const marked = entries.flatMap(({ mark }, i) => (mark === 'right' ? [i] : []))
  if (key !== null) {
    const named = optionsInKey(
      key,
      entries.map((each) => each.words),
      numbered,
    )
    if (!named)
      throw new AskedBack(`The key says “${key.slice(0, 60)}”, which is none of its ${entries.length} options.`)
    if (order && named.at.length === entries.length && !marked.length)
      return bounded(entries, 'lines to put in order', (all) => orderingOf(named.at.map((at) => all[at]!)))
    if (marked.length && [...named.at].sort().join() !== [...marked].sort().join())
      throw new AskedBack(`The key says “${key.slice(0, 60)}”, but other options are bold or ticked.`)
    if (named.at.length === entries.length) throw new AskedBack('The key names all of its options.')
    return bounded(entries, 'options', (all) => choiceOf(all, named.at, named.either))
  }
  if (entries.some(({ mark }) => mark !== null)) {
    if (marked.length === entries.length) throw new AskedBack('All of its options are bold or ticked.')
    return bounded(entries, 'options', (all) => choiceOf(all, marked, false))
  }
  if (order && numbered) {
    tell('Its lines are taken to stand in the right order: the question asks for one.')
    return bounded(entries, 'lines to put in order', orderingOf)
  }
  if (mayBeOpen) return bounded(entries, 'options', (all) => choiceOf(all, [], false))
  throw new AskedBack(
    order
      ? 'Nothing says whether its lines stand in the right order. Add a line “Answer: in this order”.'
      : 'Nothing says which of its options is right. Put it in bold, tick it, or add a line such as “Answer: B”; of lines that stand in the right order, “Answer: in this order”.',
  )
}

function bounded(entries: readonly Entry[], what: string, make: (entries: readonly Entry[]) => Answer): Answer {
  if (entries.length > 30) throw new AskedBack(`It has more than 30 ${what}.`)
  return make(entries)
}

export const rowsOf = (table: XmlElement): XmlElement[] =>
  elements(table).flatMap((child) => (child.name === 'tr' ? [child] : rowsOf(child)))
/** A table whose lines may be pairs. */
export const isPairs = (node: Node): node is XmlElement =>
  isElement(node) &&
  node.name === 'table' &&
  rowsOf(node).length > 1 &&
  rowsOf(node).every((row) => elements(row).length === 2)

/** Whether a table begins with a heading: cells that are marked as such, or a first line in bold where the others are not. */
function headed(table: XmlElement): boolean {
  const isMarked = (row: XmlElement) => elements(row).every((cell) => cell.name === 'th' || isBold(cell.children))
  const [first, ...others] = rowsOf(table)
  return first !== undefined && isMarked(first) && others.some((row) => !isMarked(row))
}

/** A table of two columns as a matching. @throws AskedBack */
export function tableAnswer(table: XmlElement, tell: (note: string) => void): Answer {
  const isHeaded = headed(table)
  const rows = rowsOf(table)
    .slice(isHeaded ? 1 : 0)
    .map((row) => elements(row).map((cell) => insideHtml(cell.children)))
    .filter((row) => row.some((cell) => cell !== ''))
  if (rows.length > 40) throw new AskedBack('It has more than 40 pairs.')
  if (isHeaded) tell('The first line of its table is taken for a heading: it is no pair.')
  else if (rowsOf(table)[0] && words(rowsOf(table)[0]!).trim() !== '')
    tell(
      'The first line of its table is a pair like the others. Put it in bold, or leave its cells empty, if it is a heading.',
    )
  return answer('matching', {
    ...blankQuestion('matching').body,
    items: rows.flatMap((row, i) =>
      row[0] ? [{ id: ids[i]!, html: row[0], comment: '', target: row[1] ? ids[i]! : null }] : [],
    ),
    targets: rows.flatMap((row, i) => (row[1] ? [{ id: ids[i]!, html: row[1] }] : [])),
  })
}

/** Signs that begin an option which is typed as a line: "A)", "(b)", "c." */
const lettered = /^\s*(?:[*✓✔]\s*)?\(?([a-zA-Z])[.)]\)?\s+(?=\S)/u
const letterAtStart = /^\s*(?:[*✓✔]\s*)?\(?[a-zA-Z][.)]\)?\s*/u
/** The place of a letter that begins a line; null for a line without one. */
export function letterOf(line: string): number | null {
  const found = lettered.exec(line)
  return found ? found[1]!.toLowerCase().charCodeAt(0) - 97 : null
}

/** A lettered line as an entry. */
export function letteredEntry(nodes: readonly Node[]): Entry {
  const starred = /^\s*[*✓✔]/u.test(wordsOf(nodes))
  const bold = isBold(nodes)
  const found = entryOf(withoutStart(bold ? unbold(nodes) : nodes, letterAtStart))
  return starred || bold ? { ...found, mark: 'right' } : found
}

/** Lettered lines as the list that they are, for where they belong to what is asked. */
export const asList = (entries: readonly Entry[]): XmlElement =>
  element(
    'ol',
    {},
    entries.map(({ words: text }) => element('li', {}, text)),
  )
