<script setup lang="ts">
import type { Blueprint, Cell, Count, Sort } from '~~/core/blueprint'
import type { KindName } from '~~/core/question'
import { kindLabels } from '~~/core/question/kinds'
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import { anything, heldOf, type Asked } from '~/composables/blueprint'

/** How many questions of each objective and kind: a row an objective, a column a kind, and what the bank holds of each. */
const { blueprint, objectives, sorts, lacking } = defineProps<{
  blueprint: Blueprint
  objectives: readonly Objective[]
  sorts: readonly Sort[]
  lacking: ReadonlyMap<string, number>
}>()
const emit = defineEmits<{ line: [asked: Asked, count: Count | null]; essential: [objectives: string[]] }>()

const inMatrix = computed(() => blueprint.cells.filter((cell) => cell.difficulty === null && cell.level === null))
const addedRows = ref<(string | null)[]>([])
const addedColumns = ref<KindName[]>([])
const rows = computed(() => {
  const all = [...new Set([...inMatrix.value.map((cell) => cell.objective), ...addedRows.value])]
  const place = (id: string | null) => (id === null ? Infinity : objectives.findIndex((each) => each.id === id))
  const found = all.sort((a, b) => place(a) - place(b))
  return found.length ? found : [null]
})
const columns = computed<(KindName | null)[]>(() => {
  const all = new Set([...inMatrix.value.flatMap((cell) => cell.kind ?? []), ...addedColumns.value])
  return [...(Object.keys(kindLabels) as KindName[]).filter((kind) => all.has(kind)), null]
})
const nameOf = (id: string | null) => {
  if (id === null) return 'any objective'
  const found = objectives.find((each) => each.id === id)
  return found ? `${found.code} ${found.title}` : 'an objective that is gone'
}
const askedOf = (objective: string | null, kind: KindName | null): Asked => ({ ...anything, objective, kind })
const cellOf = (objective: string | null, kind: KindName | null): Cell | undefined =>
  inMatrix.value.find((cell) => cell.objective === objective && cell.kind === kind)
const label = (objective: string | null, kind: KindName | null) =>
  `${nameOf(objective)}, ${kind ? kindLabels[kind] : 'any kind'}`
const leftObjectives = computed(() =>
  objectives
    .filter(({ id }) => !rows.value.includes(id))
    .map(({ id, code, title }) => ({ value: id, label: `${code} ${title}` })),
)
const leftKinds = computed(() =>
  (Object.keys(kindLabels) as KindName[])
    .filter((kind) => !columns.value.includes(kind))
    .map((kind) => ({ value: kind, label: kindLabels[kind] })),
)
function takeOut(objective: string | null) {
  addedRows.value = addedRows.value.filter((each) => each !== objective)
  for (const kind of columns.value) emit('line', askedOf(objective, kind), null)
}
function toggleEssential(objective: string) {
  const { essential } = blueprint
  emit(
    'essential',
    essential.includes(objective) ? essential.filter((each) => each !== objective) : [...essential, objective],
  )
}
</script>

<template>
  <div>
    <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="What the paper must hold">
      <table class="w-full">
        <thead>
          <tr class="border-b border-rule text-left text-small text-soft">
            <th class="min-w-40 py-1 font-semibold">Objective</th>
            <th v-for="kind in columns" :key="kind ?? ''" class="px-2 text-right align-bottom font-semibold">
              {{ kind ? kindLabels[kind] : 'any kind' }}
            </th>
            <th><span class="sr-only">Take out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="objective in rows" :key="objective ?? ''" class="border-b border-rule align-baseline">
            <th scope="row" class="py-1.5 pr-2 text-left font-normal">
              {{ nameOf(objective) }}
              <button
                v-if="objective"
                type="button"
                class="ml-1 text-note underline decoration-rule underline-offset-2"
                :class="blueprint.essential.includes(objective) ? 'font-semibold text-petrol' : 'text-soft'"
                :aria-pressed="blueprint.essential.includes(objective)"
                @click="toggleEssential(objective)"
              >
                essential
              </button>
            </th>
            <td v-for="kind in columns" :key="kind ?? ''" class="px-2 py-1 text-right">
              <CountField
                :count="cellOf(objective, kind)?.count ?? null"
                :holds="heldOf(askedOf(objective, kind), sorts)"
                :label="label(objective, kind)"
                :lacks="lacking.get(cellOf(objective, kind)?.id ?? '') ?? 0"
                @set="emit('line', askedOf(objective, kind), $event)"
              />
            </td>
            <td class="pl-1 text-right">
              <button
                v-if="rows.length > 1"
                type="button"
                class="btn btn-quiet px-2 py-0"
                :aria-label="`Take out the row ${nameOf(objective)}`"
                @click="takeOut(objective)"
              >
                ×
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="mt-2 flex flex-wrap gap-2">
      <PickMenu words="Add an objective" :options="leftObjectives" @pick="addedRows = [...addedRows, $event]" />
      <PickMenu words="Add a kind" :options="leftKinds" @pick="addedColumns = [...addedColumns, $event]" />
      <button v-if="!rows.includes(null)" type="button" class="btn py-1" @click="addedRows = [...addedRows, null]">
        Add “any objective”
      </button>
    </div>
  </div>
</template>
