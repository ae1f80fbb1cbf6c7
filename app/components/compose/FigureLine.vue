<script setup lang="ts">
/** One figure: its name and value on a line, and below it, when it is opened, what it means in a sentence. */
defineProps<{ name: string; value: string }>()
</script>

<template>
  <details class="group text-label">
    <summary class="flex cursor-pointer list-none items-baseline gap-x-3 py-0.5 hover:text-petrol">
      <span class="grow decoration-rule underline-offset-4 group-open:underline">{{ name }}</span>
      <span class="shrink-0 text-right font-semibold tabular-nums">{{ value }}</span>
    </summary>
    <div class="mb-2 border-l-2 border-rule pl-2 text-small text-soft"><slot /></div>
  </details>
</template>
