<script setup lang="ts">
import { pointsText, type Fraction } from '~~/core/kit/exact'
import { mostOf, type CreditBounds } from '~~/core/question/kinds/credits'

/** What each box of a matching, a sorting or a grid adds, and within what bounds. */
export interface CreditRow {
  id: string
  words: string
  credits: Record<string, number>
  right: readonly string[]
}
const { rows, columns, rules, all } = defineProps<{
  rows: readonly CreditRow[]
  columns: readonly { id: string; words: string }[]
  rules: CreditBounds & { wrongCost: number }
  /** What right boxes add together. */
  all: Fraction
  /** "pair", "tick" */
  thing: string
}>()
const emit = defineEmits<{
  rules: [Partial<CreditBounds & { wrongCost: number }>]
  credits: [row: string, credits: Record<string, number>]
}>()
const typed = (event: Event) => (event.target as HTMLInputElement).value
function set(row: CreditRow, column: string, event: Event) {
  const { [column]: _before, ...others } = row.credits
  emit('credits', row.id, typed(event) === '' ? others : { ...others, [column]: Number(typed(event)) })
}
const worth = computed(() => mostOf(rules, all))
</script>

<template>
  <fieldset class="w-full">
    <legend class="small-head mb-2">What each {{ thing }} adds</legend>
    <div
      class="max-w-full overflow-x-auto"
      tabindex="0"
      role="group"
      :aria-label="`What each ${thing} adds, as a table`"
    >
      <table class="border-collapse text-label">
        <thead>
          <tr>
            <td class="sticky left-0 bg-paper" />
            <th
              v-for="column in columns"
              :key="column.id"
              scope="col"
              class="max-w-36 min-w-20 px-2 pb-1 text-left align-bottom font-semibold"
            >
              <span class="line-clamp-3">{{ column.words }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" class="border-t border-rule">
            <th scope="row" class="sticky left-0 max-w-44 min-w-24 bg-paper py-1 pr-3 text-left font-semibold">
              <span class="line-clamp-3">{{ row.words }}</span>
            </th>
            <td v-for="column in columns" :key="column.id" class="px-1 py-1">
              <input
                type="number"
                min="-10"
                max="10"
                step="any"
                class="field w-18! px-1.5 py-0.5"
                :class="row.right.includes(column.id) && 'border-green! font-semibold text-green'"
                :aria-label="`${row.words} – ${column.words}${row.right.includes(column.id) ? ' (right)' : ''} adds`"
                :value="row.credits[column.id] ?? ''"
                :placeholder="rules.wrongCost ? `−${rules.wrongCost}` : '0'"
                @change="set(row, column.id, $event)"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="mt-3 flex flex-wrap items-end gap-4">
      <label class="text-note text-soft"
        >an empty box takes away<input
          class="field block w-20! py-1"
          type="number"
          min="0"
          max="10"
          step="any"
          :value="rules.wrongCost"
          @change="emit('rules', { wrongCost: Math.max(0, Number(typed($event))) })"
      /></label>
      <span class="pb-1.5 text-note text-soft">All of it together stays</span>
      <BoundsFields :bounds="rules" @change="emit('rules', $event)" />
    </div>
    <p class="mt-2 text-note text-soft">
      Right ones add {{ pointsText(all) }} together; {{ pointsText(worth) }} is worth all of the points.
    </p>
  </fieldset>
</template>
