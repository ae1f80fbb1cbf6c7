<script setup lang="ts">
/** A control with its name above it; a press on the name goes to the control, and a screen reader says both. */
defineProps<{ label: string }>()
</script>

<template>
  <label class="block"
    ><span class="label">{{ label }}</span
    ><slot
  /></label>
</template>
