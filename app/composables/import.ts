import { importRoutes } from '~/client/imports'
import { useTimeoutPoll } from '@vueuse/core'
import type { Batch, Fate, StagedLine } from '~~/server/domain/imports/batch'

export const fateWords: Record<Fate, string> = {
  new: 'new',
  changed: 'changes one in the bank',
  same: 'the same as in the bank',
  broken: 'cannot be read',
  near: 'like one in the bank',
}

/** What is looked at before it is taken: it would be scored otherwise here, or nobody can tell, or words of it are missing. */
export const waits = ({ proof, lost }: Pick<StagedLine, 'proof' | 'lost'>): boolean =>
  (proof !== null && proof.state !== 'proven') || lost.length > 0

/** Bringing questions in: staged, looked at, taken in one go, and taken back. */
export function useImport() {
  const batch = shallowRef<Batch | null>(null)
  const chosen = ref(new Set<number>())
  /** Tests of the file that become quizzes. */
  const quizzes = ref(new Set<number>())
  const { problem, busy, act } = useAct()
  const undone = ref('')

  async function stage(file: Blob, name: string) {
    undone.value = ''
    await act(async () => {
      batch.value = await importRoutes.stage({ body: file, query: { name } })
      chosen.value = new Set(
        batch.value.items.flatMap((item, i) =>
          (item.fate === 'new' || item.fate === 'changed') && !waits(item) ? [i] : [],
        ),
      )
      quizzes.value = new Set(batch.value.tests.map((_, i) => i))
    })
  }
  const poll = useTimeoutPoll(
    async () => {
      if (!batch.value) return
      try {
        const found = await importRoutes.progress({ id: batch.value.id })
        batch.value = { ...batch.value, ...found }
        if (found.state !== 'running' && found.state !== 'stopping') {
          poll.pause()
          if (found.state === 'done' && quizzes.value.size) batch.value = await importRoutes.get({ id: batch.value.id })
          announce(
            found.state === 'done'
              ? `${found.total} ${found.total === 1 ? 'question is' : 'questions are'} in the bank.`
              : 'Stopped: nothing was added.',
          )
        }
      } catch {
        /* Asked again with the next turn. */
      }
    },
    300,
    { immediate: false },
  )

  async function take() {
    const { id } = batch.value ?? {}
    if (!id) return
    await act(async () => {
      const { total } = await importRoutes.take({
        id,
        body: { items: [...chosen.value].sort((a, b) => a - b), tests: [...quizzes.value].sort((a, b) => a - b) },
      })
      batch.value = { ...batch.value!, state: 'running', progress: 0, total }
      poll.resume()
    })
  }
  async function stop() {
    const { id } = batch.value ?? {}
    if (id) await act(() => importRoutes.stop({ id }))
  }
  async function undo() {
    const { id } = batch.value ?? {}
    if (!id) return
    await act(async () => {
      const { removed, kept, quizzes: staying } = await importRoutes.undo({ id })
      undone.value = `Taken back: ${removed}.${kept ? ` ${kept} stay, because a quiz holds them or somebody has changed them.` : ''}${staying ? ' A quiz stays that somebody has worked on.' : ''}`
      batch.value = { ...batch.value!, state: 'undone' }
    })
  }
  return { batch, chosen, quizzes, problem, busy, undone, stage, take, stop, undo }
}
