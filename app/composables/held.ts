import type { Row } from '~~/core/quiz'
import { questionsOf } from '~~/core/quiz/walk'

/** What a row holds: by its list, or by its condition as things are now. */
export function useHeld() {
  const store = useQuiz()
  return (row: Row): readonly string[] =>
    row.type === 'pool' && row.condition ? (store.held.get(row.id) ?? []) : questionsOf(row)
}
