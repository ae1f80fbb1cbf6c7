import type Sortable from 'sortablejs'
import type { Ref } from 'vue'

/**
 * Entries of a list put in order by dragging their handles.
 * @param list may come later than the component, and come anew
 * @param move is told the places
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
      sortable = element
        ? draggable(element, ({ oldIndex, newIndex }) => move(oldIndex, newIndex), { handle })
        : undefined
    },
    { immediate: true, flush: 'post' },
  )
  onBeforeUnmount(() => sortable?.destroy())
}
