import { applyEdit, type Edit } from '~~/core/quiz/edits'
import type { Check, Quiz } from '~~/core/quiz'
import { questionsUsed } from '~~/core/quiz/walk'
import type { Hit } from '~~/server/domain/bank/hits'
import type { EditReply, KeptEdit } from '~~/server/domain/quizzes/edits'
import type { QuizView } from '~~/server/domain/quizzes/view'

interface Waiting {
  token: string
  edit: Edit
}
/** An edit of one's own that can be taken back, with what takes it back. */
interface Step {
  token: string
  inverse: Edit
}

const newToken = () => Math.random().toString(36).slice(2, 10).padEnd(8, 'x')

/**
 * A quiz under the hands of its teachers: what the server has, and on top of it the edits that are on their way.
 * Undo sends the inverse of one's own edit, so it never takes a colleague's work back.
 */
export const useQuiz = defineStore('quiz', () => {
  const view = shallowRef<QuizView | null>(null)
  /** The newest revision that the server has told of. */
  const kept = shallowRef<{ quiz: Quiz; revision: number } | null>(null)
  const waiting = shallowRef<Waiting[]>([])
  const undos = shallowRef<Step[]>([])
  const redos = shallowRef<Step[]>([])
  const checks = shallowRef<Check[]>([])
  const facts = shallowRef(new Map<string, Hit>())
  /** Names of stimuli by id. */
  const stimuli = shallowRef(new Map<string, string>())
  const problem = ref('')
  const offline = ref(false)
  const savedAt = ref<number | null>(null)
  const others = ref<string[]>([])
  let page = newToken()
  let count = 0
  let sending = false
  let stamp = 0

  /** The quiz as the page shows it: kept, with what is on its way applied. */
  const quiz = computed<Quiz | null>(() => {
    let result = kept.value?.quiz ?? null
    for (const { edit } of waiting.value) {
      try {
        if (result) result = applyEdit(result, edit).quiz
      } catch {
        /* The server will say so. */
      }
    }
    return result
  })

  async function load(id: string) {
    page = newToken()
    const loaded = await api<QuizView>(`quizzes/${id}`)
    setServerTime(loaded.now)
    view.value = loaded
    kept.value = { quiz: loaded.quiz, revision: loaded.revision }
    checks.value = loaded.checks
    facts.value = new Map(loaded.questions.map((hit) => [hit.id, hit]))
    stimuli.value = new Map(loaded.stimuli.map(({ id: key, name }) => [key, name]))
    waiting.value = []
    undos.value = []
    redos.value = []
    problem.value = ''
    savedAt.value = null
    others.value = []
  }

  /** Hits that the finder has shown, so that a row can show its question at once. */
  function learn(hits: readonly Hit[]) {
    facts.value = new Map([...facts.value, ...hits.map((hit) => [hit.id, hit] as const)])
  }

  /** Makes an edit: at once on the page, then on the server. A sentence is shown when it cannot be made. */
  function make(edit: Edit, as: 'new' | 'undo' | 'redo' = 'new') {
    if (!quiz.value) return
    let inverse: Edit
    try {
      inverse = applyEdit(quiz.value, edit).inverse
    } catch (error) {
      problem.value = sentenceOf(error)
      return
    }
    problem.value = ''
    const token = `${page}.${(count++).toString(36)}`
    waiting.value = [...waiting.value, { token, edit }]
    if (as === 'undo') redos.value = [...redos.value, { token, inverse }]
    else undos.value = [...undos.value, { token, inverse }].slice(-200)
    if (as === 'new') redos.value = []
    void send()
  }

  async function send() {
    if (sending) return
    sending = true
    while (waiting.value.length && view.value && kept.value) {
      const [next] = waiting.value as [Waiting]
      try {
        const reply = await api<EditReply>(`quizzes/${view.value.id}/edits`, {
          method: 'POST',
          body: { on: kept.value.revision, token: next.token, edit: next.edit },
        })
        take(reply.since)
        waiting.value = waiting.value.slice(1)
        savedAt.value = Date.now()
        offline.value = false
      } catch (error) {
        if (error instanceof ApiProblem && error.isOffline) {
          offline.value = true
          setTimeout(() => {
            void send()
          }, 3000)
          break
        }
        problem.value = sentenceOf(error)
        waiting.value = waiting.value.slice(1)
        // What was refused was never done, so there is nothing to take back.
        undos.value = undos.value.filter((step) => step.token !== next.token)
        redos.value = redos.value.filter((step) => step.token !== next.token)
        await catchUp()
      }
    }
    sending = false
    if (!waiting.value.length) void recheck()
  }

  /** Takes edits that the server has kept, of others and one's own, in their order. */
  function take(edits: readonly KeptEdit[]) {
    if (!kept.value) return
    let { quiz: result, revision } = kept.value
    for (const each of edits) {
      if (each.revision <= revision) continue
      result = applyEdit(result, each.edit).quiz
      revision = each.revision
      if (!each.token.startsWith(`${page}.`) && !others.value.includes(each.byName))
        others.value = [...others.value, each.byName]
    }
    kept.value = { quiz: result, revision }
  }

  /** What others did meanwhile. */
  async function poll() {
    if (!sending) await catchUp()
  }

  async function catchUp() {
    if (!view.value || !kept.value) return
    try {
      const edits = await api<KeptEdit[]>(`quizzes/${view.value.id}/edits`, { query: { since: kept.value.revision } })
      if (!edits.length) return
      take(edits)
      // A colleague may have added questions that this page has not seen.
      if (quiz.value && questionsUsed(quiz.value.content).some((id) => !facts.value.has(id)))
        learn((await api<QuizView>(`quizzes/${view.value.id}`)).questions)
      void recheck()
    } catch {
      /* The next poll tries again. */
    }
  }

  async function recheck() {
    if (!view.value) return
    const mine = ++stamp
    try {
      const found = await api<Check[]>(`quizzes/${view.value.id}/checks`)
      if (mine === stamp) checks.value = found
    } catch {
      /* Checks come again with the next edit; opening runs them on the server anyway. */
    }
  }

  function undo() {
    const last = undos.value.at(-1)
    if (!last) return
    undos.value = undos.value.slice(0, -1)
    make(last.inverse, 'undo')
  }

  function redo() {
    const last = redos.value.at(-1)
    if (!last) return
    redos.value = redos.value.slice(0, -1)
    make(last.inverse, 'redo')
  }

  return {
    view,
    quiz,
    waiting,
    undos,
    redos,
    checks,
    facts,
    stimuli,
    problem,
    offline,
    savedAt,
    others,
    load,
    learn,
    make,
    undo,
    redo,
    poll,
    recheck,
  }
})

/** Ids of new sections and rows are made here, and mean nothing. */
export function newRowId(): string {
  return `r${newToken()}${newToken().slice(0, 4)}`
}
