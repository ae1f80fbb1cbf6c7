import { blankQuestion, plainText, type Question } from '../../core/question'
import { brokenItem, readItem, type BundleItem } from '../bundle'
import { AskedBack, keyed, type Answer } from '../markdown/answers'
import { openFolder } from '../folders'
import { mapElements, parseHtml, toHtml } from '../html'
import { equationMark } from './equations'
import { element, isElement, type XmlElement } from '../xml'

/**
 * The text of a word processor as questions, as Markdown would be read: headings are folders; a list with one entry that is bold
 * or ticked is a choice, with several choices; a numbered list without any an ordering; a table of two columns a matching; a line
 * "= …" a number or text. What follows an answer begins the next question. A numbered list whose entries hold lists is a list of
 * questions.
 */

type Node = XmlElement | string

const ids = Array.from({ length: 60 }, (_, i) => `o${i + 1}`)
/** Signs by which people tick: the first is the mark itself. */
const ticked = /^\s*(?:\[[xX]\]|[☑☒✓✔✅])\s*/u
const unticked = /^\s*(?:\[ ?\]|[☐□])\s*/u

const words = (node: Node): string => (isElement(node) ? node.children.map(words).join('') : node)
const elements = (node: XmlElement): XmlElement[] => node.children.filter(isElement)
const isList = (node: Node): node is XmlElement => isElement(node) && (node.name === 'ul' || node.name === 'ol')
const isBlank = (node: Node): boolean =>
  words(node).trim() === '' &&
  !(isElement(node) && (node.name === 'img' || elements(node).some((each) => !isBlank(each))))

/** Bold as a whole: everything in it that is not blank. */
function isBold(nodes: readonly Node[]): boolean {
  const inner = nodes.filter((node) => !isBlank(node) && !isList(node))
  return (
    inner.length > 0 &&
    inner.every(
      (node) =>
        isElement(node) &&
        (['strong', 'b'].includes(node.name) || (['p', 'span', 'em'].includes(node.name) && isBold(node.children))),
    )
  )
}
const unbold = (nodes: readonly Node[]): Node[] =>
  nodes.flatMap((node): Node[] =>
    !isElement(node)
      ? [node]
      : ['strong', 'b'].includes(node.name)
        ? unbold(node.children)
        : [{ ...node, children: unbold(node.children) }],
  )

/** The first words without a mark. */
function withoutMark(nodes: readonly Node[], mark: RegExp): Node[] {
  const [first, ...rest] = nodes
  if (first === undefined) return []
  if (!isElement(first)) return [first.replace(mark, ''), ...rest]
  return [{ ...first, children: withoutMark(first.children, mark) }, ...rest]
}

/** Contents of an entry: a paragraph that is all there is stands without its marks. */
function inside(nodes: readonly Node[]): string {
  const kept = nodes.filter((node) => !isBlank(node))
  const [only] = kept
  return toHtml(kept.length === 1 && only && isElement(only) && only.name === 'p' ? only.children : kept)
}

const inline = new Set(['strong', 'b', 'em', 'i', 'sub', 'sup', 'a', 'img', 'span', 'br', 'code'])
/** Words of an entry that stand there without a paragraph, as one. */
const asBlock = (nodes: Node[]): Node[] =>
  nodes.every((node) => !isElement(node) || inline.has(node.name)) ? [element('p', {}, nodes)] : nodes

interface Entry {
  html: string
  right: boolean
  marked: boolean
}
function entryOf(item: XmlElement): Entry {
  const text = words(item)
  if (ticked.test(text)) return { html: inside(withoutMark(item.children, ticked)), right: true, marked: true }
  if (unticked.test(text)) return { html: inside(withoutMark(item.children, unticked)), right: false, marked: true }
  const bold = isBold(item.children)
  return { html: inside(bold ? unbold(item.children) : item.children), right: bold, marked: bold }
}

const answer = (kind: Question['kind'], body: unknown): Answer => ({ kind, body }) as Answer

function listAnswer(list: XmlElement, mayBeOpen: boolean): Answer {
  const entries = elements(list)
    .filter((each) => each.name === 'li')
    .map(entryOf)
  if (entries.length > 30) throw new AskedBack('It has more than 30 options.')
  const right = entries.filter((each) => each.right).length
  if (!entries.some(({ marked }) => marked)) {
    if (list.name === 'ul' && mayBeOpen)
      return answer('choice', {
        ...blankQuestion('choice').body,
        options: entries.map(({ html }, i) => ({ id: ids[i]!, html, comment: '', fixed: false, credit: 0 })),
      })
    if (list.name === 'ul') throw new AskedBack('None of its options is bold or ticked: nothing says which is right.')
    return answer('ordering', {
      rule: 'moves',
      layout: 'list',
      items: entries.map(({ html }, i) => ({ id: ids[i]!, html, comment: '' })),
    })
  }
  if (right === entries.length) throw new AskedBack('All of its options are bold or ticked.')
  const option = ({ html, right: isRight }: Entry, i: number) => ({
    id: ids[i]!,
    html,
    comment: '',
    fixed: false,
    credit: isRight ? 1 : right > 1 ? -1 : 0,
  })
  return right > 1
    ? answer('choices', {
        ...blankQuestion('choices').body,
        rule: 'share',
        options: entries.map((each, i) => ({ ...option(each, i), right: each.right })),
      })
    : answer('choice', { ...blankQuestion('choice').body, options: entries.map(option) })
}

const rowsOf = (table: XmlElement): XmlElement[] =>
  elements(table).flatMap((child) => (child.name === 'tr' ? [child] : rowsOf(child)))
const isPairs = (node: Node): node is XmlElement =>
  isElement(node) &&
  node.name === 'table' &&
  rowsOf(node).length > 1 &&
  rowsOf(node).every((row) => elements(row).length === 2)

function tableAnswer(table: XmlElement): Answer {
  const rows = rowsOf(table)
    .slice(headed(table) ? 1 : 0)
    .map((row) => elements(row).map((cell) => inside(cell.children)))
    .filter((row) => row.some((cell) => cell !== ''))
  if (rows.length > 40) throw new AskedBack('It has more than 40 pairs.')
  return answer('matching', {
    ...blankQuestion('matching').body,
    items: rows.flatMap((row, i) =>
      row[0] ? [{ id: ids[i]!, html: row[0], comment: '', target: row[1] ? ids[i]! : null }] : [],
    ),
    targets: rows.flatMap((row, i) => (row[1] ? [{ id: ids[i]!, html: row[1] }] : [])),
  })
}

/** Whether a table begins with a heading: cells that are marked as such, or a first line in bold where the others are not. */
function headed(table: XmlElement): boolean {
  const isMarked = (row: XmlElement) => elements(row).every((cell) => cell.name === 'th' || isBold(cell.children))
  const [first, ...others] = rowsOf(table)
  return first !== undefined && isMarked(first) && others.some((row) => !isMarked(row))
}

const isNote = ({ attributes }: XmlElement) => /^(?:footnote|endnote)-\d/.test(attributes.id ?? '')
const leadsToNote = (node: Node): boolean =>
  isElement(node) &&
  ((node.name === 'a' && /^#(?:footnote|endnote)-\d/.test(node.attributes.href ?? '')) ||
    node.children.some(leadsToNote))

/** Boxes as signs; footnotes, which stand in a list at the end, not at all. */
const tidied = (nodes: readonly Node[]): Node[] =>
  mapElements(nodes, (node) => {
    if (node.name === 'input' && node.attributes.type === 'checkbox') return 'checked' in node.attributes ? '☑ ' : '☐ '
    return isList(node) && elements(node).length > 0 && elements(node).every(isNote) ? null : node
  })

const keyLine = (node: Node): string | null => {
  const found = isElement(node) && node.name === 'p' ? /^\s*=\s*(\S[\s\S]*)$/.exec(words(node)) : null
  return found ? found[1]!.trim() : null
}

interface Open {
  stem: Node[]
  answer: Answer | null
  problem: string | null
  /** What is left out of it. */
  notes: Set<string>
}
const nothing = (): Open => ({ stem: [], answer: null, problem: null, notes: new Set() })

const equation = '[equation]'

/**
 * Reads the markup that a word processor's text is turned into.
 * @param mayBeOpen options of which none is marked are a choice without a key: for whoever goes on writing
 */
export function questionsFromHtml(html: string, mayBeOpen = false): BundleItem[] {
  const items: BundleItem[] = []
  const folder: string[] = []
  let open = nothing()
  const close = () => {
    const { stem, answer: found, problem, notes } = open
    open = nothing()
    if (!stem.some((node) => !isBlank(node)) && !found) return
    const place = `question ${items.length + 1}, “${plainText(toHtml(stem)).slice(0, 40)}”`
    const more = { folder: folder.filter(Boolean), notes: [...notes] }
    if (problem !== null) items.push(brokenItem(place, problem, more))
    else if (!found)
      items.push(
        brokenItem(
          place,
          'There is no answer: a list with the right option in bold or ticked, a numbered list, a table of two columns, or a line that begins with "=".',
          more,
        ),
      )
    else
      items.push(
        readItem(place, { ...blankQuestion(found.kind), stem: toHtml(stem), body: found.body } as Question, more),
      )
  }
  const tell = (node: XmlElement | string) => {
    if (words(node).includes(equation))
      open.notes.add(`An equation of it is not read. Write it anew where ${equation} stands.`)
    if (leadsToNote(node)) open.notes.add('A footnote of it is left out.')
  }
  const take = (node: XmlElement | string, read: () => Answer) => {
    tell(node)
    try {
      open.answer = read()
    } catch (error) {
      if (!(error instanceof AskedBack)) throw error
      open.problem = error.message
    }
    close()
  }
  for (const node of tidied(parseHtml(html.replaceAll(equationMark, equation)))) {
    if (isBlank(node)) continue
    const heading = isElement(node) ? /^h([1-6])$/.exec(node.name) : null
    const key = keyLine(node)
    if (heading) {
      close()
      openFolder(folder, Number(heading[1]), words(node).trim())
    } else if (/^\s*(?:-{3,}|_{3,}|\*{3,})\s*$/.test(words(node)) && !(isElement(node) && node.name === 'table'))
      close()
    else if (isList(node) && elements(node).some((entry) => elements(entry).some(isList))) {
      // A list of questions, each with its options beneath it.
      close()
      for (const entry of elements(node)) {
        const inner = elements(entry).find(isList)
        open.stem = asBlock(entry.children.filter((child) => child !== inner))
        if (inner) take(entry, () => listAnswer(inner, mayBeOpen))
        else {
          tell(entry)
          close()
        }
      }
    } else if (isList(node)) take(node, () => listAnswer(node, mayBeOpen))
    else if (isPairs(node)) {
      if (headed(node)) open.notes.add('The first line of its table is taken for a heading: it is no pair.')
      take(node, () => tableAnswer(node))
    } else if (key !== null) take(node, () => keyed(key))
    else {
      tell(node)
      open.stem.push(node)
    }
  }
  close()
  return items
}
