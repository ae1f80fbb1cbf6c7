import { idOf, type Edit, type Member, type Path } from './edit'
import { inShort } from './paths'

/** A member of a list by its short path; a section comes and goes with its rows. */
const withRows =
  (list: Path) =>
  (each: Member): Path[] => [
    inShort([...list, idOf(each)]),
    ...(typeof each === 'object' && Array.isArray(each.rows)
      ? (each.rows as Member[]).map((row) => ['rows', idOf(row)])
      : []),
  ]

/** The things an edit writes to, by their short paths. */
export function touches(edit: Edit): Path[] {
  switch (edit.do) {
    case 'set':
      return [inShort(edit.path)]
    case 'add':
      return edit.members.flatMap(withRows(edit.to))
    case 'remove':
      return edit.was.flatMap(withRows(edit.from))
    case 'move':
      return [inShort([...edit.from, edit.id])]
    case 'all':
      return edit.edits.flatMap(touches)
  }
}

const begins = (path: Path, other: Path) => other.every((name, index) => path[index] === name)

/** Whether an edit wrote to one of the things named, or to a part of one: for finding out who changed it. */
export function changed(edit: Edit, paths: readonly Path[]): boolean {
  const wrote = touches(edit)
  return paths.some((path) => wrote.some((each) => begins(path, each) || begins(each, path)))
}

const isRule = (path: Path) => path[0] === 'rules'

/** Whether an edit changes the rules, which are versioned and reach everybody at once. */
export function changesRules(edit: Edit): boolean {
  return touches(edit).some(isRule)
}

/** Ids of the questions that an edit puts in or takes out. */
export function questionsNamed(edit: Edit): string[] {
  const inMember = (list: Path, each: Member): string[] => {
    if (typeof each === 'string') return list.at(-1) === 'questions' ? [each] : []
    return [
      ...(typeof each.question === 'string' ? [each.question] : []),
      ...(Array.isArray(each.questions) ? (each.questions as string[]) : []),
      ...(Array.isArray(each.rows) ? (each.rows as Member[]).flatMap((row) => inMember(['rows'], row)) : []),
    ]
  }
  switch (edit.do) {
    case 'set':
      return edit.path.at(-1) === 'question' ? [edit.was, edit.value].filter((id) => typeof id === 'string') : []
    case 'add':
      return edit.members.flatMap((each) => inMember(edit.to, each))
    case 'remove':
      return edit.was.flatMap((each) => inMember(edit.from, each))
    case 'move':
      return []
    case 'all':
      return edit.edits.flatMap(questionsNamed)
  }
}
