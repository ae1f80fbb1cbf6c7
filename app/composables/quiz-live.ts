import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import type { Here } from '~~/server/domain/quizzes/presence'
import { quizRoutes } from '~/client/quizzes'
import { newToken } from '~/documents/device'

/** Milliseconds after which a page that hears of nothing asks by itself. */
const asks = { alone: 5000, beside: 30_000 }

/**
 * What colleagues do in a quiz, as they do it: by server-sent events, and by asking now and then where those cannot be
 * had. Says in turn on which row this page is.
 */
export function useQuizLive(id: () => string) {
  const store = useQuiz()
  const here = ref<Here[]>([])
  const page = newToken(10)
  const hears = ref(false)
  const row = ref<string | null>(null)
  let source: EventSource | undefined

  function listen(quiz: string) {
    source?.close()
    here.value = []
    hears.value = false
    source = new EventSource(`/api/quizzes/${encodeURIComponent(quiz)}/live?page=${page}`)
    const read = <T>(event: MessageEvent<string>) => JSON.parse(event.data) as T
    source.addEventListener('open', () => {
      hears.value = true
      say()
    })
    source.addEventListener('error', () => {
      // The browser tries again by itself; until then the page asks.
      hears.value = false
      here.value = []
    })
    source.addEventListener('revision', (event) => void store.told(read<{ revision: number }>(event).revision))
    source.addEventListener('here', (event) => {
      here.value = read<{ here: Here[] }>(event).here
    })
    source.addEventListener('ended', () => {
      source?.close()
      hears.value = false
      here.value = []
    })
  }
  const say = useDebounceFn(() => {
    quizRoutes.here({ id: id(), body: { page, row: row.value } }).catch(() => {})
  }, 300)
  watch(row, () => void say())
  onMounted(() => {
    watch(id, listen, { immediate: true })
    void say()
  })
  onBeforeUnmount(() => source?.close())
  let asked = Date.now()
  useIntervalFn(() => {
    if (document.hidden || Date.now() - asked < (hears.value ? asks.beside : asks.alone)) return
    asked = Date.now()
    if (!hears.value) {
      // Without a line that stays open, being here is said by asking. One that was refused is not tried again by itself.
      void say()
      if (source?.readyState === EventSource.CLOSED) listen(id())
    }
    void store.poll()
  }, 1000)
  return { here, row, hears }
}

/** Who else is in the quiz, and on which row this page is: given by the page around all pages of a quiz. */
export const quizHere = Symbol('who is here') as InjectionKey<ReturnType<typeof useQuizLive>>
