<script setup lang="ts">
import { addTo, removeFrom, type Edit } from '~~/core/quiz/edits'
import type { Slot } from '~~/core/rules'

/** For whom: classes, put in and taken out one by one, so that two teachers' choices merge. At least one stays. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ edit: [Edit] }>()
const store = useQuiz()
const chosen = computed(() => place.value as string[])
function toggle(id: string) {
  if (!chosen.value.includes(id)) emit('edit', addTo(place.path, chosen.value.at(-1) ?? null, [id]))
  else if (chosen.value.length > 1) emit('edit', removeFrom(store.quiz!, place.path, [id]))
}
</script>

<template>
  <fieldset>
    <legend class="sr-only">{{ place.name }}</legend>
    <TickBox
      v-for="each in store.view!.classes"
      :key="each.id"
      :model-value="chosen.includes(each.id)"
      :disabled="chosen.length === 1 && chosen.includes(each.id)"
      @update:model-value="toggle(each.id)"
      >{{ each.name }}</TickBox
    >
    <p v-if="chosen.length === 1" class="mt-1 text-note text-soft">To change it, choose the other first.</p>
  </fieldset>
</template>
