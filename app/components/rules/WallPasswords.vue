<script setup lang="ts">
import { clockTime, sentenceTime } from '~~/core/kit/phrases'
import { whoWords } from '~~/core/rules/window/who'

/** Passwords of the quiz and its windows, each to be shown large on the wall with the clock. */
const store = useQuiz()
const session = useSession()
const reading = useRulesReading()
const now = useNow(1000)
const shown = ref<{ who: string; password: string } | null>(null)
const all = computed(() => {
  const { windows, password } = store.quiz!.rules
  const own = windows.flatMap((window) =>
    window.password
      ? [
          {
            key: window.id,
            who: `${whoWords(window, reading.value!.names)}, ${sentenceTime(window.opens, session.zone)}`,
            password: window.password,
          },
        ]
      : [],
  )
  return password ? [{ key: 'quiz', who: store.quiz!.content.title, password }, ...own] : own
})
</script>

<template>
  <div v-if="all.length" class="mt-2 space-y-1 font-sans">
    <button v-for="each in all" :key="each.key" class="btn btn-quiet" @click="shown = each">
      Password on the wall<template v-if="all.length > 1">: {{ each.who }}</template>
    </button>
    <ModalDialog :open="shown !== null" :title="shown?.who ?? ''" wide @close="shown = null">
      <p class="text-center text-xl">The password is</p>
      <p class="py-8 text-center font-serif text-6xl font-semibold break-words sm:text-8xl">{{ shown?.password }}</p>
      <p class="text-center text-4xl tabular-nums">{{ clockTime(now, session.zone, true) }}</p>
      <div class="mt-4 text-center"><button class="btn" @click="shown = null">Close</button></div>
    </ModalDialog>
  </div>
</template>
