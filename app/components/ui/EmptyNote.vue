<script setup lang="ts">
/** What an empty list says: that it is empty, and what to do. */
defineProps<{ title: string }>()
</script>

<template>
  <div class="border-y border-rule py-10 text-center">
    <p class="font-serif text-lg">{{ title }}</p>
    <div class="mt-1 text-soft"><slot /></div>
  </div>
</template>
