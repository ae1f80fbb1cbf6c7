<script setup lang="ts">
import type { Objective } from '~~/server/domain/bank/objectives'

/** Objectives of a question; the first is the main one. */
const {
  chosen,
  objectives,
  recent = [],
} = defineProps<{ chosen: string[]; objectives: Objective[]; /** Offered first. */ recent?: string[] }>()
const emit = defineEmits<{ 'update:chosen': [string[]] }>()
const left = computed(() => objectives.filter((objective) => !chosen.includes(objective.id)))
const first = computed(() => recent.flatMap((id) => left.value.find((objective) => objective.id === id) ?? []))
const nameOf = (id: string) => {
  const found = objectives.find((objective) => objective.id === id)
  return found ? `${found.code} ${found.title}` : '…'
}
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value) emit('update:chosen', [...chosen, select.value])
  select.value = ''
}
</script>

<template>
  <div>
    <label class="label" for="objective">Objectives</label>
    <ul v-if="chosen.length" class="mb-1.5 flex flex-wrap gap-1.5">
      <li v-for="(id, index) in chosen" :key="id" class="tag">
        {{ nameOf(id) }}<span v-if="index === 0 && chosen.length > 1" class="text-soft">main</span>
        <button
          type="button"
          :aria-label="`Take out ${nameOf(id)}`"
          @click="
            emit(
              'update:chosen',
              chosen.filter((each) => each !== id),
            )
          "
        >
          ×
        </button>
      </li>
    </ul>
    <select id="objective" class="field py-1" @change="add">
      <option value="">Add an objective …</option>
      <optgroup v-if="first.length" label="Used just now">
        <option v-for="objective in first" :key="objective.id" :value="objective.id">
          {{ objective.code }} {{ objective.title }}
        </option>
      </optgroup>
      <option v-for="objective in left" :key="objective.id" :value="objective.id">
        {{ objective.code }} {{ objective.title }}{{ objective.essential ? ' (essential)' : '' }}
      </option>
    </select>
  </div>
</template>
