<script setup lang="ts">
import type { Narrowing } from '~/composables/question-search'

/** What narrows a search and is asked for now and then. */
const model = defineModel<Narrowing>({ required: true })
const unusedSince = computed({
  get: () => model.value.unusedSince.slice(0, 10),
  set: (day: string) => {
    model.value.unusedSince = day ? `${day}T00:00:00.000Z` : ''
  },
})
</script>

<template>
  <details class="relative">
    <summary class="text-label text-soft">more</summary>
    <div class="absolute right-0 z-20 mt-1 w-72 space-y-2 border border-rule bg-sheet p-3 shadow-lg">
      <LabelledField label="Not used since"
        ><input v-model="unusedSince" type="date" class="field py-1"
      /></LabelledField>
      <TickBox :model-value="model.doubted === 'yes'" @update:model-value="model.doubted = model.doubted ? '' : 'yes'"
        >a colleague says something is wrong</TickBox
      >
      <LabelledField label="From"
        ><select v-model="model.origin" class="field py-1">
          <option value="">everywhere</option>
          <option value="own">our own bank</option>
          <option value="outside">banks of others</option>
        </select></LabelledField
      >
      <TickBox :model-value="model.owner === 'me'" @update:model-value="model.owner = model.owner ? '' : 'me'"
        >my own</TickBox
      >
    </div>
  </details>
</template>
