<script setup lang="ts">
import { ArrowDown, ArrowUp, Trash2 } from '@lucide/vue'

/** Moves one entry of a list up or down, or takes it out. */
const { index, count, least } = defineProps<{
  index: number
  count: number
  /** So many have to stay. */
  least: number
  /** What it is called: "option B". */
  name: string
}>()
const emit = defineEmits<{ move: [from: number, to: number]; remove: [] }>()
</script>

<template>
  <button
    type="button"
    class="btn btn-quiet p-1"
    :disabled="index === 0"
    :aria-label="`Move ${name} up`"
    @click="emit('move', index, index - 1)"
  >
    <ArrowUp :size="16" />
  </button>
  <button
    type="button"
    class="btn btn-quiet p-1"
    :disabled="index === count - 1"
    :aria-label="`Move ${name} down`"
    @click="emit('move', index, index + 1)"
  >
    <ArrowDown :size="16" />
  </button>
  <button
    type="button"
    class="btn btn-quiet p-1"
    :disabled="count <= least"
    :aria-label="`Take out ${name}`"
    @click="emit('remove')"
  >
    <Trash2 :size="16" />
  </button>
</template>
