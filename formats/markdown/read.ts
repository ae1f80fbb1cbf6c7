import type {
  BlockContent,
  Blockquote,
  Heading,
  List,
  ListItem,
  Nodes,
  Paragraph,
  PhrasingContent,
  RootContent,
  Table,
} from 'mdast'
import { blankQuestion, type Question } from '../../core/question'
import { escapeHtml, withMaths } from '../plain-html'
import { blocksOf } from './parts'
import { brokenItem, onlyItems, readItem, type Bundle, type BundleItem } from '../bundle'

/**
 * Questions as Markdown: CommonMark with its task lists and tables, nothing else (docs/files.md has the whole of it).
 * `---` parts questions; a task list is the options, an ordered list an ordering, a table of two columns a matching,
 * a line "= 3.9 ± 0.1 m" a number, "= ebb | ebb tide" a text, headings the folder.
 */
export function readMarkdown(source: string): Bundle {
  const folder: string[] = []
  const items: BundleItem[] = []
  let blocks: RootContent[] = []
  const close = () => {
    if (blocks.length) items.push({ ...questionFrom(blocks, items.length + 1), folder: folder.filter(Boolean) })
    blocks = []
  }
  for (const block of blocksOf(source)) {
    if (block.type === 'thematicBreak') close()
    else if (block.type === 'heading' && isUnderlined(block)) {
      // "---" right under a line would make that line a heading; here it parts questions.
      blocks.push({ type: 'paragraph', children: block.children, position: block.position } as Paragraph)
      close()
    } else if (block.type === 'heading') {
      close()
      folder.splice(block.depth - 1, folder.length, textOf(block))
    } else blocks.push(block)
  }
  close()
  return onlyItems(items)
}

const isUnderlined = (heading: Heading) =>
  heading.depth === 2 && heading.position !== undefined && heading.position.end.line > heading.position.start.line
const lineOf = (block: Nodes) => block.position?.start.line ?? 1

const textOf = (node: Nodes): string =>
  'value' in node
    ? node.value
    : 'children' in node
      ? node.children.map((child) => textOf(child as Nodes)).join('')
      : 'alt' in node
        ? (node.alt ?? '')
        : node.type === 'break'
          ? '\n'
          : ''

function inline(nodes: PhrasingContent[]): string {
  return nodes
    .map((node): string => {
      switch (node.type) {
        case 'text':
          return withMaths(escapeHtml(node.value))
        case 'emphasis':
          return `<em>${inline(node.children)}</em>`
        case 'strong':
          return `<strong>${inline(node.children)}</strong>`
        case 'inlineCode':
          return `<code>${escapeHtml(node.value)}</code>`
        case 'break':
          return '<br>'
        case 'link':
          return `<a href="${escapeHtml(node.url)}">${inline(node.children)}</a>`
        // A picture cannot come along with a text; its words stay.
        case 'image':
          return `<em>${escapeHtml(node.alt || node.url)}</em>`
        default:
          return escapeHtml(textOf(node))
      }
    })
    .join('')
}

function blockHtml(block: RootContent | BlockContent): string {
  switch (block.type) {
    case 'paragraph':
      return `<p>${inline(block.children)}</p>`
    case 'code':
      return `<pre><code>${escapeHtml(block.value)}</code></pre>`
    case 'blockquote':
      return `<blockquote>${block.children.map((child) => blockHtml(child as RootContent)).join('')}</blockquote>`
    case 'list':
      return `<${block.ordered ? 'ol' : 'ul'}>${block.children.map((entry) => `<li>${entry.children.map((child) => blockHtml(child as RootContent)).join('')}</li>`).join('')}</${block.ordered ? 'ol' : 'ul'}>`
    case 'table':
      return `<table><tbody>${block.children.map((row) => `<tr>${row.children.map((cell) => `<td>${inline(cell.children)}</td>`).join('')}</tr>`).join('')}</tbody></table>`
    default:
      return `<p>${escapeHtml(textOf(block))}</p>`
  }
}

const ids = Array.from({ length: 60 }, (_, i) => `o${i + 1}`)
const isTaskList = (block: RootContent): boolean =>
  block.type === 'list' && block.children.some((entry) => typeof entry.checked === 'boolean')
const entryHtml = (entry: ListItem) => {
  const [first] = entry.children
  return first?.type === 'paragraph' && entry.children.filter((child) => child.type !== 'blockquote').length === 1
    ? inline(first.children)
    : entry.children
        .filter((child) => child.type !== 'blockquote')
        .map((child) => blockHtml(child as RootContent))
        .join('')
}
const commentOf = (entry: ListItem) =>
  entry.children
    .filter((child): child is Blockquote => child.type === 'blockquote')
    .flatMap((quote) => quote.children.map((child) => blockHtml(child as RootContent)))
    .join('')

/** The answer line of a paragraph: "= …" as its last line. */
function answerLine(block: RootContent): { before: Paragraph | null; answer: string; line: number } | null {
  if (block.type !== 'paragraph') return null
  const lines = textOf(block).split('\n')
  const last = lines.at(-1)!.trim()
  if (!/^=\s*\S/.test(last)) return null
  const line = block.position?.end.line ?? 1
  if (lines.length === 1) return { before: null, answer: last.slice(1).trim(), line }
  return {
    before: { type: 'paragraph', children: [{ type: 'text', value: lines.slice(0, -1).join('\n') }] },
    answer: last.slice(1).trim(),
    line,
  }
}

function keyed(answer: string): Pick<Question, 'kind' | 'body'> {
  const found = /^([-−]?\d+(?:[.,]\d+)?)(?:\s*(?:±|\+-|\+\/-)\s*(\d+(?:[.,]\d+)?)\s*(%)?)?(?:\s+(\S.{0,19}))?$/.exec(
    answer,
  )
  if (found && !answer.includes('|')) {
    const plain = (text: string) => text.replace('−', '-').replace(',', '.')
    const tolerance = plain(found[2] ?? '0')
    const near = found[3]
      ? { by: 'relative' as const, tolerance: String(Number(tolerance) / 100) }
      : { by: 'absolute' as const, tolerance }
    return {
      kind: 'number',
      body: {
        answers: [{ value: plain(found[1]!), near, credit: 1, comment: '' }],
        label: '',
        unit: found[4]?.trim() ?? '',
        unitAsked: false,
        style: found[1]!.includes(',') ? 'comma' : 'point',
      },
    } as Pick<Question, 'kind' | 'body'>
  }
  const answers = answer
    .split('|')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((text) => ({ how: 'is' as const, text: text.slice(0, 200), credit: 1, comment: '' }))
  const base = blankQuestion('text')
  return { kind: 'text', body: { ...base.body, answers } } as Pick<Question, 'kind' | 'body'>
}

function optionsOf(list: List): Pick<Question, 'kind' | 'body'> {
  const right = list.children.filter((entry) => entry.checked).length
  const options = list.children.map((entry, i) => ({
    id: ids[i] ?? `o${i}`,
    html: entryHtml(entry),
    comment: commentOf(entry),
    fixed: false,
    credit: entry.checked ? 1 : right > 1 ? -1 : 0,
    ...(right > 1 ? { right: Boolean(entry.checked) } : {}),
  }))
  return right > 1
    ? ({ kind: 'choices', body: { ...blankQuestion('choices').body, options, rule: 'share' } } as Pick<
        Question,
        'kind' | 'body'
      >)
    : ({ kind: 'choice', body: { ...blankQuestion('choice').body, options } } as Pick<Question, 'kind' | 'body'>)
}

const orderOf = (list: List): Pick<Question, 'kind' | 'body'> =>
  ({
    kind: 'ordering',
    body: {
      rule: 'moves',
      layout: 'list',
      items: list.children.map((entry, i) => ({ id: ids[i]!, html: entryHtml(entry), comment: commentOf(entry) })),
    },
  }) as Pick<Question, 'kind' | 'body'>

/** A matching: the first row is its heading where Markdown asks for one, and is a pair like any other unless it is empty. */
function pairsOf(table: Table): Pick<Question, 'kind' | 'body'> {
  const rows = table.children
    .map((row) => row.children.map((cell) => inline(cell.children)))
    .filter((row) => row.some((cell) => cell !== ''))
  return {
    kind: 'matching',
    body: {
      wrongCost: 0,
      items: rows
        .filter((row) => row[0])
        .map((row, i) => ({ id: ids[i]!, html: row[0]!, comment: '', target: row[1] ? ids[i]! : null })),
      targets: rows.flatMap((row, i) => (row[1] ? [{ id: ids[i]!, html: row[1] }] : [])),
    },
  } as Pick<Question, 'kind' | 'body'>
}

function questionFrom(blocks: RootContent[], number: number): BundleItem {
  const place = `question ${number}, line ${lineOf(blocks[0]!)}`
  const stem: string[] = []
  const notes: string[] = []
  let answer: Pick<Question, 'kind' | 'body'> | null = null
  const take = (found: Pick<Question, 'kind' | 'body'>, line: number) => {
    if (answer)
      notes.push(`Line ${line}: a second answer to the same question is left out. Put --- between two questions.`)
    else answer = found
  }
  let general = ''
  for (const block of blocks) {
    const line = answerLine(block)
    if (line) {
      if (line.before) stem.push(blockHtml(line.before))
      take(keyed(line.answer), line.line)
    } else if (isTaskList(block)) {
      if ((block as List).children.some((entry) => typeof entry.checked !== 'boolean'))
        notes.push(`Line ${lineOf(block)}: some options have no box; write "- [ ]" or "- [x]" before each.`)
      take(optionsOf(block as List), lineOf(block))
    } else if (block.type === 'list' && block.ordered) take(orderOf(block), lineOf(block))
    else if (block.type === 'table' && block.children.every((row) => row.children.length === 2))
      take(pairsOf(block), lineOf(block))
    else if (block.type === 'blockquote' && answer)
      general += block.children.map((child) => blockHtml(child as RootContent)).join('')
    else if (block.type === 'html') notes.push(`Line ${lineOf(block)}: HTML is not read here; write it as Markdown.`)
    else stem.push(blockHtml(block))
  }
  if (!answer)
    return brokenItem(
      place,
      'There is no answer: add a task list, an ordered list, a table of two columns, or a line that begins with "=".',
      { notes },
    )
  const { kind, body } = answer as Pick<Question, 'kind' | 'body'>
  return readItem(
    place,
    { ...blankQuestion(kind), stem: stem.join(''), body, comments: { right: '', wrong: '', general } } as Question,
    { notes },
  )
}
