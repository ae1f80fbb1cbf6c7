import { useDebounceFn } from '@vueuse/core'
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
  const key = () => `thistle:draft:${session.person?.id ?? ''}:${name()}`
  const kept = ref(JSON.stringify(written.value))
  /** What it was begun on: a version, or nothing for what is new. */
  let on = ''
  let leaving = false
  let underWay: Promise<unknown> = Promise.resolve()
  const changed = computed(() => JSON.stringify(written.value) !== kept.value)
  /** Something that was not kept has been found again and put in. */
  const found = ref(false)

  const remember = useDebounceFn(() => {
    if (changed.value && !leaving) memory.write(key(), { on, written: written.value } satisfies Remembered<T>)
  }, pause)
  watch(written, remember, { deep: true })

  /** It stands now as it is kept. */
  function settle() {
    kept.value = JSON.stringify(written.value)
    memory.forget(key())
    found.value = false
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
    const sending = work()
    underWay = sending
    return { reply: await sending, goes: leaving }
  }

  onBeforeRouteLeave(async () => {
    leaving = true
    await underWay
    if (!changed.value) return true
    leaving = await confirmed(
      'Leave without keeping?',
      'What you changed here is not kept yet.',
      'Leave without keeping',
    )
    if (leaving) memory.forget(key())
    return leaving
  })
  return { changed, found, settle, begin, differ, forget, keeping }
}
