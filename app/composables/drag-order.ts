import Sortable from 'sortablejs'
import type { Ref } from 'vue'

/**
 * Entries of a list put in order by dragging their handles, by mouse and by touch.
 * @param list may come later than the component, and come anew
 * @param move is told the places; the list itself goes back as it was, and the page draws the move
 */
export function useDragOrder(
  list: Readonly<Ref<HTMLElement | null>>,
  move: (from: number, to: number) => void,
  handle = '.drag-handle',
): void {
  let sortable: Sortable | undefined
  watch(
    list,
    (element) => {
      sortable?.destroy()
      sortable = undefined
      if (!element) return
      sortable = Sortable.create(element, {
        handle,
        animation: 120,
        ghostClass: 'opacity-40',
        forceFallback: true,
        fallbackTolerance: 4,
        onEnd({ item, from, oldIndex, newIndex }) {
          if (oldIndex === undefined || newIndex === undefined || oldIndex === newIndex) return
          from.insertBefore(item, from.children[oldIndex < newIndex ? oldIndex : oldIndex + 1] ?? null)
          move(oldIndex, newIndex)
        },
      })
    },
    { immediate: true, flush: 'post' },
  )
  onBeforeUnmount(() => sortable?.destroy())
}
