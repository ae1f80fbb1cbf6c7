import type { Blockquote, List, ListItem, Paragraph, RootContent, Table } from 'mdast'
import { blankQuestion, type Question } from '../../core/question'
import { blankAnswer } from '../../core/question/kinds/text'
import { blockHtml, inline, lineOf, textOf, type Reading } from './html'

export type Answer = Pick<Question, 'kind' | 'body'>

/** A key that can be read in two ways: the sentence asks back. */
export class AskedBack extends Error {
  override name = 'AskedBack'
}

const ids = Array.from({ length: 60 }, (_, i) => `o${i + 1}`)

export const isTaskList = (block: RootContent): block is List =>
  block.type === 'list' && block.children.some((entry) => typeof entry.checked === 'boolean')
export const isOrder = (block: RootContent): block is List => block.type === 'list' && block.ordered === true
export const isPairs = (block: RootContent): block is Table =>
  block.type === 'table' && block.children.every((row) => row.children.length === 2)

const isComment = (child: ListItem['children'][number]): child is Blockquote => child.type === 'blockquote'

function entryHtml(entry: ListItem, reading: Reading): string {
  const own = entry.children.filter((child) => !isComment(child))
  const [first] = own
  return own.length === 1 && first?.type === 'paragraph'
    ? inline(first.children, reading)
    : own.map((child) => blockHtml(child as RootContent, reading)).join('')
}
const commentOf = (entry: ListItem, reading: Reading): string =>
  entry.children
    .filter(isComment)
    .flatMap((quote) => quote.children.map((child) => blockHtml(child as RootContent, reading)))
    .join('')

/** The answer line of a paragraph: "= …" as its last line. */
export function answerLine(block: RootContent): { before: Paragraph | null; answer: string } | null {
  if (block.type !== 'paragraph') return null
  const whole = textOf(block)
  const at = whole.lastIndexOf('\n')
  const last = whole.slice(at + 1).trim()
  if (!/^=\s*\S/.test(last)) return null
  const answer = last.slice(1).trim()
  if (at < 0) return { before: null, answer }
  return { before: withoutLastLine(block), answer }
}

/** A paragraph up to its last line, with the markup of what stays. */
function withoutLastLine(block: Paragraph): Paragraph {
  const children = [...block.children]
  while (children.length) {
    const last = children.pop()!
    if (last.type === 'break') break
    if (last.type !== 'text') continue
    const at = last.value.lastIndexOf('\n')
    if (at < 0) continue
    children.push({ ...last, value: last.value.slice(0, at) })
    break
  }
  return { ...block, children }
}

const plainNumber = /^[-−+]?\d+(?:[.,]\d+)?(?:e[+-]?\d{1,2})?$/i

/** A number as it is typed in a key; what can be read in two ways is asked back. @throws AskedBack */
function numberIn(text: string): { value: string; comma: boolean } {
  const tidy = text.trim().replace('−', '-').replace(/^\+/, '')
  // Nobody parts thousands off a nought.
  if (/^-?[1-9]\d{0,2},\d{3}$/.test(tidy) || /^-?\d{1,3}([ \u00a0\u2009\u202f]\d{3})+([.,]\d+)?$/.test(tidy))
    throw new AskedBack(
      `“${text.trim()}” can be read in two ways. Write thousands without a mark, and decimals that are not three digits long, or with a point.`,
    )
  if (!plainNumber.test(tidy)) throw new AskedBack(`“${text.trim()}” is not a plain number.`)
  const plain = tidy.replace(',', '.')
  return { value: /e/i.test(plain) ? String(Number(plain)) : plain, comma: tidy.includes(',') }
}

/** "3.9 ± 0.1 m", "3,9 ± 2 %": number, tolerance, unit. */
const quantity =
  /^([-−+]?\d[\d.,]*(?:e[+-]?\d{1,2})?(?:[ \u00a0\u2009\u202f]\d{3})*)(?:\s*(?:±|\+-|\+\/-)\s*(\d[\d.,]*)\s*(%)?)?(?:\s+([^\d\s±+].{0,19})|([°%]))?$/i

function numbers(answers: readonly string[]): Answer | null {
  const found = answers.map((each) => quantity.exec(each))
  if (!found.every((each) => each !== null)) return null
  const units = new Set(found.map((each) => (each[4] ?? each[5] ?? '').trim()))
  if (units.size > 1) throw new AskedBack('Its numbers have different units. Write all of them in one.')
  const read = found.map((each) => {
    const { value, comma } = numberIn(each[1]!)
    const tolerance = each[2] === undefined ? null : numberIn(each[2])
    const near =
      each[3] && tolerance
        ? { by: 'relative' as const, tolerance: String(Math.round(Number(tolerance.value) * 1e10) / 1e12) }
        : { by: 'absolute' as const, tolerance: tolerance?.value ?? '0' }
    return { answer: { value, near, credit: 1, comment: '' }, comma: comma || (tolerance?.comma ?? false) }
  })
  const isComma = read.some(({ comma }) => comma)
  const either = found
    .flatMap((each) => [each[1]!, each[2] ?? ''])
    .find((each) => /^[-−+]?[1-9]\d{0,2}\.\d{3}$/.test(each))
  if (isComma && either !== undefined)
    throw new AskedBack(`“${either}” can be read in two ways beside decimal commas. Write thousands without a mark.`)
  return {
    kind: 'number',
    body: {
      answers: read.map(({ answer }) => answer),
      label: '',
      unit: [...units][0]!,
      unitAsked: false,
      style: isComma ? 'comma' : 'point',
    },
  } as Answer
}

/** What an answer line says: numbers, or texts that are accepted. @throws AskedBack */
export function keyed(answer: string): Answer {
  const answers = answer
    .split('|')
    .map((part) => part.trim())
    .filter(Boolean)
  const found = numbers(answers)
  if (found) return found
  const half = answers.find((each) => /^[-−+]?\d[\d.,]*\s*(?:±|\+-|\+\/-)/.test(each))
  if (half)
    throw new AskedBack(
      `“${half}” is not understood. Write a number, ± and how far it may be off, and the unit: = 3.9 ± 0.1 m`,
    )
  if (answers.some((each) => each.length > 200))
    throw new AskedBack('An accepted answer is longer than 200 characters.')
  return {
    kind: 'text',
    body: { ...blankQuestion('text').body, answers: answers.map((text) => blankAnswer(text)) },
  } as Answer
}

export function optionsOf(list: List, reading: Reading): Answer {
  const right = list.children.filter((entry) => entry.checked).length
  if (list.children.some((entry) => typeof entry.checked !== 'boolean'))
    reading.notes.push(`Line ${lineOf(list, reading)}: some options have no box; write "- [ ]" or "- [x]" before each.`)
  if (list.children.length > 30) throw new AskedBack('It has more than 30 options.')
  const options = list.children.map((entry, i) => ({
    id: ids[i]!,
    html: entryHtml(entry, reading),
    comment: commentOf(entry, reading),
    fixed: false,
    credit: entry.checked ? 1 : right > 1 ? -1 : 0,
    ...(right > 1 ? { right: Boolean(entry.checked) } : {}),
  }))
  return right > 1
    ? ({ kind: 'choices', body: { ...blankQuestion('choices').body, options, rule: 'share' } } as Answer)
    : ({ kind: 'choice', body: { ...blankQuestion('choice').body, options } } as Answer)
}

export function orderOf(list: List, reading: Reading): Answer {
  if (list.children.length > 30) throw new AskedBack('It has more than 30 lines to put in order.')
  return {
    kind: 'ordering',
    body: {
      rule: 'moves',
      layout: 'list',
      items: list.children.map((entry, i) => ({
        id: ids[i]!,
        html: entryHtml(entry, reading),
        comment: commentOf(entry, reading),
      })),
    },
  } as Answer
}

/** A matching: the first row, which Markdown takes for a heading, is a pair like any other unless it is empty; that is told. */
export function pairsOf(table: Table, reading: Reading): Answer {
  const all = table.children.map((row) => row.children.map((cell) => inline(cell.children, reading)))
  const rows = all.filter((row) => row.some((cell) => cell !== ''))
  if (rows.length > 40) throw new AskedBack('It has more than 40 pairs.')
  if (all[0] === rows[0] && rows.length > 1)
    reading.notes.push(
      `Line ${lineOf(table, reading)}: the first line of the table is a pair like the others. Leave its cells empty if it is a heading.`,
    )
  return {
    kind: 'matching',
    body: {
      ...blankQuestion('matching').body,
      items: rows.flatMap((row, i) =>
        row[0] ? [{ id: ids[i]!, html: row[0], comment: '', target: row[1] ? ids[i]! : null }] : [],
      ),
      targets: rows.flatMap((row, i) => (row[1] ? [{ id: ids[i]!, html: row[1] }] : [])),
    },
  } as Answer
}
