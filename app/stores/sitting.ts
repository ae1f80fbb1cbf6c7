import type { Response } from '~/components/paper/response'
import { sittingRoutes } from '~/client/sittings'
import { browserMemory, realTimers, thisDevice } from '~/documents/device'
import { rememberedSittings, sendLeftOver, SittingEngine } from '~/documents/sitting-engine'

/**
 * What this browser wrote in sittings that are open nowhere in it, after a lost connection or a crash, is sent when
 * its student comes back to My quizzes. What cannot be sent stays for the next time.
 * @returns whether anything was sent
 */
export async function sendLeftOvers(): Promise<boolean> {
  const memory = browserMemory(() => localStorage)
  const sent = await Promise.allSettled(
    rememberedSittings(memory).map((id) => sendLeftOver(id, (body) => sittingRoutes.save({ id, body }), memory)),
  )
  return sent.some(({ status }) => status === 'fulfilled')
}

/** The paper that is open on this page: a thin map over its engine. */
export const useSitting = defineStore('sitting', () => {
  const engine = shallowRef<SittingEngine | null>(null)
  /** Grows with every change of the engine: what the page draws hangs on it. */
  const turn = ref(0)
  const map = <K extends keyof SittingEngine>(name: K, none: SittingEngine[K]) =>
    computed(() => (turn.value >= 0 && engine.value ? engine.value[name] : none))

  function engineOf(attempt: string): SittingEngine {
    const made: SittingEngine = new SittingEngine(
      attempt,
      {
        open: (body) => sittingRoutes.open({ id: attempt, body }),
        save: (body) => sittingRoutes.save({ id: attempt, body }),
        clock: (lease) => sittingRoutes.clock({ id: attempt, query: { lease } }),
        moveOn: (body) => sittingRoutes.moveOn({ id: attempt, body }),
        beginBreak: (body) => sittingRoutes.beginBreak({ id: attempt, body }),
        endBreak: () => sittingRoutes.endBreak({ id: attempt }),
        enter: (body) => sittingRoutes.enter({ id: attempt, body }),
        handIn: (body) => sittingRoutes.handIn({ id: attempt, body }),
        check: (body) => sittingRoutes.check({ id: attempt, body }),
        hint: (body) => sittingRoutes.hint({ id: attempt, body }),
      },
      browserMemory(() => localStorage),
      realTimers,
      thisDevice(),
      {
        changed() {
          if (engine.value === made) turn.value++
        },
        serverTime: setServerTime,
        say: announce,
      },
    )
    return made
  }

  return {
    opened: map('opened', null),
    clock: map('clock', null),
    sections: map('sections', []),
    answers: map('answers', {}),
    pending: map('pending', new Set()),
    struck: map('struck', {}),
    offline: map('offline', false),
    signedOut: map('signedOut', false),
    keptAt: map('keptAt', null),
    lease: map('lease', 'held'),
    phase: map('phase', 'loading'),
    rest: map('rest', null),
    page: map('page', 0),
    lowest: map('lowest', 0),
    here: map('here', null),
    sending: map('sending', 0),
    setAside: map('setAside', 0),
    help: map('help', {}),
    asking: map('asking', null),
    refused: map('refused', ''),
    questions: map('questions', []),
    canWrite: map('canWrite', false),
    /** Opens a paper on this device. @param language chosen just now; absent keeps what was chosen before. @throws ApiProblem */
    async open(attempt: string, language?: string | null) {
      if (engine.value?.attempt !== attempt) {
        engine.value?.leave()
        engine.value = engineOf(attempt)
      }
      await engine.value.open(language)
    },
    change: (item: string, values: { response?: Response | null; flagged?: boolean }) =>
      engine.value?.change(item, values),
    strike: (item: string, option: string) => engine.value?.strike(item, option),
    keepFile: async (item: string, send: () => Promise<Response>) => engine.value?.keepFile(item, send),
    flush: async () => engine.value?.flush(),
    ask: async () => engine.value?.ask(),
    check: async (item: string) => engine.value?.check(item),
    hint: async (item: string) => engine.value?.hint(item),
    handIn: async () => engine.value?.handIn(),
    takeBreak: async () => engine.value?.takeBreak(),
    goOn: async () => engine.value?.goOn(),
    enter: async (section: number | null) => engine.value?.enter(section),
    goTo: async (page: number) => engine.value?.goTo(page),
    goes: (item: string | null) => engine.value?.goes(item),
    leave() {
      engine.value?.leave()
      engine.value = null
    },
  }
})
