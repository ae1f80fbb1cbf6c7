<script setup lang="ts">
/** "From 40 to 45": both may be left out. */
const {
  bounds,
  unit,
  label,
  step = 1,
} = defineProps<{
  bounds: { atLeast: number; atMost: number | null } | null
  unit: string
  label: string
  step?: number
}>()
const emit = defineEmits<{ set: [{ atLeast: number; atMost: number | null } | null] }>()
const number = (event: Event) => {
  const text = (event.target as HTMLInputElement).value
  return text === '' || Number.isNaN(Number(text)) ? null : Math.max(0, Number(text))
}
function set(least: number | null, most: number | null) {
  if (least === null && most === null) emit('set', null)
  else emit('set', { atLeast: Math.min(least ?? 0, most ?? Infinity), atMost: most })
}
</script>

<template>
  <span class="inline-flex items-baseline gap-1.5 whitespace-nowrap">
    <input
      class="field w-16! px-2 py-0.5 text-right font-semibold text-petrol"
      type="number"
      min="0"
      :step="step"
      :aria-label="`${label}, at least`"
      :value="bounds?.atLeast || ''"
      placeholder="any"
      @change="set(number($event), bounds?.atMost ?? null)"
    />
    <span class="text-soft">to</span>
    <input
      class="field w-16! px-2 py-0.5 text-right font-semibold text-petrol"
      type="number"
      min="0"
      :step="step"
      :aria-label="`${label}, at most`"
      :value="bounds?.atMost ?? ''"
      placeholder="any"
      @change="set(bounds?.atLeast ?? null, number($event))"
    />
    <span>{{ unit }}</span>
  </span>
</template>
