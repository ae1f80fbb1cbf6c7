import { useDebounceFn } from '@vueuse/core'
import { factsFrom } from '~~/core/figures/facts'
import type { Figures, WorkingTime } from '~~/core/figures'
import type { Rules } from '~~/core/quiz'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { FiguresAsked, FiguresTold } from '~/workers/figures.worker'

/**
 * The figures of the quiz at hand, answered at every change by a worker; the last ones stay until newer ones come.
 * @param rulesOf other rules than the quiz has: for trying out
 */
export function useFigures(rulesOf: (rules: Rules) => Rules = (rules) => rules) {
  const store = useQuiz()
  const figures = shallowRef<Figures | null>(null)
  const time = shallowRef<WorkingTime | null>(null)
  let worker: Worker | undefined
  let stamp = 0
  /** What the worker knows of questions. */
  let sent: ReadonlyMap<string, Hit> = new Map()

  function ask() {
    if (!store.met || !worker) return
    const { content, rules } = store.met
    const { grade, late, attempts, counts, working } = rulesOf(rules)
    const asked: FiguresAsked = {
      stamp: ++stamp,
      // The store's documents are watched; a worker takes plain ones.
      content: JSON.parse(JSON.stringify(content)) as typeof content,
      rules: JSON.parse(JSON.stringify({ grade, late, attempts, counts, working })) as FiguresAsked['rules'],
      facts: [...store.facts].filter(([id, hit]) => sent.get(id) !== hit).map(([id, hit]) => [id, factsFrom(hit)]),
    }
    sent = new Map(store.facts)
    worker.postMessage(asked)
  }
  /** The change itself is drawn first: on few cores a worker would hold up the very frame that shows it. */
  const soon = useDebounceFn(ask, 60, { maxWait: 250 })

  onMounted(() => {
    worker = new Worker(new URL('../workers/figures.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data }: MessageEvent<FiguresTold>) => {
      if (data.stamp !== stamp) return
      if ('figures' in data) figures.value = data.figures
      else time.value = data.time
    })
    watch([() => store.met?.content, () => store.quiz && rulesOf(store.quiz.rules), () => store.facts], soon)
    ask()
  })
  onBeforeUnmount(() => worker?.terminate())
  return { figures, time }
}
