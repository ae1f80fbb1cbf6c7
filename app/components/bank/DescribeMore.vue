<script setup lang="ts">
import { vocabularyRoutes } from '~/client/words'
import type { Question } from '~~/core/question'
import type { Vocabulary } from '~~/core/question/vocabulary'

/** Thinking levels, grade level and the school's own fields of a question. */
const { question } = defineProps<{ question: Question }>()
const emit = defineEmits<{ set: [values: Partial<Question>] }>()
const words = shallowRef<Vocabulary | null>(null)
onMounted(async () => {
  try {
    words.value = (await vocabularyRoutes.get()).words
  } catch {
    /* The question can be written without them. */
  }
})
const without = (record: Record<string, string>, key: string) =>
  Object.fromEntries(Object.entries(record).filter(([name]) => name !== key))
const changed = (record: Record<string, string>, key: string, value: string) =>
  value ? { ...record, [key]: value } : without(record, key)
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <div v-if="words" class="grid gap-4 sm:col-span-3 sm:grid-cols-3">
    <LabelledField v-for="scheme in words.schemes" :key="scheme.id" :label="scheme.name"
      ><select
        class="field py-1"
        :value="question.levels[scheme.id] ?? ''"
        @change="emit('set', { levels: changed(question.levels, scheme.id, valueOf($event)) })"
      >
        <option value="">not set</option>
        <option v-for="level in scheme.levels" :key="level.id" :value="level.id">{{ level.name }}</option>
      </select></LabelledField
    >
    <LabelledField label="Grade level"
      ><input
        class="field py-1"
        maxlength="40"
        list="grades"
        :value="question.grade"
        @input="emit('set', { grade: valueOf($event) })"
    /></LabelledField>
    <datalist id="grades"><option v-for="grade in words.grades" :key="grade" :value="grade" /></datalist>
    <LabelledField v-for="field in words.fields" :key="field.id" :label="field.name">
      <select
        v-if="field.values.length"
        class="field py-1"
        :value="question.fields[field.id] ?? ''"
        @change="emit('set', { fields: changed(question.fields, field.id, valueOf($event)) })"
      >
        <option value="">not set</option>
        <option v-for="value in field.values" :key="value" :value="value">{{ value }}</option>
      </select>
      <input
        v-else
        class="field py-1"
        maxlength="400"
        :value="question.fields[field.id] ?? ''"
        @input="emit('set', { fields: changed(question.fields, field.id, valueOf($event)) })"
      />
    </LabelledField>
  </div>
</template>
