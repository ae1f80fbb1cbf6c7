import type { Quiz, RowInput, SectionInput } from '../schema'
import { idOf, type Edit, type Member, type Path } from './edit'
import { inShort, listAt, same, valueAt } from './paths'
import { nearby } from './place'

/** Makers of edits: each reads from the quiz at hand what its edit expects to find. */

export function setAt(quiz: Quiz, path: Path, value: unknown): Edit {
  return { do: 'set', path, was: valueAt(quiz, path), value }
}

export function addTo(list: Path, after: string | null, members: readonly object[] | readonly string[]): Edit {
  return { do: 'add', to: list, after, members: members as readonly Member[] }
}

/** Takes members out of a list. @throws EditConflict when one is gone already */
export function removeFrom(quiz: Quiz, list: Path, ids: readonly string[]): Edit {
  return { do: 'remove', from: list, was: ids.map((id) => valueAt(quiz, [...list, id]) as Member) }
}

/** Makes of a list of ids another: what is missing comes behind what stays. Null where nothing changes. */
export function listTo(quiz: Quiz, list: Path, wanted: readonly string[]): Edit | null {
  const there = listAt(quiz, list).map(idOf)
  const gone = there.filter((id) => !wanted.includes(id))
  const stay = there.filter((id) => wanted.includes(id))
  const fresh = wanted.filter((id) => !there.includes(id))
  return together([
    ...(gone.length ? [removeFrom(quiz, list, gone)] : []),
    ...(fresh.length ? [addTo(list, stay.at(-1) ?? null, fresh)] : []),
  ])
}

/** The list in which a row stands. */
const homeOf = (quiz: Quiz, row: string): Path => [
  'sections',
  quiz.content.sections.find((section) => section.rows.some((each) => each.id === row))?.id ?? '',
  'rows',
]

export function removeRow(quiz: Quiz, row: string): Edit {
  return removeFrom(quiz, homeOf(quiz, row), [row])
}

export function moveRow(quiz: Quiz, row: string, section: string, after: string | null): Edit {
  const from = homeOf(quiz, row)
  const was = nearby(listAt(quiz, from).map(idOf), row)
  return { do: 'move', id: row, from, to: ['sections', section, 'rows'], after, was }
}

export function moveSection(quiz: Quiz, section: string, after: string | null): Edit {
  const was = nearby(listAt(quiz, ['sections']).map(idOf), section)
  return { do: 'move', id: section, from: ['sections'], to: ['sections'], after, was }
}

export const addRows = (section: string, after: string | null, rows: readonly RowInput[]): Edit =>
  addTo(['sections', section, 'rows'], after, rows)

export const addSection = (section: SectionInput, after: string | null): Edit => addTo(['sections'], after, [section])

/** Several edits as one step; null for none. */
export function together(edits: readonly Edit[]): Edit | null {
  return edits.length < 2 ? (edits[0] ?? null) : { do: 'all', edits }
}

type Node = Record<string, unknown>
const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null && !Array.isArray(value)
/** One value in several parts ("60 percent", "when marked, 30 minutes after"): set as a whole, so that no two halves meet. */
export const isOneValue = (value: object) => 'by' in value || 'at' in value

const typeOf = (each: Member) => (typeof each === 'string' ? '' : each.type)

/** Places of an order: where a member comes to stand after the one before it. */
const insert = (order: string[], id: string, after: string | null): string[] => {
  const at = after === null ? 0 : order.indexOf(after) + 1
  return [...order.slice(0, at), id, ...order.slice(at)]
}

function listDifference(before: readonly Member[], after: readonly Member[], list: Path): Edit[] {
  const wanted = new Map(after.map((each) => [idOf(each), each]))
  const stays = (each: Member) => wanted.has(idOf(each)) && typeOf(wanted.get(idOf(each))!) === typeOf(each)
  const there = new Map(before.filter(stays).map((each) => [idOf(each), each]))
  const gone = before.filter((each) => !stays(each))
  const edits: Edit[] = gone.length ? [{ do: 'remove', from: list, was: gone }] : []
  let order = [...there.keys()]
  after.forEach((each, index) => {
    const id = idOf(each)
    const previous = index ? idOf(after[index - 1]!) : null
    const known = there.get(id)
    if (known === undefined) edits.push({ do: 'add', to: list, after: previous, members: [each] })
    else if (order[index] !== id)
      edits.push({ do: 'move', id, from: list, to: list, after: previous, was: nearby(order, id) })
    if (order[index] !== id)
      order = insert(
        order.filter((other) => other !== id),
        id,
        previous,
      )
    if (isNode(known)) edits.push(...differences(known, each, list.at(-1) === 'rows' ? ['rows', id] : [...list, id]))
  })
  return edits
}

function differences(before: unknown, after: unknown, path: Path): Edit[] {
  if (same(before, after)) return []
  if (Array.isArray(before) && Array.isArray(after))
    return listDifference(before as Member[], after as Member[], inShort(path))
  const alike =
    isNode(before) &&
    isNode(after) &&
    !isOneValue(before) &&
    same(Object.keys(before).sort(), Object.keys(after).sort())
  return alike
    ? Object.keys(before).flatMap((name) => differences(before[name], after[name], [...path, name]))
    : [{ do: 'set', path, was: before, value: after }]
}

/**
 * The edit that makes of one quiz another, by as few and small steps as will do; null when they are the same. Rows that
 * stand in another section come as taken out and put in.
 */
export function editTo(before: Quiz, after: Quiz): Edit | null {
  const edits = differences(before, after, [])
  // What goes is taken out first, so that it can come in elsewhere under the same id.
  return together([...edits.filter((each) => each.do === 'remove'), ...edits.filter((each) => each.do !== 'remove')])
}
