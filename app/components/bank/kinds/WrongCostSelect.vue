<script setup lang="ts">
/** What something wrong takes away, as a share of what something right earns. */
defineProps<{
  cost: number
  /** What is wrong: "tick", "place". */
  thing: string
}>()
const emit = defineEmits<{ 'update:cost': [number] }>()
const usual = [
  [0, 'nothing'],
  [0.25, 'a quarter of a right one'],
  [0.5, 'half of a right one'],
  [1, 'as much as a right one earns'],
] as const
</script>

<template>
  <label class="inline-block max-w-full text-note text-soft"
    >A wrong {{ thing }} takes away<select
      class="field block max-w-full py-1"
      :value="cost"
      @change="emit('update:cost', Number(($event.target as HTMLSelectElement).value))"
    >
      <option v-for="[share, words] in usual" :key="share" :value="share">{{ words }}</option>
      <option v-if="!usual.some(([share]) => share === cost)" :value="cost">
        {{ cost }} times what a right one earns
      </option>
    </select></label
  >
</template>
