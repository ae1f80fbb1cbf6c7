import { apart, intoPool, moveTo, pointsEach, spreadPoints, takeOut } from '~~/core/quiz/arrange'
import { asKept } from '~~/core/quiz/condition'
import { count } from '~~/core/kit/phrases'
import { pointsText } from '~~/core/kit/exact'
import { allRows, gives } from '~~/core/quiz/walk'
import { setAt, together, type Edit } from '~~/core/quiz/edits'

/** Rows of a running order that are chosen, and what can be done with all of them at once. */
export function useChosenRows() {
  const store = useQuiz()
  const marked = ref<ReadonlySet<string>>(new Set())
  const order = computed(() => (store.quiz ? allRows(store.quiz.content).map((row) => row.id) : []))
  /** What a colleague has taken out is chosen no more. */
  const chosen = computed(() => order.value.filter((id) => marked.value.has(id)))
  let last: string | null = null

  /** @param stretch with Shift: all from the one before */
  function toggle(id: string, stretch = false) {
    const next = new Set(chosen.value)
    const from = last === null ? -1 : order.value.indexOf(last)
    if (stretch && from >= 0) {
      const to = order.value.indexOf(id)
      for (const each of order.value.slice(Math.min(from, to), Math.max(from, to) + 1)) next.add(each)
    } else if (!next.delete(id)) next.add(id)
    last = id
    marked.value = next
  }
  const none = () => (marked.value = new Set())
  function make(edit: Edit | null, said: string, keep = false) {
    if (!edit) return
    store.make(edit)
    announce(said, store.undo)
    if (!keep) none()
  }
  const givingRows = () =>
    store.quiz
      ? allRows(store.quiz.content)
          .filter(gives)
          .filter((row) => chosen.value.includes(row.id))
      : []
  /** Made on a quiz with its conditions met. */
  const kept = (edit: Edit | null) => edit && asKept(edit)
  const words = () => count(chosen.value.length, 'row')

  return {
    chosen,
    toggle,
    none,
    pool: () => make(kept(intoPool(store.met!, chosen.value, newRowId)), 'One pool now.'),
    /** All of them are asked for already. */
    allRequired: computed(() => givingRows().every((row) => row.required)),
    /** Asks for an answer to all of them, or to none where all are asked for. */
    required() {
      const all = givingRows().every((row) => row.required)
      const rows = givingRows().filter((row) => row.required === all)
      make(
        together(rows.map((row) => setAt(store.quiz!, ['rows', row.id, 'required'], !all))),
        all ? 'They may be left out.' : 'They have to be answered.',
        true,
      )
    },
    takeOut: () => make(takeOut(store.quiz!, chosen.value), `${words()} taken out of the quiz.`),
    moveTo: (section: string) => make(moveTo(store.quiz!, chosen.value, section), `${words()} moved.`),
    points: (value: number) =>
      make(pointsEach(store.quiz!, chosen.value, value), `${pointsText(value)} points each.`, true),
    /** @param rows over which; the chosen ones where it is not said */
    spread(total: number, rows: readonly string[] = chosen.value) {
      const { edit, left } = spreadPoints(store.quiz!, rows, total)
      const rest =
        left > 0 ? ` ${pointsText(left)} could not be given: a pool takes a hundredth for each question.` : ''
      make(edit, `${pointsText(total - left)} points in all.${rest}`, true)
    },
    apart: (pool: string) => {
      store.make(kept(apart(store.met!, pool, newRowId)))
      announce('A row for each of its questions.', store.undo)
    },
  }
}
export type ChosenRows = ReturnType<typeof useChosenRows>
export const chosenRows = Symbol('chosen rows') as InjectionKey<ChosenRows>

/** Opens a question of the quiz to be changed, without leaving the quiz. */
export const changeQuestion = Symbol('change question') as InjectionKey<(question: string) => void>

/** The pool whose condition is being changed: the next search that is taken goes into it. */
export const changeCondition = Symbol('change condition') as InjectionKey<Ref<string | null>>
