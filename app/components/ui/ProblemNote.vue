<script setup lang="ts">
/** What went wrong, said at once to screen readers too; beside it whatever helps. Nothing where there is no problem. */
defineProps<{ words: string }>()
</script>

<template>
  <p v-if="words" role="alert" class="note-stop">{{ words }} <slot /></p>
</template>
