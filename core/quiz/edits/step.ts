import type { Quiz } from '../schema'
import { EditConflict, EditError, idOf, type Edit, type Member, type Path } from './edit'
import { inShort, listAt, same, valueAt, withValue } from './paths'
import { isOneValue } from './make'
import { beside, nearby, samePlace } from './place'

export interface Applied {
  quiz: Quiz
  inverse: Edit
}

type Of<D extends Edit['do']> = Extract<Edit, { do: D }>

const elsewise = 'This has been changed in the meantime.'
/** What tells one thing from another is never set: a thing is taken out, and another put in. */
const fixedNames = ['id', 'type']

/** Puts members after the one named; at the end when that one is gone (a colleague may have taken it out). */
function insertAfter(list: readonly Member[], members: readonly Member[], after: string | null): Member[] {
  if (after === null) return [...members, ...list]
  const at = list.findIndex((each) => idOf(each) === after)
  return at < 0 ? [...list, ...members] : [...list.slice(0, at + 1), ...members, ...list.slice(at + 1)]
}

/** What has parts that are changed one by one. One value in several parts (a condition) is changed as a whole. */
const isHeld = (value: unknown): boolean =>
  Array.isArray(value) ||
  (typeof value === 'object' &&
    value !== null &&
    ('id' in value || (!isOneValue(value) && Object.values(value).some(Array.isArray))))

function set(quiz: Quiz, edit: Of<'set'>): Applied {
  const found = valueAt(quiz, edit.path)
  if (isHeld(found) || edit.path.length < 2 || fixedNames.includes(edit.path.at(-1)!))
    throw new EditError('This is changed by its parts, not as a whole.')
  if (!same(found, edit.was)) throw new EditConflict(elsewise, [inShort(edit.path)])
  return {
    quiz: withValue(quiz, edit.path, edit.value),
    inverse: { do: 'set', path: edit.path, was: edit.value, value: found },
  }
}

/** Ids that a quiz holds already under the same kind of thing as a list's members. */
function idsBeside(quiz: Quiz, list: Path): Set<string> {
  const rows = list.at(-1) === 'rows' || list.at(-1) === 'sections'
  return new Set(
    rows
      ? quiz.content.sections.flatMap((section) => [section.id, ...section.rows.map((row) => row.id)])
      : listAt(quiz, list).map(idOf),
  )
}

/** Every id that members bring with them: a section brings those of its rows. */
const idsOf = (members: readonly Member[]): string[] =>
  members.flatMap((each) => [
    idOf(each),
    ...(typeof each === 'object' && Array.isArray(each.rows) ? (each.rows as Member[]).map(idOf) : []),
  ])

function add(quiz: Quiz, edit: Of<'add'>): Applied {
  const list = listAt(quiz, edit.to)
  const there = idsBeside(quiz, edit.to)
  // A question or a class that a colleague has put in as well is in: only things of one's own must be new.
  const members = edit.members.filter((each) => !(typeof each === 'string' && there.has(each)))
  const ids = idsOf(members)
  if (!members.length) throw new EditError('This is in the quiz already.')
  if (ids.some((id) => there.has(id)) || new Set(ids).size < ids.length)
    throw new EditError('Something with this id is in the quiz already.')
  return {
    quiz: withValue(quiz, edit.to, insertAfter(list, members, edit.after)),
    inverse: { do: 'remove', from: edit.to, was: members },
  }
}

/** What of a member that is to be taken out is not as it was known. */
function changedIn(list: Path, was: Member, now: Member): Path[] {
  const whole = inShort([...list, idOf(was)])
  const rowsOf = (each: Member) => (typeof each === 'object' && Array.isArray(each.rows) ? (each.rows as Member[]) : [])
  return [whole, ...[...rowsOf(was), ...rowsOf(now)].map((row) => ['rows', idOf(row)])]
}

function remove(quiz: Quiz, edit: Of<'remove'>): Applied {
  const list = listAt(quiz, edit.from)
  const changed: Path[] = []
  for (const known of edit.was) {
    const now = list.find((each) => idOf(each) === idOf(known))
    // Something of this id elsewhere has been moved; nowhere, it is gone: either way it is not what was known here.
    if (now === undefined) {
      const path = inShort([...edit.from, idOf(known)])
      valueAt(quiz, path)
      throw new EditConflict('This has been moved in the meantime.', [path])
    }
    if (!same(known, now)) changed.push(...changedIn(edit.from, known, now))
  }
  if (changed.length) throw new EditConflict(elsewise, changed)
  const out = new Set(edit.was.map(idOf))
  const undo = list.flatMap((each, index): Edit[] =>
    out.has(idOf(each))
      ? [{ do: 'add', to: edit.from, after: index ? idOf(list[index - 1]!) : null, members: [each] }]
      : [],
  )
  return {
    quiz: withValue(
      quiz,
      edit.from,
      list.filter((each) => !out.has(idOf(each))),
    ),
    inverse: undo.length === 1 ? undo[0]! : { do: 'all', edits: undo },
  }
}

function move(quiz: Quiz, edit: Of<'move'>): Applied {
  const place = inShort([...edit.from, edit.id])
  const list = listAt(quiz, edit.from)
  const thing = list.find((each) => idOf(each) === edit.id)
  if (edit.from.at(-1) !== edit.to.at(-1)) throw new EditError('This cannot stand there.')
  if (thing === undefined) {
    valueAt(quiz, place)
    throw new EditConflict('This has been moved in the meantime.', [place])
  }
  const order = list.map(idOf)
  if (!samePlace(order, edit.was, edit.id))
    // Two that have changed places cannot be told apart: either was moved.
    throw new EditConflict(
      'This has been moved in the meantime.',
      [place, ...beside(order, edit.id), ...beside(edit.was, edit.id)].map((each) =>
        typeof each === 'string' ? inShort([...edit.from, each]) : each,
      ),
    )
  const index = list.indexOf(thing)
  const taken = withValue(
    quiz,
    edit.from,
    list.filter((each) => each !== thing),
  )
  const rest = listAt(taken, edit.to)
  if (rest.some((each) => idOf(each) === edit.id)) throw new EditError('This is there already.')
  const before = index ? idOf(list[index - 1]!) : null
  const target = insertAfter(rest, [thing], edit.after === edit.id ? before : edit.after)
  return {
    quiz: withValue(taken, edit.to, target),
    inverse: {
      do: 'move',
      id: edit.id,
      from: edit.to,
      to: edit.from,
      after: before,
      was: nearby(target.map(idOf), edit.id),
    },
  }
}

/** Makes an edit without asking whether the quiz is valid after it. @throws EditError, EditConflict */
export function step(quiz: Quiz, edit: Edit): Applied {
  switch (edit.do) {
    case 'set':
      return set(quiz, edit)
    case 'add':
      return add(quiz, edit)
    case 'remove':
      return remove(quiz, edit)
    case 'move':
      return move(quiz, edit)
    case 'all': {
      const undo: Edit[] = []
      let result = quiz
      for (const each of edit.edits) {
        const made = step(result, each)
        result = made.quiz
        undo.unshift(made.inverse)
      }
      return { quiz: result, inverse: undo.length === 1 ? undo[0]! : { do: 'all', edits: undo } }
    }
  }
}
