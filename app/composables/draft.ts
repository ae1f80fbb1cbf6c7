import { useDebounceFn, useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'
import { browserMemory } from '~/documents/device'

interface Remembered<T> {
  on: string
  written: T
}
const pause = 300

/**
 * What somebody is writing and has not kept: leaving the page asks first, and a reload (or a browser that was closed)
 * finds it again.
 * @param name of what is written, unlike any other: it is remembered under it, for this person
 * @param written the whole of it
 */
export function useDraft<T>(name: () => string, written: Ref<T>) {
  const session = useSession()
  const memory = browserMemory(() => localStorage)
  const keyOf = (each: string) => `thistle:draft:${session.person?.id ?? ''}:${each}`
  const key = () => keyOf(name())
  const kept = ref(JSON.stringify(written.value))
  /** What it was begun on: a version, or nothing for what is new. */
  let on = ''
  /** What is on its way to the server; what is written meanwhile is not in it. */
  let sent: string | null = null
  let leaving = false
  /** The person has let go of it. */
  let left = false
  let underWay: Promise<unknown> = Promise.resolve()
  const changed = computed(() => JSON.stringify(written.value) !== kept.value)
  /** Something that was not kept has been found again and put in. */
  const found = ref(false)

  function remember() {
    if (changed.value && !left) memory.write(key(), { on, written: written.value } satisfies Remembered<T>)
  }
  watch(written, useDebounceFn(remember, pause), { deep: true })
  useEventListener('pagehide', remember)

  /**
   * It was taken as it was sent: what has been written since is a change to it.
   * @param version that it has now
   */
  function settle(version: number | string = on) {
    on = String(version)
    kept.value = sent ?? JSON.stringify(written.value)
    found.value = false
    if (changed.value) remember()
    else memory.forget(key())
  }

  /**
   * It was taken and has a page of its own now: what has been written since is found there.
   * @param other the name of what is written there
   * @param version that it has there
   */
  function settleAt(other: string, version: number | string) {
    settle()
    if (changed.value)
      memory.write(keyOf(other), { on: String(version), written: written.value } satisfies Remembered<T>)
    kept.value = JSON.stringify(written.value)
    memory.forget(key())
  }

  /**
   * It has been loaded, or begun: what was being written on the very same is put in again.
   * @param version of what was loaded
   */
  function begin(version: number | string = '') {
    on = String(version)
    kept.value = JSON.stringify(written.value)
    const remembered = memory.read(key()) as Remembered<T> | null
    if (!remembered || remembered.on !== on || JSON.stringify(remembered.written) === kept.value) return
    written.value = remembered.written
    found.value = true
  }

  /** What stands is a change to what is kept, without having been written here: an older version that is taken up. */
  function differ() {
    kept.value = ''
  }

  /** Lets go of what was found again. */
  function forget() {
    written.value = JSON.parse(kept.value) as T
    settle()
  }

  /**
   * Keeps it. Who goes on while it is being kept is not asked: their going waits for how it ends.
   * @param work sends it, and settles it where it was taken; never throws
   * @returns what `work` gives, and whether the person is going elsewhere already
   */
  async function keeping<R>(work: () => Promise<R>): Promise<{ reply: R; goes: boolean }> {
    sent = JSON.stringify(written.value)
    const sending = work()
    underWay = sending
    try {
      return { reply: await sending, goes: leaving }
    } finally {
      sent = null
    }
  }

  onBeforeRouteLeave(async () => {
    leaving = true
    await underWay
    if (!changed.value) return true
    remember()
    left = leaving = await confirmed(
      'Leave without keeping?',
      'What you changed here is not kept yet.',
      'Leave without keeping',
    )
    if (left) memory.forget(key())
    return left
  })
  return { changed, found, settle, settleAt, begin, differ, forget, remember, keeping }
}
