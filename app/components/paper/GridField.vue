<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { plainText } from '~~/core/question/allowed-html'
import type { SealedBody } from '~~/core/question/kinds/sealed'

/** Rows with boxes to tick: a table where its words have room, row after row where they have not. */
const { body, ticks, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'grid' }>
  ticks: Record<string, string[]>
  name: string
  labelledby: string
  readonly: boolean
}>()
const emit = defineEmits<{ tick: [ticks: Record<string, string[]>] }>()
const words = (html: string) => plainText(html) || 'a picture'
/** What the head of the table takes at least, in rem: the row's words, and the longest word of each column, unbroken. */
const needed = computed(() => {
  const longest = (html: string) =>
    Math.max(
      ...words(html)
        .split(/\s+/)
        .map((word) => word.length),
    )
  return body.columns.reduce((sum, { html }) => sum + Math.max(4, 1 + 0.65 * longest(html)), 10)
})
const whole = useTemplateRef<HTMLElement>('whole')
const { width } = useElementSize(whole)
/** One of the two stands on the page, never both: nobody finds a box twice. Whoever reads large text has less room. */
const wide = computed(
  () =>
    width.value > 0 && width.value >= needed.value * parseFloat(getComputedStyle(document.documentElement).fontSize),
)
const isTicked = (row: string, column: string) => ticks[row]?.includes(column) ?? false

function toggle(row: string, column: string) {
  const before = ticks[row] ?? []
  const next = isTicked(row, column) ? before.filter((each) => each !== column) : [...before, column]
  const rest = Object.entries(ticks).filter(([each]) => each !== row)
  emit('tick', Object.fromEntries(next.length ? [...rest, [row, next]] : rest))
}
</script>

<template>
  <div ref="whole" role="group" :aria-labelledby="labelledby">
    <p v-if="!readonly" class="mb-2 text-label text-soft">Tick all that apply in each row.</p>
    <table v-if="wide" class="w-full border-collapse text-lg">
      <thead>
        <tr class="border-b border-ink">
          <td class="py-1.5" />
          <th
            v-for="column in body.columns"
            :key="column.id"
            scope="col"
            class="min-w-16 px-2 py-1.5 text-center font-semibold wrap-normal! [&_*]:wrap-normal!"
          >
            <WrittenText :html="column.html" />
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in body.rows" :key="row.id" class="border-b border-rule">
          <th scope="row" class="py-2 pr-3 text-left font-normal"><WrittenText :html="row.html" /></th>
          <td v-for="column in body.columns" :key="column.id" class="p-0 text-center">
            <label
              class="grid min-h-11 place-items-center"
              :class="[isTicked(row.id, column.id) && 'bg-petrol-tint', !readonly && 'cursor-pointer']"
            >
              <input
                type="checkbox"
                class="size-5 accent-petrol"
                :name="`${name}-${row.id}`"
                :checked="isTicked(row.id, column.id)"
                :disabled="readonly"
                :aria-label="`${words(row.html)}: ${words(column.html)}`"
                @change="toggle(row.id, column.id)"
              />
            </label>
          </td>
        </tr>
      </tbody>
    </table>
    <fieldset v-for="row in wide ? [] : body.rows" :key="row.id" class="mb-3 border-b border-rule pb-2">
      <legend class="mb-1 text-lg"><WrittenText :html="row.html" /></legend>
      <label
        v-for="column in body.columns"
        :key="column.id"
        class="flex min-h-11 items-center gap-3 px-1"
        :class="isTicked(row.id, column.id) && 'bg-petrol-tint'"
      >
        <input
          type="checkbox"
          class="size-5 shrink-0 accent-petrol"
          :checked="isTicked(row.id, column.id)"
          :disabled="readonly"
          @change="toggle(row.id, column.id)"
        />
        <WrittenText :html="column.html" />
      </label>
    </fieldset>
  </div>
</template>
