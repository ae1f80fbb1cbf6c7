import { blueprintRoutes } from '~/client/blueprints'
import type { Blueprint } from '~~/core/blueprint'
import type { ProposalView } from '~~/server/domain/blueprints/propose'
import type { Scope } from '~~/server/domain/blueprints/candidates'

/** Asks for a proposal and waits for it: with the seconds that have gone, and a way to stop. */
export function useProposal() {
  const proposal = shallowRef<ProposalView | null>(null)
  const problem = ref('')
  const seconds = ref<number | null>(null)
  let asked: AbortController | undefined
  let clock: ReturnType<typeof setInterval> | undefined

  function stop() {
    asked?.abort()
    clearInterval(clock)
    seconds.value = null
  }
  async function find(quiz: string, body: { blueprint: Blueprint; within: Partial<Scope>; seed: number | null }) {
    stop()
    const mine = (asked = new AbortController())
    const began = Date.now()
    seconds.value = 0
    problem.value = ''
    clock = setInterval(() => (seconds.value = Math.floor((Date.now() - began) / 1000)), 500)
    try {
      proposal.value = await blueprintRoutes.propose({
        id: quiz,
        body: body as { blueprint: Blueprint; within: Scope; seed: number | null },
        signal: mine.signal,
      })
    } catch (error) {
      if (!mine.signal.aborted) problem.value = sentenceOf(error)
    }
    if (mine === asked) stop()
  }
  onBeforeUnmount(stop)
  return { proposal, problem, seconds, find, stop }
}
