<script setup lang="ts">
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** Objectives of a question; the first is the main one. */
const {
  chosen,
  objectives,
  recent = [],
} = defineProps<{ chosen: string[]; objectives: Objective[]; /** Offered first. */ recent?: string[] }>()
const emit = defineEmits<{ 'update:chosen': [string[]] }>()
/** Those not chosen yet, with those used just now first. */
const offered = computed(() => {
  const left = objectives.filter((objective) => !chosen.includes(objective.id))
  const place = (id: string) => (recent.includes(id) ? recent.indexOf(id) : recent.length)
  return [...left]
    .sort((a, b) => place(a.id) - place(b.id))
    .map(({ id, code, title, essential }) => ({
      value: id,
      label: `${code} ${title}${essential ? ' (essential)' : ''}`,
    }))
})
const nameOf = (id: string) => {
  const found = objectives.find((objective) => objective.id === id)
  return found ? `${found.code} ${found.title}` : '…'
}
</script>

<template>
  <div>
    <p class="label">Objectives</p>
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
    <PickMenu words="Add an objective" :options="offered" @pick="emit('update:chosen', [...chosen, $event])" />
  </div>
</template>
