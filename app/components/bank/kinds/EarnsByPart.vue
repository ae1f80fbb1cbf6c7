<script setup lang="ts" generic="R extends string">
import type { Fraction } from '~~/core/kit/exact'
import type { CreditBounds } from '~~/core/question/kinds/credits'
import type { CreditRow } from './CreditTable.vue'

/** What the pairs of a matching or a sorting, or the ticks of a grid, earn: the rule, and what it asks for beside. */
defineProps<{
  /** "pair", "tick" */
  thing: string
  body: CreditBounds & { rule: R; wrongCost: number }
  rules: readonly (readonly [rule: R, words: string])[]
  rows: readonly CreditRow[]
  columns: readonly { id: string; words: string }[]
  /** What right boxes add together. */
  all: Fraction
}>()
const emit = defineEmits<{
  rule: [R]
  set: [Partial<CreditBounds & { wrongCost: number }>]
  credits: [row: string, credits: Record<string, number>]
}>()
</script>

<template>
  <div class="flex flex-wrap gap-4">
    <EarnsSelect :rule="body.rule" :rules="rules" @update:rule="emit('rule', $event)" />
    <WrongCostSelect
      v-if="body.rule === 'share'"
      :thing="thing"
      :cost="body.wrongCost"
      @update:cost="emit('set', { wrongCost: $event })"
    />
    <CreditTable
      v-if="body.rule === 'credits'"
      :thing="thing"
      :rows="rows"
      :columns="columns"
      :rules="body"
      :all="all"
      @rules="emit('set', $event)"
      @credits="(row, credits) => emit('credits', row, credits)"
    />
  </div>
</template>
