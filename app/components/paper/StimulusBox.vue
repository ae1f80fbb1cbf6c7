<script setup lang="ts">
/** What several questions share. It scrolls by itself where it stands beside them, so it can be reached by keyboard. */
defineProps<{ html: string; language?: string; label: string }>()
</script>

<template>
  <section :aria-label="label" tabindex="0" class="border border-rule bg-sheet px-5 py-4">
    <p class="small-head mb-2">{{ label }}</p>
    <WrittenText :html="html" :language="language" class="text-lead" />
  </section>
</template>
