<script setup lang="ts">
import { GripVertical } from '@lucide/vue'
import { roughTime } from '~~/core/kit/phrases'
import { kindLabels } from '~~/core/question/kinds'
import { plainText } from '~~/core/question/allowed-html'
import type { Row } from '~~/core/quiz'
import { without } from '~~/core/quiz/check/rows'
import { setAt } from '~~/core/quiz/edits'
import { rowPoints } from '~~/core/quiz/walk'

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
const rows = inject(chosenRows)!
const open = ref(false)
const sampling = ref(false)
const isChosen = computed(() => rows.chosen.value.includes(row.id))
const spreadWords = {
  none: 'drawn from all alike',
  objectives: 'spread over objectives',
  difficulty: 'spread over difficulty',
  both: 'spread over objectives and difficulty',
}

const numbers = computed(() => (row.type === 'text' ? '' : first === last ? String(first) : `${first}–${last}`))
const hit = computed(() => (row.type === 'question' ? store.facts.get(row.question) : undefined))
const members = computed(() =>
  row.type === 'pool' || row.type === 'stimulus' ? row.questions.map((id) => ({ id, hit: store.facts.get(id) })) : [],
)
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
        rest: Math.max(0, Math.min(row.questions.length, 24) - Math.min(row.draw, 20)),
        more: Math.max(0, row.questions.length - 24),
      }
    : null,
)
const title = computed(() =>
  row.type === 'question'
    ? (hit.value?.title ?? 'A question that is no longer in the bank')
    : row.type === 'pool'
      ? `Draw ${row.draw} of ${row.questions.length}${row.title ? ` · ${row.title}` : ''}`
      : row.type === 'stimulus'
        ? `${row.draw < row.questions.length ? `${row.draw} of ${row.questions.length}` : `All ${row.questions.length}`} on “${store.stimuli.get(row.stimulus) ?? 'a stimulus that is gone'}”`
        : plainText(row.html) || 'An empty text',
)
const isGroup = computed(() => row.type === 'pool' || row.type === 'stimulus')

const set = (name: string, value: unknown) => {
  store.make(setAt(store.quiz!, ['rows', row.id, name], value))
}
/** Takes a question out of a pool or group, which then draws no more than it holds. */
function takeOut(question: string) {
  store.make(without(store.quiz!, row, [question]))
}

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
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <li
    :data-row="row.id"
    tabindex="0"
    class="group border-b border-rule"
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
      <span class="drag-handle cursor-grab self-center text-soft opacity-40 group-hover:opacity-100" aria-hidden="true"
        ><GripVertical :size="16"
      /></span>
      <input
        type="checkbox"
        class="size-4 self-center accent-petrol opacity-25 checked:opacity-100 focus-visible:opacity-100 group-hover:opacity-100"
        :checked="isChosen"
        :aria-label="`Choose row ${numbers || title}`"
        @click.stop="rows.toggle(row.id, $event.shiftKey)"
      />
      <span class="text-right text-small text-soft">{{ numbers }}</span>
      <button class="min-w-0 text-left" :aria-expanded="open" @click="open = !open">
        <span
          class="line-clamp-2"
          :class="isGroup ? 'font-semibold text-petrol' : 'font-serif text-reading leading-snug'"
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
          >{{ kindLabels[hit.kind] }} · {{ roughTime(hit.seconds)
          }}<template v-if="shuffled && row.fixed"> · keeps its place</template></template
        >
        <template v-else-if="row.type === 'pool' || row.type === 'stimulus'"
          >each {{ row.points }} {{ row.points === 1 ? 'pt' : 'pts' }}<br /><template
            v-if="row.type === 'pool' && row.spread !== 'none'"
            >spread · </template
          >{{ difficulty }}</template
        >
        <template v-else>text</template>
      </span>
      <span class="pr-1 text-right font-semibold">{{ row.type === 'text' ? '' : rowPoints(row) }}</span>
    </div>
    <div v-if="open" class="space-y-3 border-t border-rule bg-sheet px-4 py-3 pl-14">
      <template v-if="row.type === 'question'">
        <WholeQuestion v-if="hit" :id="hit.id" />
      </template>
      <template v-if="row.type === 'text'">
        <KeptText label="Text between questions" :model-value="row.html" @keep="set('html', $event)" />
      </template>
      <template v-if="row.type === 'stimulus'">
        <p class="text-label text-soft">
          They stay together, beside what they share.
          <NuxtLink class="link" :to="`/bank/stimuli/${row.stimulus}`">Open the stimulus</NuxtLink>
        </p>
        <TickBox
          class="text-label"
          :model-value="row.order === 'shuffled'"
          @update:model-value="set('order', row.order === 'shuffled' ? 'kept' : 'shuffled')"
          >shuffle its questions among themselves</TickBox
        >
      </template>
      <template v-if="row.type === 'pool' || row.type === 'stimulus'">
        <LabelledField v-if="row.type === 'pool'" label="Name of the pool, for teachers" class="max-w-md"
          ><input
            class="field py-1"
            maxlength="160"
            :value="row.title"
            @change="set('title', ($event.target as HTMLInputElement).value)"
        /></LabelledField>
        <LabelledField :label="`Questions ${row.type === 'pool' ? 'drawn' : 'given'}`" class="inline-block"
          ><input
            class="field block w-24! py-1"
            type="number"
            min="1"
            :max="row.questions.length"
            :value="row.draw"
            @change="set('draw', number($event))"
        /></LabelledField>
        <LabelledField v-if="row.type === 'pool'" label="Each paper’s draw" class="ml-4 inline-block"
          ><select
            class="field py-1"
            :value="row.spread"
            @change="set('spread', ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="(words, value) in spreadWords" :key="value" :value="value">{{ words }}</option>
          </select></LabelledField
        >
        <div v-if="row.type === 'pool'" class="flex flex-wrap gap-x-4 text-label">
          <button class="link" :aria-expanded="sampling" @click="sampling = !sampling">three sample draws</button>
          <button class="link" @click="rows.apart(row.id)">take the pool apart</button>
        </div>
        <SampleDraws v-if="sampling && row.type === 'pool'" :pool="row" />
        <ul class="text-label">
          <li v-for="member in members" :key="member.id" class="flex gap-3 border-b border-rule py-1">
            <span class="grow font-serif">{{ member.hit?.title ?? 'A question that is no longer in the bank' }}</span>
            <button v-if="members.length > 1" class="link shrink-0" @click="takeOut(member.id)">take out</button>
          </li>
        </ul>
      </template>
      <div class="flex flex-wrap items-end gap-3">
        <LabelledField v-if="row.type !== 'text'" :label="`Points${isGroup ? ' each' : ''}`"
          ><input
            class="field block w-24! py-1"
            type="number"
            min="0"
            max="1000"
            step="0.5"
            :value="row.points"
            @change="set('points', number($event))"
        /></LabelledField>
        <TickBox
          v-if="shuffled && row.type !== 'text'"
          class="pb-1.5 text-label"
          :model-value="row.fixed"
          @update:model-value="set('fixed', !row.fixed)"
          >keeps its place</TickBox
        >
        <span class="ml-auto flex gap-2"
          ><button class="btn" @click="emit('move', -1)">Move up</button
          ><button class="btn" @click="emit('move', 1)">Move down</button
          ><button class="btn" @click="emit('remove')">Take out</button></span
        >
      </div>
    </div>
  </li>
</template>
