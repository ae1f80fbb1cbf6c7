<script setup lang="ts">
/** What was written here and not kept has been put in again; it can be let go of. */
defineProps<{ found: boolean }>()
const emit = defineEmits<{ forget: [] }>()
</script>

<template>
  <p v-if="found" role="status" class="note-look mt-3">
    What you had written here and not kept is back.
    <button class="link" @click="emit('forget')">Leave it out</button>
  </p>
</template>
