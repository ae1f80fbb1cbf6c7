<script setup lang="ts">
import { GripVertical } from '@lucide/vue'
import type Sortable from 'sortablejs'
import { count, duration } from '~~/core/kit/phrases'
import type { Row, Section } from '~~/core/quiz'
import { pointsText } from '~~/core/kit/exact'
import { listTo, removeFrom, removeRow as removeRowEdit, setAt } from '~~/core/quiz/edits'
import { copySection, mergeUp, splitAt } from '~~/core/quiz/arrange'
import type { Edit } from '~~/core/quiz/edits'
import { pointsOf, rowSize } from '~~/core/quiz/walk'
import { pagesWords } from '~~/core/rules/content/pages'
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** One section of the running order. Rows are dragged within it and to others; every change is an edit. */
const { section, startsAt, selected, only, colleagues, objectives } = defineProps<{
  section: Section
  startsAt: number
  selected: string | null
  only: boolean
  /** Names of colleagues by the row they are on. */
  colleagues: ReadonlyMap<string, string>
  objectives: Objective[]
}>()
const emit = defineEmits<{
  select: [id: string]
  moveRow: [row: string, by: number]
  dropRow: [row: string, section: string, after: string | null]
  moveSection: [by: number]
}>()
const store = useQuiz()
const list = useTemplateRef<HTMLElement>('list')
const editing = ref(false)
const folded = ref(false)
const chosen = inject(chosenRows)!
const total = ref<number | null>(null)
let sortable: Sortable | undefined

/** The chosen row before which this section can be cut. */
const splitsAt = computed(() => section.rows.slice(1).find((row) => chosen.chosen.value.includes(row.id))?.id ?? null)
const size = computed(() => section.rows.reduce((total, row) => total + rowSize(row), 0))
const points = computed(() => pointsText(pointsOf(section.rows)))
const numbered = computed(() => {
  let next = startsAt
  return section.rows.map((row) => {
    const first = next
    next += rowSize(row)
    return { row, first, last: next - 1 }
  })
})

onMounted(() => {
  sortable = draggable(
    list.value!,
    ({ item, to, after }) => {
      emit('dropRow', item.dataset.row!, to.dataset.section!, (after as HTMLElement | null)?.dataset.row ?? null)
    },
    { group: 'rows', handle: '.drag-handle' },
  )
})
onBeforeUnmount(() => sortable?.destroy())

function setSection(name: 'title' | 'intro' | 'order', value: string) {
  store.make(setAt(store.quiz!, ['sections', section.id, name], value))
}
const pagesWays = computed(() => ({
  quiz: `as the quiz says: ${pagesWords(store.quiz!.content.pages)}`,
  section: 'on a page of its own',
  count: 'some to a page',
  breaks: 'parted by page breaks',
}))
const pagesChosen = computed(() => section.pages?.by ?? 'quiz')
function setPages(by: string, each = 3) {
  store.make(
    setAt(
      store.quiz!,
      ['sections', section.id, 'pages'],
      by === 'quiz' ? null : by === 'count' ? { by, count: each } : { by },
    ),
  )
}
function setLimit(typed: string) {
  store.make(setAt(store.quiz!, ['sections', section.id, 'limit'], typed === '' ? null : Number(typed)))
}
function setObjectives(chosen: string[]) {
  store.make(listTo(store.quiz!, ['sections', section.id, 'objectives'], chosen))
}
function removeRow(row: Row) {
  store.make(removeRowEdit(store.quiz!, row.id))
  announce('Taken out of the quiz.', store.undo)
}
function arrange(edit: Edit | null, said: string) {
  if (!edit) return
  store.make(edit)
  announce(said, store.undo)
}
function removeSection() {
  store.make(removeFrom(store.quiz!, ['sections'], [section.id]))
  announce(`“${section.title}” is taken out, with its rows.`, store.undo)
}
</script>

<template>
  <section class="mb-7" :data-section-id="section.id" :aria-label="`Section ${section.title}`">
    <div class="group flex flex-wrap items-baseline gap-x-3 border-b border-ink pb-1.5">
      <button
        v-if="!only"
        type="button"
        class="section-handle -mr-1 cursor-grab self-center rounded p-0.5 text-soft opacity-40 focus-visible:opacity-100 group-hover:opacity-100"
        :aria-label="`Move the section “${section.title}” with Alt and the arrow keys, or drag it`"
        aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
        @keydown.alt.up.prevent="emit('moveSection', -1)"
        @keydown.alt.down.prevent="emit('moveSection', 1)"
      >
        <GripVertical :size="16" aria-hidden="true" />
      </button>
      <h2 class="min-w-0 text-lg [overflow-wrap:anywhere]">
        <button
          :aria-expanded="!folded"
          class="text-left"
          :title="folded ? 'Unfold' : 'Fold'"
          @click="folded = !folded"
        >
          {{ section.title }}<span v-if="folded" class="text-soft"> …</span>
        </button>
      </h2>
      <button
        class="text-small text-soft underline decoration-rule underline-offset-2 hover:decoration-current"
        :title="section.order === 'kept' ? 'Shuffle this section' : 'Keep the order'"
        @click="setSection('order', section.order === 'kept' ? 'shuffled' : 'kept')"
      >
        {{ section.order === 'kept' ? 'order kept' : 'shuffled' }}
      </button>
      <span v-if="section.pages" class="text-small text-soft">{{ pagesWords(section.pages) }}</span>
      <span v-if="section.limit !== null" class="text-small text-soft"
        >{{ duration(section.limit) }}, its own clock</span
      >
      <button
        class="text-small text-soft underline decoration-rule underline-offset-2 hover:decoration-current"
        :aria-expanded="editing"
        @click="editing = !editing"
      >
        edit section
      </button>
      <span class="ml-auto text-small text-soft">{{ count(size, 'question') }} · {{ points }} pts</span>
    </div>
    <div v-if="editing" class="space-y-3 border-b border-rule bg-sheet p-4">
      <LabelledField label="Title"
        ><input
          class="field py-1"
          maxlength="160"
          :value="section.title"
          @change="setSection('title', ($event.target as HTMLInputElement).value)"
      /></LabelledField>
      <div>
        <span class="label">Introduction</span
        ><KeptText
          slim
          label="Introduction to the section"
          :model-value="section.intro"
          @keep="setSection('intro', $event)"
        />
      </div>
      <div class="flex flex-wrap gap-x-6 gap-y-3">
        <LabelledField label="Pages"
          ><select
            class="field py-1"
            :value="pagesChosen"
            @change="setPages(($event.target as HTMLSelectElement).value)"
          >
            <option v-for="(words, value) in pagesWays" :key="value" :value="value">{{ words }}</option>
          </select></LabelledField
        >
        <LabelledField v-if="section.pages?.by === 'count'" label="Questions to a page"
          ><input
            class="field block w-24! py-1"
            type="number"
            min="1"
            max="50"
            :value="section.pages.count"
            @change="setPages('count', Number(($event.target as HTMLInputElement).value))"
        /></LabelledField>
        <LabelledField label="A clock of its own, minutes"
          ><input
            class="field block w-32! py-1"
            type="number"
            min="1"
            max="1440"
            step="0.5"
            placeholder="none"
            :value="section.limit ?? ''"
            @change="setLimit(($event.target as HTMLInputElement).value)"
        /></LabelledField>
        <ObjectivePicker
          class="min-w-60"
          :chosen="section.objectives"
          :objectives="objectives"
          @update:chosen="setObjectives"
        />
      </div>
      <div class="flex flex-wrap gap-2">
        <button class="btn" @click="emit('moveSection', -1)">Move section up</button
        ><button class="btn" @click="emit('moveSection', 1)">Move section down</button>
        <button
          class="btn"
          @click="arrange(copySection(store.quiz!, section.id, newRowId), 'The section is there twice.')"
        >
          Copy
        </button>
        <button
          class="btn"
          :disabled="!mergeUp(store.quiz!, section.id)"
          @click="arrange(mergeUp(store.quiz!, section.id), 'Two sections are one now.')"
        >
          Join to the one above
        </button>
        <button
          class="btn"
          :disabled="!splitsAt"
          title="Choose a row: the section is cut before it"
          @click="splitsAt && arrange(splitAt(store.quiz!, splitsAt, newRowId), 'The section is cut in two.')"
        >
          Cut before the chosen row
        </button>
        <button class="btn" :disabled="only" @click="removeSection">Take out the section</button>
        <form
          class="flex items-center gap-1"
          @submit.prevent="
            total !== null &&
            chosen.spread(
              total,
              section.rows.map((row) => row.id),
            )
          "
        >
          <input
            v-model.number="total"
            class="field w-20! py-1"
            type="number"
            min="0"
            step="0.5"
            placeholder="points"
            aria-label="Points in all, spread over the section"
          /><button class="btn">Spread points in all</button>
        </form>
      </div>
    </div>
    <ul v-show="!folded" ref="list" :data-section="section.id" class="min-h-8">
      <RunningOrderRow
        v-for="{ row, first, last } in numbered"
        :key="row.id"
        v-memo="[row, first, last, selected === row.id, colleagues.get(row.id), section.order]"
        :row="row"
        :first="first"
        :last="last"
        :selected="selected === row.id"
        :colleague="colleagues.get(row.id) ?? ''"
        :shuffled="section.order === 'shuffled'"
        @select="emit('select', row.id)"
        @move="emit('moveRow', row.id, $event)"
        @remove="removeRow(row)"
      />
    </ul>
    <p v-if="!section.rows.length" class="py-3 text-soft">
      No question yet. Choose some in the finder, then press “Add”, or drag a row here.
    </p>
  </section>
</template>
