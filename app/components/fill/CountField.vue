<script setup lang="ts">
import { countText, readCount, type Count } from '~~/core/blueprint'

/** How many questions of one sort: "4", "0–2", "3+"; below it how many there are. */
const {
  count,
  holds,
  label,
  lacks = 0,
} = defineProps<{
  count: Count | null
  holds: number
  label: string
  /** Questions that the last proposal could not find. */
  lacks?: number
}>()
const emit = defineEmits<{ set: [Count | null] }>()
const typed = ref(count ? countText(count) : '')
watch(
  () => count,
  (now) => {
    if (readCount(typed.value)?.atLeast !== now?.atLeast || readCount(typed.value)?.atMost !== now?.atMost)
      typed.value = now ? countText(now) : ''
  },
)
const wrong = computed(() => readCount(typed.value) === undefined)
const short = computed(() => Boolean(count && count.atLeast > holds) || lacks > 0)
function take() {
  const read = readCount(typed.value)
  if (read !== undefined) emit('set', read)
}
</script>

<template>
  <span class="inline-flex flex-col items-end">
    <input
      v-model="typed"
      class="field w-16! px-2 py-0.5 text-right font-semibold tabular-nums"
      :class="[short && count ? 'text-red' : 'text-petrol', wrong && 'border-red']"
      :aria-label="label"
      :aria-invalid="wrong"
      inputmode="text"
      autocomplete="off"
      placeholder="–"
      @input="take"
    />
    <span class="text-fine text-soft" :class="short && count ? 'font-semibold text-red' : ''">{{
      wrong ? 'not a number' : `of ${holds}`
    }}</span>
  </span>
</template>
