import { useEventListener } from '@vueuse/core'
import { sittingRoutes } from '~/client/sittings'
import { browserMemory, newToken } from '~/documents/device'

interface Left {
  token: string
  /** By this device's clock, in milliseconds: only how long it was is told. */
  at: number
}

/** Tells the server that the page of a watched sitting was left, when its student is back: also after a reload. */
export function useAwayNotes(attempt: string, isOn: () => boolean) {
  const memory = browserMemory(() => localStorage)
  const name = `thistle:away:${attempt}`
  const leave = () => {
    if (isOn() && !memory.read(name)) memory.write(name, { token: newToken(), at: Date.now() } satisfies Left)
  }
  async function back() {
    const left = memory.read(name) as Left | null
    if (!left || !isOn()) return
    const seconds = Math.max(0, Math.round((Date.now() - left.at) / 1000))
    try {
      await sittingRoutes.away({ id: attempt, body: { token: left.token, seconds } })
      memory.forget(name)
    } catch (error) {
      // What cannot be told now is told when they are back the next time.
      if (error instanceof ApiProblem && !error.isPassing) memory.forget(name)
    }
  }
  useEventListener(document, 'visibilitychange', () => {
    if (document.hidden) leave()
    else void back()
  })
  useEventListener(window, 'pagehide', leave)
  return { back }
}
