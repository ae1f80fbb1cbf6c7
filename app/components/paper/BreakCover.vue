<script setup lang="ts">
import type { Instant } from '~~/core/kit/time'
import { clockTime } from '~~/core/kit/phrases'

/** A break: the questions are covered and the clock stands, until the student goes on or there is no break left. */
const { until } = defineProps<{ title: string; until: Instant; busy: boolean; problem: string }>()
const emit = defineEmits<{ goOn: [] }>()
const session = useSession()
const now = useNow(500)
const left = computed(() => Math.max(0, Date.parse(until) - Date.parse(now.value)))
const isOver = computed(() => left.value === 0)
const words = computed(() => {
  const seconds = Math.ceil(left.value / 1000)
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
})
</script>

<template>
  <main id="main" class="mx-auto max-w-xl px-6 py-24">
    <p class="text-soft">{{ title }}</p>
    <h1 class="mt-1 text-3xl">{{ isOver ? 'The break is over' : 'You are taking a break' }}</h1>
    <p v-if="isOver" class="mt-4 text-lg" role="status">The clock of your paper runs again. Go on with it.</p>
    <template v-else>
      <p class="mt-4 text-lg">
        The clock of your paper stands, and the questions are covered. What you wrote is kept. You may go on at any
        time; the rest of the break stays yours.
      </p>
      <p class="mt-4 text-2xl tabular-nums">
        {{ words }}
        <span class="text-lg text-soft">of break left, until {{ clockTime(until, session.zone, true) }}</span>
      </p>
    </template>
    <ProblemNote class="mt-4" :words="problem" />
    <button class="btn btn-main mt-6 px-5 py-2 text-lg" :disabled="busy" @click="emit('goOn')">Go on</button>
  </main>
</template>
