<script setup lang="ts">
import { studentRoutes } from '~/client/students'
import { readOwnValue, type OwnField } from '~~/core/people'

/** What the school keeps of a student in fields of its own; what is typed wrong is said beside it. */
const { student, fields, values } = defineProps<{
  student: string
  fields: OwnField[]
  values: Record<string, string>
}>()
const emit = defineEmits<{ kept: [Record<string, string>] }>()
const { problem, busy, act } = useAct()
const draft = reactive<Record<string, string>>({})
watch(
  () => values,
  () => {
    for (const { id } of fields) draft[id] = values[id] ?? ''
  },
  { immediate: true },
)
const faults = computed(() =>
  Object.fromEntries(
    fields.flatMap((field) => {
      const read = readOwnValue(field, draft[field.id] ?? '')
      return 'fault' in read ? [[field.id, read.fault]] : []
    }),
  ),
)
const changed = computed(() => fields.filter(({ id }) => (draft[id] ?? '') !== (values[id] ?? '')))
async function keep() {
  const body = Object.fromEntries(changed.value.map(({ id }) => [id, draft[id] ?? '']))
  const kept = await act(() => studentRoutes.keepFields({ id: student, body }), 'Kept.')
  if (kept) emit('kept', kept)
}
</script>

<template>
  <form class="mt-3 space-y-3" @submit.prevent="keep">
    <div class="grid gap-x-4 gap-y-3 sm:grid-cols-2">
      <LabelledField v-for="field in fields" :key="field.id" :label="field.name">
        <select v-if="field.sort === 'choice'" v-model="draft[field.id]" class="field">
          <option value="">not known</option>
          <option v-for="choice in field.choices" :key="choice">{{ choice }}</option>
        </select>
        <input
          v-else
          v-model="draft[field.id]"
          class="field"
          :type="field.sort === 'day' ? 'date' : 'text'"
          :inputmode="field.sort === 'number' ? 'decimal' : undefined"
          maxlength="200"
          :aria-invalid="faults[field.id] !== undefined"
        />
        <span v-if="faults[field.id]" class="block text-label text-red" role="alert">{{ faults[field.id] }}</span>
      </LabelledField>
    </div>
    <ProblemNote :words="problem" />
    <button class="btn" :disabled="busy || !changed.length || Object.keys(faults).length > 0">Keep</button>
  </form>
</template>
