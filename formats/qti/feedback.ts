import { plainText, type Question } from '../../core/question'
import { contains, type Point } from '../../core/kit/shapes'
import { within, childOf, childrenOf, isElement, type XmlElement } from '../xml'
import { blocksOf, type ReadingContent } from './content/read'
import { NotProven } from './processing'
import { tryOut, type Tried } from './proof/try'
import type { ReadPart, Written } from './read'

/** A piece of feedback, and when its item shows it. */
interface Feedback {
  outcome: string
  name: string
  html: string
  hides: boolean
  /** The option that it stands in. */
  option: string | null
}

function feedbackIn(item: XmlElement, reading: ReadingContent): Feedback[] {
  const body = childOf(item, 'itemBody')
  const options = body ? ['simpleChoice', 'hottext'].flatMap((name) => within(body, name)) : []
  const optionOf = (node: XmlElement) =>
    options.find((each) => within(each, node.name).includes(node))?.attributes.identifier ?? null
  const nodes = [
    ...childrenOf(item, 'modalFeedback'),
    ...(body ? [...within(body, 'feedbackInline'), ...within(body, 'feedbackBlock')] : []),
  ]
  return nodes
    .map((node) => ({
      option: optionOf(node),
      outcome: node.attributes.outcomeIdentifier ?? '',
      name: node.attributes.identifier ?? '',
      hides: node.attributes.showHide === 'hide',
      html: blocksOf(
        node.children.flatMap((child) => (isElement(child) && child.name === 'contentBody' ? child.children : [child])),
        reading,
      ),
    }))
    .filter(({ html }) => html !== '')
}

type Place =
  { at: 'right' | 'wrong' | 'general' } | { at: 'options' | 'answers' | 'regions' | 'items' | 'rows'; ids: string[] }

const isFull = ({ fraction }: Tried) => fraction.equals(1)

/** Where a piece of feedback belongs, by the answers for which it is shown; null where no place here says the same. */
function placeOf(feedback: Feedback, rows: readonly Tried[], question: Question): Place | null {
  const shown = rows.map(
    ({ processed }) => processed.named(feedback.outcome).includes(feedback.name) !== feedback.hides,
  )
  const always = (decide: (row: Tried) => boolean) => rows.every((row, i) => decide(row) === shown[i])
  if (!rows.length) return null
  if (always(() => true)) return { at: 'general' }
  if (always(isFull)) return { at: 'right' }
  if (always((row) => !isFull(row))) return { at: 'wrong' }
  if ('options' in question.body) {
    const chosen = ({ answer }: Tried) => (answer as { chosen: string[] }).chosen
    const ids = question.body.options.map(({ id }) => id)
    const one = ids.find((id) => always((row) => chosen(row).includes(id)))
    if (one) return { at: 'options', ids: [one] }
    const showing = ids.filter((id) =>
      rows.some((row, i) => shown[i] && chosen(row).length === 1 && chosen(row)[0] === id),
    )
    if (showing.length && always((row) => chosen(row).some((id) => showing.includes(id))))
      return { at: 'options', ids: showing }
  }
  const marks = marksIn(question)
  const marked = marks?.entries.find((each) => always(({ answer }) => each.shows(answer as never)))
  if (marks && marked) return { at: marks.at, ids: [marked.id] }
  if (question.kind === 'text' || question.kind === 'number') {
    const parts = [...new Set(rows.filter((_, i) => shown[i]).map(({ part }) => part))].flatMap((part) => part ?? [])
    if (!parts.includes('none') && always(({ part }) => parts.includes(part ?? 'none')))
      return { at: 'answers', ids: parts }
  }
  return null
}

const named = new Map([
  ['right', 'right'],
  ['correct', 'right'],
  ['wrong', 'wrong'],
  ['incorrect', 'wrong'],
] as const)

/** Parts of a question that have comments of their own, with the answers for which each is shown. */
function marksIn({ kind, body }: Question): {
  at: 'regions' | 'items' | 'rows'
  entries: { id: string; shows: (answer: never) => boolean }[]
} | null {
  if (kind === 'spot')
    return {
      at: 'regions',
      entries: body.regions.map(({ id, shape }) => ({
        id,
        shows: ({ chosen, points }: { chosen?: string[]; points?: Point[] }) =>
          (chosen ?? []).includes(id) || (points ?? []).some((at) => contains(shape, at)),
      })),
    }
  if (kind === 'matching' || kind === 'sorting')
    return {
      at: 'items',
      entries: body.items.map(({ id, target }) => ({
        id,
        shows: ({ pairs }: { pairs: Record<string, string> }) => (pairs[id] ?? null) !== target,
      })),
    }
  if (kind === 'grid')
    return {
      at: 'rows',
      entries: body.rows.map(({ id, right }) => ({
        id,
        shows: ({ ticks }: { ticks: Record<string, string[]> }) =>
          [...(ticks[id] ?? [])].sort().join() !== [...right].sort().join(),
      })),
    }
  return null
}

/** By the option that it stands in; by its name alone, where its processing cannot be run. */
function byPosition({ name, option }: Feedback, { question, responses }: ReadPart, unknown: boolean): Place | null {
  const at = named.get(name.toLowerCase() as 'right')
  if (option !== null && 'options' in question.body) {
    const id = question.body.options.find((each) =>
      Object.values(responses({ chosen: [each.id] })).some((values) => values.includes(option)),
    )?.id
    if (id) return { at: 'options', ids: [id] }
  }
  return unknown && at ? { at } : null
}

function put(question: Question, place: Place, html: string): Question {
  if (!('ids' in place))
    return { ...question, comments: { ...question.comments, [place.at]: question.comments[place.at] + html } }
  const body = question.body as unknown as Record<string, { id?: string; comment: string }[]>
  return {
    ...question,
    body: {
      ...body,
      [place.at]: body[place.at]!.map((each, i) =>
        place.ids.includes(each.id ?? String(i)) ? { ...each, comment: each.comment + html } : each,
      ),
    },
  } as unknown as Question
}

/**
 * Feedback as comments, by when it is shown: the item's own processing is run over answers, and what it shows for those that
 * are right, those that are wrong, for one option or for one accepted answer is the comment there.
 * @param written the item as it stands in the file
 * @param item the same with its template's computations in place
 */
export function withComments(
  { written, older }: Written,
  item: XmlElement,
  parts: readonly ReadPart[],
  reading: ReadingContent,
): ReadPart[] {
  const all = feedbackIn(item, reading)
  if (!all.length) return [...parts]
  const [first, ...others] = parts as [ReadPart, ...ReadPart[]]
  const tried = others.length ? [] : attempted(() => tryOut({ item: written, older, ...first }))
  const rows = tried?.filter(({ isEmpty, instance }) => !isEmpty && instance === tried[0]!.instance) ?? null
  let { question } = first
  for (const feedback of all) {
    const place =
      (rows?.length ? placeOf(feedback, rows, question) : null) ?? byPosition(feedback, first, rows === null)
    if (!place && feedback.name.toLowerCase() !== 'general')
      reading.notes.add(
        `Feedback of it is shown for some answers only; here it is a comment in any case: “${plainText(feedback.html).slice(0, 60)}”.`,
      )
    question = put(question, place ?? { at: 'general' }, feedback.html)
  }
  return [{ ...first, question, ...(tried?.length ? { tried: tried } : {}) }, ...others]
}

function attempted<T>(run: () => T): T | null {
  try {
    return run()
  } catch (error) {
    if (error instanceof NotProven) return null
    throw error
  }
}
