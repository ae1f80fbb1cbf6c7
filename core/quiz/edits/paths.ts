import type { Quiz } from '../schema'
import { EditConflict, EditError, idOf, type Member, type Path } from './edit'

type Node = Record<string, unknown>
const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null && !Array.isArray(value)

/** Whether two kept values are the same, whatever the order of their names. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((each, index) => same(each, b[index]))
  if (!isNode(a) || !isNode(b)) return false
  const names = Object.keys(a)
  return (
    names.length === Object.keys(b).length && names.every((name) => Object.hasOwn(b, name) && same(a[name], b[name]))
  )
}

const whatIsGone = (path: Path): string => {
  const list = path.at(-2)
  const words: Record<string, string> = {
    rows: 'That row is no longer in the quiz.',
    sections: 'That section is no longer in the quiz.',
    windows: 'That window is no longer in the quiz.',
    questions: 'That question is no longer there.',
  }
  return words[list ?? ''] ?? 'What this would change is no longer in the quiz.'
}

/** A short path in full: rows and sections where they stand now. @throws EditConflict when the thing is gone */
function inFull(quiz: Quiz, path: Path): Path {
  const [root, id, ...rest] = path
  if (root === 'sections') return id === undefined ? ['content', 'sections'] : ['content', 'sections', id, ...rest]
  if (root !== 'rows' || id === undefined) return path
  const home = quiz.content.sections.find((section) => section.rows.some((row) => row.id === id))
  if (!home) throw new EditConflict(whatIsGone(['rows', id]), [['rows', id]], true)
  return ['content', 'sections', home.id, 'rows', id, ...rest]
}

/** The short form of a path, by which things are compared. */
export function inShort(path: Path): Path {
  const from = path[0] === 'content' && path[1] === 'sections' ? path.slice(1) : path
  return from[0] === 'sections' && from[2] === 'rows' && from.length > 3 ? from.slice(2) : from
}

function stepInto(node: unknown, name: string, path: Path): unknown {
  if (Array.isArray(node)) {
    const found = (node as Member[]).find((each) => idOf(each) === name)
    if (found === undefined) throw new EditConflict(whatIsGone(path), [inShort(path)], true)
    return found
  }
  if (!isNode(node) || !Object.hasOwn(node, name)) throw new EditError('There is nothing of that name to change.')
  return node[name]
}

/** What stands at a path. @throws EditError when there is nothing of that name, EditConflict when a member is gone */
export function valueAt(quiz: Quiz, path: Path): unknown {
  const full = inFull(quiz, path)
  return full.reduce<unknown>((node, name, index) => stepInto(node, name, full.slice(0, index + 1)), quiz)
}

function replaced(node: unknown, path: Path, value: unknown): unknown {
  const [name, ...rest] = path
  if (name === undefined) return value
  if (Array.isArray(node))
    return (node as Member[]).map((each) => (idOf(each) === name ? replaced(each, rest, value) : each))
  return { ...(node as Node), [name]: replaced((node as Node)[name], rest, value) }
}

/** The quiz with another value at a path that is there. What lies beside the path is shared with the quiz given. */
export function withValue(quiz: Quiz, path: Path, value: unknown): Quiz {
  return replaced(quiz, inFull(quiz, path), value) as Quiz
}

/** The members of the list at a path. @throws EditError when it is no list */
export function listAt(quiz: Quiz, path: Path): readonly Member[] {
  const list = valueAt(quiz, path)
  if (!Array.isArray(list)) throw new EditError('There is no list of that name.')
  return list as Member[]
}
