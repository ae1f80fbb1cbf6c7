import type { InjectionKey, Ref, ShallowRef } from 'vue'
import { sittingRoutes } from '~/client/sittings'
import { browserMemory, realTimers } from '~/documents/device'
import { OwnNotes } from '~/documents/own-notes'
import type { OwnNote } from '~~/server/domain/sittings/notes'

interface Held {
  notes: OwnNotes
  /** Grows with every change. */
  turn: Ref<number>
}
const key: InjectionKey<ShallowRef<Held | null>> = Symbol('own notes')

/** Gives the page of a paper its student's own notes, once it is open. */
export function provideOwnNotes(attempt: string) {
  const held = shallowRef<Held | null>(null)
  provide(key, held)
  onBeforeUnmount(() => held.value?.notes.leave())
  return (known: Readonly<Record<string, OwnNote>>) => {
    if (held.value) return
    const turn = ref(0)
    const notes = new OwnNotes(
      attempt,
      known,
      (item, note) => sittingRoutes.notes({ id: attempt, body: { item, ...note } }),
      browserMemory(() => localStorage),
      realTimers,
      () => turn.value++,
    )
    held.value = { notes, turn }
  }
}

/** The notes of one question. */
export function useOwnNote(item: string) {
  const held = inject(key, shallowRef(null))
  return {
    own: computed((): OwnNote =>
      held.value && held.value.turn.value >= 0 ? held.value.notes.of(item) : { note: '', marks: [] },
    ),
    change: (values: Partial<OwnNote>) => held.value?.notes.change(item, values),
  }
}
