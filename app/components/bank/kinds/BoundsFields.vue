<script setup lang="ts">
import type { CreditBounds } from '~~/core/question/kinds/credits'

/** Between what a sum of credits stays. */
defineProps<{ bounds: CreditBounds }>()
const emit = defineEmits<{ change: [Partial<CreditBounds>] }>()
const written = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <label class="text-note text-soft"
    >at least<input
      class="field block w-20! py-1"
      type="number"
      max="0"
      step="0.5"
      :value="bounds.lower"
      @input="emit('change', { lower: Number(written($event)) })"
  /></label>
  <label class="text-note text-soft"
    >at most<input
      class="field block w-20! py-1"
      type="number"
      min="0"
      step="0.5"
      :value="bounds.upper ?? ''"
      placeholder="all"
      @input="emit('change', { upper: written($event) === '' ? null : Number(written($event)) })"
  /></label>
</template>
