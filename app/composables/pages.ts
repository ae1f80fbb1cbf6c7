/** A list that comes a page at a time: each page says whether there are more, and after how many they begin. */
export function usePages<T>(load: (after: number) => Promise<{ items: T[]; more: boolean; next: number }>) {
  const items = shallowRef<T[]>([])
  const more = ref(false)
  const isReady = ref(false)
  const error = shallowRef<unknown>(null)
  let after = 0

  async function take(from: number) {
    error.value = null
    try {
      const page = await load(from)
      items.value = from ? [...items.value, ...page.items] : page.items
      more.value = page.more
      after = page.next
    } catch (problem) {
      error.value = problem
    }
    isReady.value = true
  }
  void take(0)
  return { items, more, isReady, error, next: () => take(after), again: () => take(0) }
}
