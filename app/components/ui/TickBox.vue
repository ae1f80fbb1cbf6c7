<script setup lang="ts">
/** A box to tick, with its words beside it. */
defineProps<{ modelValue: boolean; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [boolean] }>()
</script>

<template>
  <label class="flex items-center gap-2 py-0.5"
    ><input
      type="checkbox"
      class="accent-petrol"
      :checked="modelValue"
      :disabled="disabled"
      @change="emit('update:modelValue', ($event.target as HTMLInputElement).checked)" />
    <span><slot /></span
  ></label>
</template>
