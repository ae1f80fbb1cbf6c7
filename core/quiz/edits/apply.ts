import { quiz as quizSchema, type Quiz } from '../schema'
import { countEdits, EditError, mostEdits, type Edit } from './edit'
import { onto } from './onto'
import { same } from './paths'
import { step, type Applied } from './step'

/** Things of a quiz are told apart by their ids. @throws EditError */
function ensureDistinct({ content, rules }: Quiz): void {
  const ids = content.sections.flatMap((section) => [section.id, ...section.rows.map((row) => row.id)])
  const windows = rules.windows.map((window) => window.id)
  if (new Set(ids).size < ids.length || new Set(windows).size < windows.length)
    throw new EditError('Two things of this quiz would have one id.')
}

/**
 * Applies an edit and tells what undoes it. Neither argument is changed; what the edit leaves alone is shared.
 * @throws EditConflict when something is not as the edit expects; EditError when the quiz would not be valid after it
 */
export function applyEdit(quiz: Quiz, edit: Edit): Applied {
  if (countEdits(edit) > mostEdits)
    throw new EditError(`One step makes at most ${mostEdits} changes. Make it in parts.`)
  const applied = step(quiz, edit)
  ensureDistinct(applied.quiz)
  const read = quizSchema.safeParse(applied.quiz)
  if (!read.success) throw new EditError(read.error.issues[0]?.message ?? 'The quiz would not be valid after this.')
  if (same(read.data, applied.quiz)) return applied
  // The schema keeps some values otherwise than they were typed (trimmed, instants with milliseconds).
  return { quiz: read.data, inverse: onto(read.data, applied.inverse) ?? applied.inverse }
}
