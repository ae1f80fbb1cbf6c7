import Sortable from 'sortablejs'

/** What was dragged, from where to where; places count from 0. */
export interface Drop {
  item: HTMLElement
  from: HTMLElement
  to: HTMLElement
  oldIndex: number
  newIndex: number
  /** What it was dropped behind; null for first. */
  after: Element | null
}

/**
 * Makes the entries of a list draggable, by mouse and by touch. The lists go back as they were when something is dropped:
 * the page draws the move once it has made it.
 * @param options of Sortable, where a list differs from the usual: a handle, a group, what may not be dragged
 */
export function draggable(list: HTMLElement, dropped: (drop: Drop) => void, options: Sortable.Options = {}): Sortable {
  return Sortable.create(list, {
    animation: 120,
    ghostClass: 'opacity-40',
    forceFallback: true,
    fallbackTolerance: 4,
    ...options,
    onEnd({ item, from, to, oldIndex, newIndex }) {
      if (oldIndex === undefined || newIndex === undefined || (from === to && oldIndex === newIndex)) return
      const after = item.previousElementSibling
      const shifted = from === to && newIndex < oldIndex ? oldIndex + 1 : oldIndex
      from.insertBefore(item, from.children[shifted] ?? null)
      dropped({ item, from, to, oldIndex, newIndex, after })
    },
  })
}
