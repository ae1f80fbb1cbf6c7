const key = 'thistle-objectives'

/** Objectives of the questions kept last in this stretch of work: offered first with the next one. */
export function useRecentObjectives() {
  const recent = ref<string[]>([])
  onMounted(() => {
    try {
      recent.value = JSON.parse(sessionStorage.getItem(key) ?? '[]') as string[]
    } catch {
      /* Nothing is offered first then. */
    }
  })
  function note(objectives: readonly string[]) {
    recent.value = [...new Set([...objectives, ...recent.value])].slice(0, 6)
    try {
      sessionStorage.setItem(key, JSON.stringify(recent.value))
    } catch {
      /* Private windows may refuse it. */
    }
  }
  return { recent, note }
}
