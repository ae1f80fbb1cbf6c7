import { FetchError } from 'ofetch'
import { createPinia, defineStore, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import * as vue from 'vue'

/** What a fake server answers to a request; throw `offline` or `refused` for the rest. */
export type Answer = (
  path: string,
  options: { method?: string; body?: unknown; query?: Record<string, unknown> },
) => unknown

/** No reply at all: the connection is lost. */
export const offline = () => new FetchError('no connection')

/** A problem as the server sends one. */
export function refused(status: number, detail: string, more: object = {}): FetchError {
  const error = new FetchError(detail)
  error.response = { status } as FetchError['response']
  error.data = { status, title: 'problem', detail, ...more }
  return error
}

/** What is left of a value once it has been JSON. */
export const overTheWire = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/**
 * Makes Nuxt's auto-imports and a fake server for a store that is tested by itself. Call before importing the store:
 * stores name these as globals.
 */
export async function pageWith(
  answer: Answer,
): Promise<{ said: string[]; /** What undoes what was said last. */ takeBacks: (() => void)[] }> {
  const said: string[] = []
  const takeBacks: (() => void)[] = []
  setActivePinia(createPinia())
  const memory = () => {
    const kept = new Map<string, string>()
    return {
      getItem: (name: string) => kept.get(name) ?? null,
      setItem: (name: string, value: string) => {
        kept.set(name, value)
      },
      removeItem: (name: string) => {
        kept.delete(name)
      },
    }
  }
  vi.stubGlobal('localStorage', memory())
  vi.stubGlobal('sessionStorage', memory())
  for (const name of [
    'ref',
    'shallowRef',
    'computed',
    'reactive',
    'watch',
    'nextTick',
    'readonly',
    'triggerRef',
  ] as const)
    vi.stubGlobal(name, vue[name])
  // A composable that is tested by itself has no component: what it does at mounting is done at once.
  vi.stubGlobal('onMounted', (work: () => unknown) => {
    void work()
  })
  vi.stubGlobal('onBeforeUnmount', () => {})
  vi.stubGlobal('defineStore', defineStore)
  vi.stubGlobal('$fetch', async (path: string, options: Parameters<Answer>[1]) => {
    await Promise.resolve()
    return overTheWire(
      await answer(
        path.replace('/api/', ''),
        overTheWire({ method: options.method ?? 'GET', body: options.body, query: options.query }),
      ),
    )
  })
  const [apiModule, nowModule] = [await import('../client/api'), await import('../utils/server-time')]
  for (const [name, value] of Object.entries({ ...apiModule, ...nowModule })) vi.stubGlobal(name, value)
  vi.stubGlobal('announce', (words: string, takeBack: (() => void) | null = null) => {
    said.push(words)
    if (takeBack) takeBacks.push(takeBack)
  })
  vi.stubGlobal('useAct', (await import('../composables/act')).useAct)
  return { said, takeBacks }
}
