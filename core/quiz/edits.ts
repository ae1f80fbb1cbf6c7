import { z } from 'zod'
import { id } from '../question/schema'
import { content, quiz as quizSchema, row, rules, section, type Quiz, type Row, type Section } from './schema'

/** Where a thing stands: after the one named, or first when null. */
const after = id.nullable()

const settings = content.omit({ sections: true })
export const settingNames = ['title', 'intro', 'shuffleOptions', 'pages', 'movement', 'wrongCost'] as const
export const ruleNames = [
  'windows',
  'announced',
  'limit',
  'grace',
  'atDeadline',
  'overrun',
  'atClosing',
  'late',
  'attempts',
  'grade',
  'password',
  'release',
] as const

/**
 * The operations by which a quiz changes. The page sends them, the server replays them on the newest revision, and
 * undo sends their inverse (architecture, Data). Ids of new things are made by whoever makes the edit.
 */
export const edit = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('setContent'),
    values: settings.partial().refine((values) => Object.keys(values).length > 0, 'Nothing is set.'),
  }),
  z.strictObject({
    do: z.literal('setRules'),
    values: rules.partial().refine((values) => Object.keys(values).length > 0, 'Nothing is set.'),
  }),
  z.strictObject({ do: z.literal('addSection'), section, after }),
  z.strictObject({
    do: z.literal('setSection'),
    section: id,
    values: section.pick({ title: true, intro: true, order: true }).partial(),
  }),
  z.strictObject({ do: z.literal('moveSection'), section: id, after }),
  z.strictObject({
    do: z.literal('removeSection'),
    section: id,
    /** The rows that are known to be in it: others, which a colleague has put there meanwhile, keep it. */
    holding: z.array(id).max(300).optional(),
  }),
  z.strictObject({ do: z.literal('addRows'), section: id, after, rows: z.array(row).min(1).max(300) }),
  z.strictObject({
    do: z.literal('setRow'),
    row: id,
    values: z.record(
      z.enum(['points', 'fixed', 'title', 'questions', 'draw', 'order', 'html', 'question']),
      z.unknown(),
    ),
  }),
  z.strictObject({ do: z.literal('moveRow'), row: id, section: id, after }),
  z.strictObject({ do: z.literal('removeRows'), rows: z.array(id).min(1).max(300) }),
  /** Several edits as one step, so that undoing takes all of them back. */
  z.strictObject({
    do: z.literal('all'),
    get edits() {
      return z.array(edit).min(1).max(100)
    },
  }),
])
export type Edit =
  | { do: 'setContent'; values: Partial<z.infer<typeof settings>> }
  | { do: 'setRules'; values: Partial<z.infer<typeof rules>> }
  | { do: 'addSection'; section: Section; after: string | null }
  | { do: 'setSection'; section: string; values: Partial<Pick<Section, 'title' | 'intro' | 'order'>> }
  | { do: 'moveSection'; section: string; after: string | null }
  | { do: 'removeSection'; section: string; holding?: string[] | undefined }
  | { do: 'addRows'; section: string; after: string | null; rows: Row[] }
  | { do: 'setRow'; row: string; values: Record<string, unknown> }
  | { do: 'moveRow'; row: string; section: string; after: string | null }
  | { do: 'removeRows'; rows: string[] }
  | { do: 'all'; edits: Edit[] }

/** An edit that cannot be made on this quiz; the sentence is for people. */
export class EditError extends Error {
  override name = 'EditError'
}

interface Place {
  section: Section
  index: number
  row: Row
}

function findRow(quiz: Quiz, rowId: string): Place {
  for (const section of quiz.content.sections) {
    const index = section.rows.findIndex((row) => row.id === rowId)
    if (index >= 0) return { section, index, row: section.rows[index]! }
  }
  throw new EditError('That row is no longer in the quiz.')
}

function findSection(quiz: Quiz, sectionId: string): { section: Section; index: number } {
  const index = quiz.content.sections.findIndex((section) => section.id === sectionId)
  if (index < 0) throw new EditError('That section is no longer in the quiz.')
  return { section: quiz.content.sections[index]!, index }
}

/** Puts members after the one named; at the end when that one is gone (a colleague may have removed it). */
function insertAfter<T extends { id: string }>(list: readonly T[], members: readonly T[], anchor: string | null): T[] {
  if (anchor === null) return [...members, ...list]
  const at = list.findIndex((member) => member.id === anchor)
  return at < 0 ? [...list, ...members] : [...list.slice(0, at + 1), ...members, ...list.slice(at + 1)]
}

const withSections = (quiz: Quiz, sections: Section[]): Quiz => ({ ...quiz, content: { ...quiz.content, sections } })
const withRows = (quiz: Quiz, sectionId: string, rows: Row[]): Quiz =>
  withSections(
    quiz,
    quiz.content.sections.map((section) => (section.id === sectionId ? { ...section, rows } : section)),
  )

/** What stood under these names before. */
function before<T extends object>(source: T, values: object): Partial<T> {
  return Object.fromEntries(Object.keys(values).map((name) => [name, source[name as keyof T]])) as Partial<T>
}

function addRows(quiz: Quiz, edit: Extract<Edit, { do: 'addRows' }>): Applied {
  const { section } = findSection(quiz, edit.section)
  const present = new Set(quiz.content.sections.flatMap((each) => each.rows.map((row) => row.id)))
  if (edit.rows.some((row) => present.has(row.id))) throw new EditError('A row with this id is in the quiz already.')
  return {
    quiz: withRows(quiz, section.id, insertAfter(section.rows, edit.rows, edit.after)),
    inverse: { do: 'removeRows', rows: edit.rows.map((row) => row.id) },
  }
}

function removeRows(quiz: Quiz, edit: Extract<Edit, { do: 'removeRows' }>): Applied {
  let result = quiz
  const undo: Edit[] = []
  for (const rowId of edit.rows) {
    const { section, index, row } = findRow(result, rowId)
    undo.unshift({ do: 'addRows', section: section.id, after: section.rows[index - 1]?.id ?? null, rows: [row] })
    result = withRows(
      result,
      section.id,
      section.rows.filter((each) => each.id !== rowId),
    )
  }
  return { quiz: result, inverse: undo.length === 1 ? undo[0]! : { do: 'all', edits: undo } }
}

function moveRow(quiz: Quiz, edit: Extract<Edit, { do: 'moveRow' }>): Applied {
  const { section, index, row } = findRow(quiz, edit.row)
  const target = findSection(quiz, edit.section).section
  const taken = withRows(
    quiz,
    section.id,
    section.rows.filter((each) => each.id !== edit.row),
  )
  const rows = findSection(taken, target.id).section.rows
  return {
    quiz: withRows(taken, target.id, insertAfter(rows, [row], edit.after)),
    inverse: { do: 'moveRow', row: row.id, section: section.id, after: section.rows[index - 1]?.id ?? null },
  }
}

function setRow(quiz: Quiz, edit: Extract<Edit, { do: 'setRow' }>): Applied {
  const place = findRow(quiz, edit.row)
  const changed = row.safeParse({ ...place.row, ...edit.values })
  if (!changed.success) throw new EditError(changed.error.issues[0]?.message ?? 'This row cannot be changed so.')
  return {
    quiz: withRows(
      quiz,
      place.section.id,
      place.section.rows.map((each) => (each.id === edit.row ? changed.data : each)),
    ),
    inverse: { do: 'setRow', row: edit.row, values: before(place.row, edit.values) },
  }
}

export interface Applied {
  quiz: Quiz
  inverse: Edit
}

function apply(quiz: Quiz, edit: Edit): Applied {
  switch (edit.do) {
    case 'setContent':
      return {
        quiz: { ...quiz, content: { ...quiz.content, ...edit.values } },
        inverse: { do: 'setContent', values: before(quiz.content, edit.values) },
      }
    case 'setRules':
      return {
        quiz: { ...quiz, rules: { ...quiz.rules, ...edit.values } },
        inverse: { do: 'setRules', values: before(quiz.rules, edit.values) },
      }
    case 'addSection':
      if (quiz.content.sections.some((section) => section.id === edit.section.id))
        throw new EditError('A section with this id is in the quiz already.')
      return {
        quiz: withSections(quiz, insertAfter(quiz.content.sections, [edit.section], edit.after)),
        inverse: { do: 'removeSection', section: edit.section.id, holding: edit.section.rows.map((row) => row.id) },
      }
    case 'setSection': {
      const { section } = findSection(quiz, edit.section)
      return {
        quiz: withSections(
          quiz,
          quiz.content.sections.map((each) => (each === section ? { ...section, ...edit.values } : each)),
        ),
        inverse: { do: 'setSection', section: edit.section, values: before(section, edit.values) },
      }
    }
    case 'moveSection': {
      const { section, index } = findSection(quiz, edit.section)
      const rest = quiz.content.sections.filter((each) => each !== section)
      return {
        quiz: withSections(quiz, insertAfter(rest, [section], edit.after)),
        inverse: { do: 'moveSection', section: edit.section, after: quiz.content.sections[index - 1]?.id ?? null },
      }
    }
    case 'removeSection': {
      const { section, index } = findSection(quiz, edit.section)
      if (quiz.content.sections.length === 1) throw new EditError('A quiz keeps at least one section.')
      if (edit.holding && section.rows.some((row) => !edit.holding!.includes(row.id)))
        throw new EditError(
          'A colleague has put rows into this section. Look at them; then take it out if you still want to.',
        )
      return {
        quiz: withSections(
          quiz,
          quiz.content.sections.filter((each) => each !== section),
        ),
        inverse: { do: 'addSection', section, after: quiz.content.sections[index - 1]?.id ?? null },
      }
    }
    case 'addRows':
      return addRows(quiz, edit)
    case 'setRow':
      return setRow(quiz, edit)
    case 'moveRow':
      return moveRow(quiz, edit)
    case 'removeRows':
      return removeRows(quiz, edit)
    case 'all': {
      const undo: Edit[] = []
      let result = quiz
      for (const each of edit.edits) {
        const step = apply(result, each)
        result = step.quiz
        undo.unshift(step.inverse)
      }
      return { quiz: result, inverse: { do: 'all', edits: undo } }
    }
  }
}

/**
 * Applies an edit and tells what undoes it. Neither argument is changed.
 * @throws EditError with a sentence when the edit does not fit the quiz as it stands
 */
export function applyEdit(quiz: Quiz, edit: Edit): Applied {
  const applied = apply(quiz, edit)
  const valid = quizSchema.safeParse(applied.quiz)
  if (!valid.success) throw new EditError(valid.error.issues[0]?.message ?? 'The quiz would not be valid after this.')
  return applied
}

/** Names of the things an edit writes to. Two edits conflict when they write to the same thing (architecture, Data). */
export function touches(edit: Edit): string[] {
  switch (edit.do) {
    case 'setContent':
      return Object.keys(edit.values).map((name) => `content:${name}`)
    case 'setRules':
      return Object.keys(edit.values).map((name) => `rules:${name}`)
    case 'addSection':
      return [`section:${edit.section.id}`]
    case 'setSection':
      return Object.keys(edit.values).map((name) => `section:${edit.section}:${name}`)
    case 'moveSection':
      return [`section:${edit.section}:place`]
    case 'removeSection':
      return [`section:${edit.section}`]
    case 'addRows':
      return edit.rows.map((each) => `row:${each.id}`)
    case 'setRow':
      return Object.keys(edit.values).map((name) => `row:${edit.row}:${name}`)
    case 'moveRow':
      return [`row:${edit.row}:place`]
    case 'removeRows':
      return edit.rows.map((each) => `row:${each}`)
    case 'all':
      return edit.edits.flatMap(touches)
  }
}

/** True when one of the edits writes to something (or to a part of something) that the other writes to. */
export function conflict(a: Edit, b: Edit): boolean {
  const overlap = (x: string, y: string) => x === y || x.startsWith(`${y}:`) || y.startsWith(`${x}:`)
  const others = touches(b)
  return touches(a).some((mine) => others.some((theirs) => overlap(mine, theirs)))
}

export function changesRules(edit: Edit): boolean {
  return edit.do === 'setRules' || (edit.do === 'all' && edit.edits.some(changesRules))
}
