import { exact } from '../../core/kit/exact'
import { nearestNumberText } from '../../core/kit/number-text'
import type { Nodes, PhrasingContent, Root, RootContent } from 'mdast'
import { gfmTableToMarkdown } from 'mdast-util-gfm-table'
import { gfmTaskListItemToMarkdown } from 'mdast-util-gfm-task-list-item'
import { mathToMarkdown } from 'mdast-util-math'
import { toMarkdown } from 'mdast-util-to-markdown'
import type { Question } from '../../core/question'
import type { OutgoingQuestion } from '../format'
import { parseHtml } from '../html'
import { isReadBack } from '../read-back'
import { unseenIn, type Feature } from '../unseen'
import { isElement, type XmlElement } from '../xml'
import { typedAnswer } from '../text-questions/typed'
import { readMarkdown } from './read'

type Html = XmlElement | string

/** Words within a line. What Markdown has no sign for stands as its words. */
function phrasing(nodes: readonly Html[]): PhrasingContent[] {
  return nodes.flatMap((node): PhrasingContent[] => {
    if (!isElement(node)) return node === '' ? [] : [{ type: 'text', value: node.replace(/\s+/g, ' ') }]
    const tex = node.attributes['data-latex']
    if (tex !== undefined) return [{ type: 'inlineMath', value: tex }]
    const children = phrasing(node.children)
    switch (node.name) {
      case 'strong':
        return [{ type: 'strong', children }]
      case 'em':
        return [{ type: 'emphasis', children }]
      case 'code':
        return [{ type: 'inlineCode', value: words(node) }]
      case 'br':
        return [{ type: 'break' }]
      case 'a':
        return [{ type: 'link', url: node.attributes.href ?? '', children }]
      case 'img':
        return [{ type: 'emphasis', children: [{ type: 'text', value: node.attributes.alt || 'a picture' }] }]
      default:
        return children
    }
  })
}
const words = (node: XmlElement): string =>
  node.children.map((child) => (isElement(child) ? words(child) : child)).join('')

const isBlock = (node: Html): node is XmlElement =>
  isElement(node) && ['p', 'ul', 'ol', 'blockquote', 'pre', 'table', 'h3', 'h4', 'hr'].includes(node.name)

function blocks(nodes: readonly Html[]): RootContent[] {
  const result: RootContent[] = []
  let line: Html[] = []
  const close = () => {
    const children = phrasing(line)
    if (children.some((child) => child.type !== 'text' || child.value.trim() !== ''))
      result.push({ type: 'paragraph', children })
    line = []
  }
  for (const node of nodes) {
    if (!isBlock(node)) {
      line.push(node)
      continue
    }
    close()
    result.push(...block(node))
  }
  close()
  return result
}

function block(node: XmlElement): RootContent[] {
  switch (node.name) {
    case 'ul':
    case 'ol':
      return [
        {
          type: 'list',
          ordered: node.name === 'ol',
          spread: false,
          children: node.children
            .filter(isElement)
            .map((entry) => ({ type: 'listItem', spread: false, children: blocks(entry.children) as never })),
        },
      ]
    case 'blockquote':
      return [{ type: 'blockquote', children: blocks(node.children) as never }]
    case 'pre':
      return [{ type: 'code', value: words(node) }]
    case 'table':
      return [
        {
          type: 'table',
          children: rowsOf(node).map((row) => ({
            type: 'tableRow',
            children: row.children
              .filter(isElement)
              .map((cell) => ({ type: 'tableCell', children: phrasing(cell.children) })),
          })),
        },
      ]
    case 'hr':
      return []
    default: {
      const children = phrasing(node.children)
      return children.length ? [{ type: 'paragraph', children }] : []
    }
  }
}
const rowsOf = (table: XmlElement): XmlElement[] =>
  table.children.filter(isElement).flatMap((child) => (child.name === 'tr' ? [child] : rowsOf(child)))

const written = (children: readonly Nodes[]): string =>
  toMarkdown({ type: 'root', children: [...children] as RootContent[] } satisfies Root, {
    bullet: '-',
    rule: '-',
    extensions: [gfmTableToMarkdown(), gfmTaskListItemToMarkdown(), mathToMarkdown()],
  }).trimEnd()

const quoted = (html: string): RootContent[] =>
  html ? [{ type: 'blockquote', children: blocks(parseHtml(html)) as never }] : []

/** An option, a line or a thing, with the comment on it. */
const entry = (html: string, comment: string, checked?: boolean) => ({
  type: 'listItem' as const,
  spread: false,
  ...(checked === undefined ? {} : { checked }),
  children: [...blocks(parseHtml(html)), ...quoted(comment)] as never,
})

const list = (ordered: boolean, children: ReturnType<typeof entry>[]): string =>
  written([{ type: 'list', ordered, spread: false, children }])

function nearness(
  near: Extract<Question, { kind: 'number' }>['body']['answers'][number]['near'],
  mark: string,
): string {
  if (near.by === 'relative') return ` ± ${nearestNumberText(exact(near.tolerance).mul(100)).replace('.', mark)} %`
  return near.by === 'absolute' && Number(near.tolerance) !== 0 ? ` ± ${near.tolerance.replace('.', mark)}` : ''
}

/** Answers that earn a part only are none that a list of right ones may name. */
const isFull = ({ credit }: { credit: number }) => credit === 1

/** The answer as it is read; null for a kind that has none here. */
function answerOf(question: Question): string | null {
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo':
      return list(
        false,
        question.body.options.map(({ html, comment, credit }) => entry(html, comment, credit === 1)),
      )
    case 'choices':
      return list(
        false,
        question.body.options.map(({ html, comment, right }) => entry(html, comment, right)),
      )
    case 'ordering':
      return `${list(
        true,
        question.body.items.map(({ html, comment }) => entry(html, comment)),
      )}\n\n= in this order`
    case 'matching': {
      const target = new Map(question.body.targets.map(({ id, html }) => [id, html]))
      const taken = new Set(question.body.items.map((item) => item.target))
      const cells = [
        ...question.body.items.map((item) => [item.html, item.target === null ? '' : (target.get(item.target) ?? '')]),
        ...question.body.targets.filter(({ id }) => !taken.has(id)).map(({ html }) => ['', html]),
      ]
      return `${written([
        {
          type: 'table',
          children: [['', ''], ...cells].map((row) => ({
            type: 'tableRow',
            children: row.map((html) => ({ type: 'tableCell', children: phrasing(parseHtml(html).flatMap(inside)) })),
          })),
        },
      ])}\n\n= in these pairs`
    }
    case 'number': {
      const mark = question.body.style === 'comma' ? ',' : '.'
      const unit = question.body.unit ? ` ${question.body.unit}` : ''
      return `= ${question.body.answers
        .filter(isFull)
        .map(({ value, near }) => `${value.replace('.', mark)}${nearness(near, mark)}${unit}`)
        .join(' | ')}`
    }
    case 'text':
      return `= ${question.body.answers
        .filter(isFull)
        .map(({ text }) => (isPlainText(text) ? text : `"${text}"`))
        .join(' | ')}`
    default:
      return null
  }
}
/** Whether a text is read as one: not as a number, as true or false, or as the letter of an option. */
function isPlainText(text: string): boolean {
  if (/^.?$|^[-−+]?\d/.test(text)) return false
  try {
    return typedAnswer(text, () => undefined).kind === 'text'
  } catch {
    return false
  }
}
const inside = (node: Html): Html[] => (isElement(node) && node.name === 'p' ? node.children : [node])

/** One question as Markdown; of a kind that has no answer here, its words alone in a comment that tells so. */
function questionText(question: Question): string | null {
  const answer = question.keyless ? null : answerOf(question)
  if (answer === null) return null
  const stem = written(blocks(parseHtml(question.stem)))
  const general = written(quoted(question.comments.general))
  return [stem, answer, general].filter(Boolean).join('\n\n')
}

/** Questions in order of their folders, each folder a heading. Kinds that Markdown has no words for are left out. */
export function writeMarkdown(questions: readonly OutgoingQuestion[]): string {
  const byFolder = new Map<string, OutgoingQuestion[]>()
  for (const each of questions) {
    const key = each.folder.join('\n')
    byFolder.set(key, [...(byFolder.get(key) ?? []), each])
  }
  return [...byFolder.values()]
    .map((inFolder) => {
      const { folder } = inFolder[0]!
      const headings = folder.map((name, i) => `${'#'.repeat(Math.min(6, i + 1))} ${name.replace(/\s+/g, ' ')}`)
      const texts = inFolder.flatMap(({ question }) => questionText(question) ?? [])
      return texts.length ? [...headings, texts.join('\n\n---\n\n')].join('\n\n') : ''
    })
    .filter(Boolean)
    .join('\n\n---\n\n')
    .concat('\n')
}

const carried = new Set<Feature>(['maths', 'comments', 'partComments'])

/** What Markdown has no words for, and whether what is written reads back as it was. */
export function unseenInMarkdown(question: Question): string[] {
  const text = questionText(question)
  if (text === null) return ['all of it: Markdown has no words for a question of its kind, and it is left out']
  const [back] = readMarkdown(text).items
  const told = [
    ...unseenIn(question, carried),
    ...(question.comments.right || question.comments.wrong ? ['comments for right and for wrong'] : []),
  ]
  if (!back?.question) return [...told, 'how it is answered: what is written cannot be read back']
  const isTold = told.some((words) => /^(how|that) /.test(words))
  return isTold || isReadBack(question, back.question)
    ? told
    : [...told, 'some of its words or marks: it does not read back as it is']
}
