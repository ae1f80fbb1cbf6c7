<script setup lang="ts">
import type { Instant } from '~~/core/kit/time'

/** Time left, by the server's clock. Said aloud at a few moments only. */
const {
  deadline,
  startedWith,
  atDeadline,
  label = '',
  slim = false,
} = defineProps<{
  /** Without its bar. */
  slim?: boolean
  /** Of what it is the clock, where there are two. */
  label?: string
  deadline: Instant | null
  startedWith: number
  atDeadline: 'handIn' | 'finish' | 'unsent'
}>()
const emit = defineEmits<{ over: [] }>()
const now = useNow(250)
const left = computed(() => (deadline === null ? null : Date.parse(deadline) - Date.parse(now.value)))
const spoken = ref('')
let over = false

function words(milliseconds: number): string {
  const seconds = Math.ceil(Math.abs(milliseconds) / 1000)
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60]
  const two = (n: number) => String(n).padStart(2, '0')
  if (hours >= 48) return `${Math.floor(hours / 24)} days`
  return hours ? `${hours}:${two(minutes)}:${two(rest)}` : `${two(minutes)}:${two(rest)}`
}

watch(
  left,
  (value, before) => {
    if (value === null) return
    for (const minutes of [30, 10, 5, 1]) {
      if (before && before > minutes * 60_000 && value <= minutes * 60_000)
        spoken.value = `${minutes} ${minutes === 1 ? 'minute' : 'minutes'} left`
    }
    if (value <= 0 && !over) {
      over = true
      emit('over')
    }
    if (value > 0) over = false
  },
  { immediate: true },
)
</script>

<template>
  <div v-if="left !== null" class="flex items-center gap-3">
    <div v-if="!slim" class="hidden h-2 w-44 overflow-hidden rounded bg-rule sm:block" aria-hidden="true">
      <div
        class="h-full bg-petrol"
        :class="left < 300_000 && 'bg-bloom!'"
        :style="{ width: `${Math.max(0, Math.min(100, (left / startedWith) * 100))}%` }"
      />
    </div>
    <span role="timer" class="text-lg font-semibold" :class="left < 300_000 && 'text-bloom'">
      <template v-if="left > 0"
        ><span class="sr-only">Time left </span>{{ words(left)
        }}<span v-if="label" class="ml-1 text-note font-normal text-soft">{{ label }}</span></template
      >
      <template v-else-if="atDeadline === 'finish'">{{ words(left) }} over</template>
      <template v-else>time is up</template>
    </span>
    <span class="sr-only" aria-live="assertive">{{ spoken }}</span>
  </div>
  <span v-else class="text-soft">no time limit</span>
</template>
