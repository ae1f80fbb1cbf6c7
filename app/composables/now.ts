import { useIntervalFn } from '@vueuse/core'

/** The server's time, kept current. @param every milliseconds between steps */
export function useNow(every = 1000) {
  const now = ref(serverTime())
  useIntervalFn(() => {
    now.value = serverTime()
  }, every)
  return now
}
