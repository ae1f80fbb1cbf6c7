/** What a screen reader is told, and a short line on the page shows. */
const message = ref('')
const undo = shallowRef<(() => void) | null>(null)
let timer: ReturnType<typeof setTimeout> | undefined

/** What is being announced, for the one place that shows it. */
export function useAnnouncement() {
  return { message: readonly(message), undo }
}

/** Says something that has happened. @param takeBack what undoes it, offered beside the words */
export function announce(words: string, takeBack: (() => void) | null = null): void {
  clearTimeout(timer)
  message.value = ''
  nextTick(() => {
    message.value = words
  })
  undo.value = takeBack
  // What can be taken back is offered long enough for hurried people.
  timer = setTimeout(
    () => {
      message.value = ''
      undo.value = null
    },
    takeBack ? 20_000 : 8_000,
  )
}
