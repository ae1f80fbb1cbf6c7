import { quiz as quizSchema, type Quiz } from '../schema'
import { EditError, type Edit } from './edit'
import { onto } from './onto'
import { same } from './paths'
import { step, type Applied } from './step'

/**
 * Applies an edit and tells what undoes it. Neither argument is changed; what the edit leaves alone is shared.
 * @throws EditConflict when something is not as the edit expects; EditError when the quiz would not be valid after it
 */
export function applyEdit(quiz: Quiz, edit: Edit): Applied {
  const applied = step(quiz, edit)
  const read = quizSchema.safeParse(applied.quiz)
  if (!read.success) throw new EditError(read.error.issues[0]?.message ?? 'The quiz would not be valid after this.')
  if (same(read.data, applied.quiz)) return applied
  // The schema keeps some values otherwise than they were typed (trimmed, instants with milliseconds).
  return { quiz: read.data, inverse: onto(read.data, applied.inverse) ?? applied.inverse }
}
