<script setup lang="ts">
import { useElementSize } from '@vueuse/core'

/** Names of days above a line. Where there is no room for all, those that would overlap the one before are left out. */
const { ticks, room } = defineProps<{
  /** Places from 0 to 1. */
  ticks: readonly { at: number; label: string }[]
  /** Percent of the width that the line takes. */
  room: number
}>()
const root = useTemplateRef<HTMLElement>('root')
const { width } = useElementSize(root)
/** Width of a label in pixels, about: no letter of a date is wider than 0.6 of its height. */
const widthOf = (label: string) => label.length * 7.5 + 8
const shown = computed(() => {
  let end = -Infinity
  return ticks.filter(({ at, label }) => {
    const middle = (at * room * width.value) / 100
    if (middle - widthOf(label) / 2 < end) return false
    end = middle + widthOf(label) / 2
    return true
  })
})
</script>

<template>
  <div ref="root" class="pointer-events-none absolute inset-0">
    <span
      v-for="tick in shown"
      :key="tick.at"
      class="absolute -translate-x-1/2 whitespace-nowrap text-soft"
      :style="{ left: `${tick.at * room}%` }"
      >{{ tick.label }}</span
    >
  </div>
</template>
