<script setup lang="ts">
import { addTo, removeFrom, type Edit } from '~~/core/quiz/edits'
import type { Control, Slot } from '~~/core/rules'

/** Languages, put in and taken out one by one; the first is read unless another is chosen. None is every one. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ edit: [Edit] }>()
const store = useQuiz()
const chosen = computed(() => place.value as string[])
const control = computed(() => place.control as Extract<Control, { sort: 'languages' }>)
const known = computed(() => [...new Set([...chosen.value, ...[...store.facts.values()].map((hit) => hit.language)])])
const other = ref('')
function toggle(code: string) {
  emit(
    'edit',
    chosen.value.includes(code)
      ? removeFrom(store.quiz!, place.path, [code])
      : addTo(place.path, chosen.value.at(-1) ?? null, [code]),
  )
}
</script>

<template>
  <fieldset>
    <legend class="sr-only">{{ place.name }}</legend>
    <TickBox
      v-for="code in known"
      :key="code"
      :model-value="chosen.includes(code)"
      @update:model-value="toggle(code)"
      >{{ languageName(code) }}</TickBox
    >
    <form class="mt-2 flex gap-2" @submit.prevent="other.trim() && toggle(other.trim())">
      <input
        v-model="other"
        class="field w-24! py-1"
        placeholder="nl"
        maxlength="20"
        aria-label="Code of another language"
      /><button class="btn py-1" :disabled="!other.trim()">Add</button>
    </form>
    <p v-if="chosen.length > 1" class="mt-1 text-note text-soft">
      {{ languageName(chosen[0]!) }} is read unless another is chosen.
    </p>
    <button
      v-if="chosen.length"
      type="button"
      class="btn mt-2 py-1"
      @click="emit('edit', removeFrom(store.quiz!, place.path, chosen))"
    >
      {{ control.none }}
    </button>
  </fieldset>
</template>
