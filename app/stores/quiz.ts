import { applyEdit, type Edit } from '~~/core/quiz/edits'
import { effectsOf, type Effect } from '~~/core/schedule/effects'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import { quizRoutes } from '~/client/quizzes'
import { browserMemory, newToken, realTimers } from '~/documents/device'
import { QuizReplica } from '~/documents/quiz-replica'
import { withHeld } from '~~/core/quiz/condition'

function replicaOf(id: string, person: string, tell: (replica: QuizReplica) => void): QuizReplica {
  const remote = {
    load: () => quizRoutes.get({ id }),
    edit: (body: { on: number; token: string; edit: Edit }) => quizRoutes.edit({ id, body }),
    changes: (since: number) => quizRoutes.changes({ id, query: { since } }),
    checks: (held: string, stop?: AbortSignal) =>
      quizRoutes.checks({ id, query: { held }, ...(stop ? { signal: stop } : {}) }),
  }
  const replica: QuizReplica = new QuizReplica(
    remote,
    browserMemory(() => localStorage),
    realTimers,
    newToken(8),
    `thistle:quiz:${person}:${id}`,
    () => {
      tell(replica)
    },
  )
  return replica
}

/** The quiz that is open on this page: a thin map over its replica, which stays while the page stays in one quiz. */
export const useQuiz = defineStore('quiz', () => {
  const session = useSession()
  const open = shallowRef<{ id: string; replica: QuizReplica } | null>(null)
  /** Grows with every change of the replica: what the page draws hangs on it. */
  const turn = ref(0)
  const map = <K extends keyof QuizReplica>(name: K, none: QuizReplica[K]) =>
    computed(() => (turn.value >= 0 && open.value ? open.value.replica[name] : none))

  const quiz = map('quiz', null)
  const held = map('held', new Map())

  const proposed = shallowRef<{ edit: Edit; effects: Effect[] } | null>(null)
  /** Of a quiz that students have: what an edit of its rules does to whom. */
  function effectsOfEdit(edit: Edit): Effect[] {
    const { view, quiz: now } = open.value!.replica
    if (!view || !now || !['scheduled', 'open', 'closed'].includes(view.state)) return []
    const after = applyEdit(now, edit).quiz
    if (after.rules === now.rules) return []
    return effectsOf(now.rules, after.rules, view.students, serverTime(), session.zone)
  }

  return {
    id: computed(() => open.value?.id ?? null),
    view: map('view', null),
    quiz,
    /** The quiz with what its conditions find, to be counted and drawn from; edits are made on `quiz`. */
    met: computed(() => quiz.value && { ...quiz.value, content: withHeld(quiz.value.content, held.value) }),
    held,
    waiting: map('waiting', []),
    undos: map('undos', []),
    redos: map('redos', []),
    checks: map('checks', []),
    facts: map('facts', new Map()),
    stimuli: map('stimuli', new Map()),
    problem: map('problem', ''),
    asked: map('asked', null),
    offline: map('offline', false),
    savedAt: map('savedAt', null),
    others: map('others', []),
    /** Opens a quiz; the one that is open already stays as it is, with its undo. @throws ApiProblem */
    async open(id: string) {
      if (open.value?.id === id && open.value.replica.view) return
      open.value?.replica.leave()
      const replica = replicaOf(id, session.person?.id ?? '', (told) => {
        if (open.value?.replica === told) turn.value++
      })
      open.value = { id, replica }
      await replica.load()
      if (replica.view) setServerTime(replica.view.now)
    },
    /** Loads anew what stands beside the edits: state, edition, teachers. @throws ApiProblem */
    reload: async () => open.value?.replica.load(),
    close() {
      open.value?.replica.leave()
      open.value = null
    },
    learn: (hits: readonly Hit[], stimuli?: readonly (readonly [string, string])[]) =>
      open.value?.replica.learn(hits, stimuli),
    /** What a change would do to students who have the quiz already: it waits for a yes. */
    proposed,
    /** @param sure what it does to whom has been said */
    make(edit: Edit | null, sure = false) {
      if (!edit || !open.value) return
      const effects = sure ? [] : effectsOfEdit(edit)
      if (effects.length) proposed.value = { edit, effects }
      else open.value.replica.make(edit)
    },
    undo: () => open.value?.replica.undo(),
    redo: () => open.value?.replica.redo(),
    answer: (keep: 'theirs' | 'mine') => open.value?.replica.answer(keep),
    say: (problem: string) => open.value?.replica.closeProblem(problem),
    recheck: async () => open.value?.replica.recheck(),
    poll: async () => open.value?.replica.poll(),
    told: async (revision: number) => open.value?.replica.told(revision),
  }
})

/** Ids of new sections and rows are made here, and mean nothing. */
export const newRowId = () => `r${newToken(12)}`
