<script setup lang="ts" generic="R extends string">
/** What an answer earns: one of a kind's rules. */
defineProps<{ rule: R; rules: readonly (readonly [rule: R, words: string])[] }>()
const emit = defineEmits<{ 'update:rule': [R] }>()
</script>

<template>
  <label class="inline-block max-w-full text-note text-soft"
    >It earns<select
      class="field block max-w-full py-1"
      :value="rule"
      @change="emit('update:rule', ($event.target as HTMLSelectElement).value as R)"
    >
      <option v-for="[each, words] in rules" :key="each" :value="each">{{ words }}</option>
    </select></label
  >
</template>
