import type { ComputedRef } from 'vue'
import type { Reading } from '~~/core/rules'

/** What sentences of the rules of the quiz that is open are written with; null while none is. */
export function useRulesReading(): ComputedRef<Reading | null> {
  const store = useQuiz()
  const session = useSession()
  return computed(() => {
    const { quiz, view } = store
    if (!quiz || !view) return null
    const names = new Map([...view.classes, ...view.groups, ...view.students].map(({ id, name }) => [id, name]))
    return { quiz, zone: session.zone, scales: view.scales, names }
  })
}
