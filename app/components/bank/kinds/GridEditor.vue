<script setup lang="ts">
import type { KindName } from '~~/core/question'
import { plainText } from '~~/core/question/allowed-html'
import { creditsKept } from '~~/core/question/kinds/credits'
import { allTicks, byCredits, type GridBody } from '~~/core/question/kinds/grid'
import type { CreditRow } from './CreditTable.vue'

/** Rows, columns, and the boxes that are right. */
const { body } = defineProps<{ kind?: KindName; body: GridBody }>()
const emit = defineEmits<{ 'update:body': [GridBody] }>()
type Row = GridBody['rows'][number]
const set = (values: Partial<GridBody>) => emit('update:body', { ...body, ...values })
const setRow = (id: string, values: Partial<Row>) =>
  set({ rows: body.rows.map((row) => (row.id === id ? { ...row, ...values } : row)) })
const setCredits = (id: string, credits: Record<string, number>) => setRow(id, { credits })
const words = (html: string, index: number) => plainText(html).slice(0, 30) || `Column ${index + 1}`
/** A tick that becomes right adds one; one that is wrong again costs as every wrong one. */
function toggle(row: Row, column: string) {
  const { right, credits } = creditsKept(row, (each) => each !== column)
  if (right.includes(column)) setRow(row.id, { right: right.filter((each) => each !== column), credits })
  else
    setRow(row.id, {
      right: [...right, column],
      credits: body.rule === 'credits' ? { ...credits, [column]: 1 } : credits,
    })
}
/** A column that is taken out takes its ticks along. */
function setColumns(columns: GridBody['columns']) {
  const isThere = (column: string) => columns.some(({ id }) => id === column)
  set({
    columns,
    rows: body.rows.map((row) => ({ ...creditsKept(row, isThere), right: row.right.filter(isThere) })),
  })
}
const setRule = (rule: GridBody['rule']) => set(rule === 'credits' ? byCredits(body) : { rule })
const creditRows = computed<CreditRow[]>(() =>
  body.rows.map(({ id, html, credits = {}, right }, i) => ({
    id,
    words: plainText(html) || `Row ${i + 1}`,
    credits,
    right,
  })),
)
const columns = computed(() => body.columns.map(({ id, html }, i) => ({ id, words: words(html, i) })))
const rules = [
  ['share', 'a share for every tick that is right'],
  ['rows', 'a share for every row that is right as a whole'],
  ['all', 'everything when all rows are right, else nothing'],
  ['credits', 'what each of its ticks adds'],
] as const
</script>

<template>
  <div class="space-y-5">
    <fieldset>
      <legend class="small-head mb-2">Columns</legend>
      <EntryList
        :entries="body.columns"
        name="Column"
        :most="12"
        :make="(id) => ({ id, html: '' })"
        @change="setColumns"
      />
    </fieldset>
    <fieldset>
      <legend class="small-head mb-2">Rows, with the boxes that are right</legend>
      <EntryList
        v-slot="{ entry, index }"
        :entries="body.rows"
        name="Row"
        :most="40"
        :make="(id) => ({ id, html: '', comment: '', right: [] })"
        @change="set({ rows: $event })"
      >
        <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <TickBox
            v-for="(column, at) in body.columns"
            :key="column.id"
            :model-value="entry.right.includes(column.id)"
            @update:model-value="toggle(entry, column.id)"
            >{{ words(column.html, at) }}</TickBox
          >
          <CommentField
            class="min-w-40 grow"
            :label="`Comment when row ${index + 1} is ticked wrongly`"
            words="comment for who ticks it wrongly"
            :model-value="entry.comment"
            @update:model-value="setRow(entry.id, { comment: $event })"
          />
        </div>
      </EntryList>
      <TickBox class="mt-2 text-label" :model-value="body.inOrder" @update:model-value="set({ inOrder: !body.inOrder })"
        >rows keep this order on every paper</TickBox
      >
    </fieldset>
    <EarnsByPart
      thing="tick"
      :body="body"
      :rules="rules"
      :rows="creditRows"
      :columns="columns"
      :all="allTicks(body)"
      @rule="setRule"
      @set="set"
      @credits="setCredits"
    />
    <p v-if="body.rule === 'share' && body.wrongCost === 0" class="note-look">
      Wrong ticks take nothing away: whoever ticks everything earns everything.
    </p>
  </div>
</template>
