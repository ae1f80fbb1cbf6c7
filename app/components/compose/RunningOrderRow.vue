<script setup lang="ts">
import { GripVertical } from '@lucide/vue'
import { roughTime } from '~~/core/kit/phrases'
import { kindLabels } from '~~/core/question/kinds'
import { plainText } from '~~/core/question/allowed-html'
import type { Row } from '~~/core/quiz'
import { gives, rowPoints } from '~~/core/quiz/walk'

/** One row of the running order: a question, a pool, a stimulus group or a text. Opens in place; moves by drag and by keyboard. */
const {
  row,
  first,
  last,
  selected,
  shuffled,
  colleague = '',
} = defineProps<{
  row: Row
  first: number
  last: number
  selected: boolean
  shuffled: boolean
  /** Who else is on this row. */
  colleague?: string
}>()
const emit = defineEmits<{ select: []; move: [by: number]; remove: [] }>()
const store = useQuiz()
const heldBy = useHeld()
const rows = inject(chosenRows)!
const open = ref(false)
const isChosen = computed(() => rows.chosen.value.includes(row.id))

const numbers = computed(() => (!gives(row) ? '' : first === last ? String(first) : `${first}–${last}`))
const hit = computed(() => (row.type === 'question' ? store.facts.get(row.question) : undefined))
/** What it holds: by its list, or by its condition as things are now. */
const held = computed(() => (row.type === 'question' ? [] : heldBy(row)))
const members = computed(() => held.value.map((id) => ({ id, hit: store.facts.get(id) })))
const difficulty = computed(() => {
  const levels = members.value.flatMap((each) => each.hit?.difficulty ?? [])
  if (!levels.length) return ''
  const [low, high] = [Math.min(...levels), Math.max(...levels)]
  return low === high ? `difficulty ${low}` : `difficulty ${low}–${high}`
})
const dots = computed(() =>
  row.type === 'pool'
    ? {
        drawn: Math.min(row.draw, 20),
        rest: Math.max(0, Math.min(held.value.length, 24) - Math.min(row.draw, 20)),
        more: Math.max(0, held.value.length - 24),
      }
    : null,
)
const title = computed(() =>
  row.type === 'question'
    ? (hit.value?.title ?? 'A question that is no longer in the bank')
    : row.type === 'pool'
      ? `Draw ${row.draw} of ${row.condition ? 'the ' : ''}${held.value.length}${row.condition ? ' found' : ''}${row.title ? ` · ${row.title}` : ''}`
      : row.type === 'stimulus'
        ? `${row.draw < row.questions.length ? `${row.draw} of ${row.questions.length}` : `All ${row.questions.length}`} on “${store.stimuli.get(row.stimulus) ?? 'a stimulus that is gone'}”`
        : row.type === 'break'
          ? 'Page break'
          : plainText(row.html) || 'An empty text',
)
const isGroup = computed(() => row.type === 'pool' || row.type === 'stimulus')

/** What differs from the rest, said on its line. */
const marks = computed(() =>
  gives(row)
    ? [
        ...(shuffled && row.fixed ? ['keeps its place'] : []),
        ...(row.required ? ['has to be answered'] : []),
        ...(row.options === 'quiz' ? [] : [row.options === 'kept' ? 'options in order' : 'options shuffled']),
        ...(row.type === 'question' && row.version !== null ? [`stays at version ${row.version}`] : []),
      ]
    : [],
)

function keys(event: KeyboardEvent) {
  if (event.target !== event.currentTarget) return
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault()
    emit('move', event.key === 'ArrowUp' ? -1 : 1)
  }
  if (event.key === 'x' || event.key === 'X') {
    event.preventDefault()
    rows.toggle(row.id, event.shiftKey)
  }
  if (event.key === 'Delete') {
    event.preventDefault()
    emit('remove')
  }
}
</script>

<template>
  <li
    :data-row="row.id"
    tabindex="0"
    class="group border-b border-rule [contain-intrinsic-size:auto_3.25rem] [content-visibility:auto]"
    :class="[isGroup && 'bg-petrol-tint', selected && 'shadow-[inset_3px_0_0_var(--bloom)]']"
    :aria-label="`${numbers ? `Row ${numbers}: ` : ''}${title}`"
    aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown Delete X"
    @focus="emit('select')"
    @click="emit('select')"
    @keydown="keys"
  >
    <div
      class="grid grid-cols-[1rem_1rem_2.2rem_1fr_2.4rem] sm:grid-cols-[1rem_1rem_2.5rem_1fr_auto_2.4rem] items-baseline gap-x-2 py-1.5"
    >
      <span class="drag-handle cursor-grab self-center text-soft/40 group-hover:text-soft" aria-hidden="true"
        ><GripVertical :size="16"
      /></span>
      <input
        type="checkbox"
        class="size-4 self-center accent-petrol"
        :checked="isChosen"
        :aria-label="`Choose row ${numbers || title}`"
        @click.stop="rows.toggle(row.id, $event.shiftKey)"
      />
      <span class="text-right text-small text-soft">{{ numbers }}</span>
      <button class="min-w-0 text-left" :aria-expanded="open" @click="open = !open">
        <span
          class="line-clamp-2"
          :class="
            isGroup
              ? 'font-semibold text-petrol'
              : row.type === 'break'
                ? 'border-b border-dashed border-soft text-note text-soft'
                : 'font-serif text-reading leading-snug'
          "
          >{{ title }}</span
        >
        <span v-if="colleague" class="block text-note font-semibold text-bloom">{{ colleague }} is here</span>
        <span v-if="dots" class="block text-fine tracking-[0.2em] text-petrol" aria-hidden="true"
          >{{ '●'.repeat(dots.drawn) }}{{ '○'.repeat(dots.rest)
          }}<template v-if="dots.more"> +{{ dots.more }}</template></span
        >
      </button>
      <span class="col-start-4 row-start-2 text-note text-soft sm:col-auto sm:row-auto sm:text-right">
        <template v-if="row.type === 'question' && hit"
          >{{ kindLabels[hit.kind] }} · {{ roughTime(hit.seconds) }}</template
        >
        <template v-else-if="row.type === 'pool' || row.type === 'stimulus'"
          >each {{ row.points }} {{ row.points === 1 ? 'pt' : 'pts' }}<br /><template
            v-if="row.type === 'pool' && row.spread !== 'none'"
            >spread · </template
          >{{ difficulty }}</template
        >
        <template v-else-if="row.type === 'text'">text</template>
        <span v-if="marks.length" class="block">{{ marks.join(' · ') }}</span>
      </span>
      <span class="pr-1 text-right font-semibold">{{ gives(row) ? rowPoints(row) : '' }}</span>
    </div>
    <RowInside v-if="open" :row="row" :shuffled="shuffled" @move="emit('move', $event)" @remove="emit('remove')" />
  </li>
</template>
