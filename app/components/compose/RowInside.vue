<script setup lang="ts">
import type { Row } from '~~/core/quiz'
import { without } from '~~/core/quiz/check/rows'
import { setAt } from '~~/core/quiz/edits'
import { asKept } from '~~/core/quiz/condition'
import { allRows, gives } from '~~/core/quiz/walk'

/** A row opened in place: its question or what it draws from, and all that is set for it. */
const { row, shuffled } = defineProps<{ row: Row; shuffled: boolean }>()
const emit = defineEmits<{ move: [by: number]; remove: [] }>()
const store = useQuiz()
const heldBy = useHeld()
const rows = inject(chosenRows)!
const sampling = ref(false)
const spreadWords = {
  none: 'drawn from all alike',
  objectives: 'spread over objectives',
  difficulty: 'spread over difficulty',
  both: 'spread over objectives and difficulty',
}
const orderWords = { quiz: 'as the quiz says', shuffled: 'shuffled', kept: 'in the order written' }
const hit = computed(() => (row.type === 'question' ? store.facts.get(row.question) : undefined))
const members = computed(() =>
  row.type === 'pool' || row.type === 'stimulus' ? heldBy(row).map((id) => ({ id, hit: store.facts.get(id) })) : [],
)
const each = computed(() => (row.type === 'question' ? '' : ' each'))

const set = (name: string, value: unknown) => {
  store.make(setAt(store.quiz!, ['rows', row.id, name], value))
}
/** Takes a question out of a pool or group, which then draws no more than it holds. */
function takeOut(question: string) {
  const met = allRows(store.met!.content).find((each) => each.id === row.id)!
  store.make(asKept(without(store.quiz!, met, [question])))
}
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
const text = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <div class="space-y-3 border-t border-rule bg-sheet px-4 py-3 sm:pl-14">
    <template v-if="row.type === 'question'">
      <WholeQuestion v-if="hit" :id="hit.id" :key="`${hit.id}:${hit.version}`" />
      <PinnedVersion v-if="hit" :hit="hit" :version="row.version" @set="set('version', $event)" />
    </template>
    <template v-if="row.type === 'text'">
      <KeptText label="Text between questions" :model-value="row.html" @keep="set('html', $event)" />
    </template>
    <p v-if="row.type === 'break'" class="text-label text-soft">
      What follows begins a new page, where pages are parted by hand.
    </p>
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
        ><input class="field py-1" maxlength="160" :value="row.title" @change="set('title', text($event))"
      /></LabelledField>
      <LabelledField :label="`Questions ${row.type === 'pool' ? 'drawn' : 'given'}`" class="inline-block"
        ><input
          class="field block w-24! py-1"
          type="number"
          min="1"
          :max="members.length || 200"
          :value="row.draw"
          @change="set('draw', number($event))"
      /></LabelledField>
      <LabelledField v-if="row.type === 'pool'" label="Each paper’s draw" class="ml-4 inline-block"
        ><select class="field py-1" :value="row.spread" @change="set('spread', text($event))">
          <option v-for="(words, value) in spreadWords" :key="value" :value="value">{{ words }}</option>
        </select></LabelledField
      >
      <div v-if="row.type === 'pool'" class="flex flex-wrap gap-x-4 text-label">
        <button class="link" :aria-expanded="sampling" @click="sampling = !sampling">three sample draws</button>
        <button class="link" @click="rows.apart(row.id)">take the pool apart</button>
      </div>
      <PoolCondition v-if="row.type === 'pool' && row.condition" :pool="row" :by="row.condition" />
      <SampleDraws v-if="sampling && row.type === 'pool'" :pool="{ ...row, questions: [...heldBy(row)] }" />
      <ul class="text-label">
        <li v-for="member in members" :key="member.id" class="flex gap-3 border-b border-rule py-1">
          <span class="grow font-serif">{{ member.hit?.title ?? 'A question that is no longer in the bank' }}</span>
          <button v-if="members.length > 1" class="link shrink-0" @click="takeOut(member.id)">take out</button>
        </li>
      </ul>
    </template>
    <div class="flex flex-wrap items-end gap-x-4 gap-y-3">
      <template v-if="gives(row)">
        <LabelledField :label="`Points${each}`"
          ><input
            class="field block w-24! py-1"
            type="number"
            min="0"
            max="1000"
            step="0.5"
            :value="row.points"
            @change="set('points', number($event))"
        /></LabelledField>
        <LabelledField label="Options"
          ><select class="field py-1" :value="row.options" @change="set('options', text($event))">
            <option v-for="(words, value) in orderWords" :key="value" :value="value">{{ words }}</option>
          </select></LabelledField
        >
        <span class="pb-1 text-label">
          <TickBox :model-value="row.required" @update:model-value="set('required', !row.required)"
            >has to be answered</TickBox
          >
          <TickBox v-if="shuffled" :model-value="row.fixed" @update:model-value="set('fixed', !row.fixed)"
            >keeps its place</TickBox
          >
        </span>
      </template>
      <span class="ml-auto flex gap-2"
        ><button class="btn" @click="emit('move', -1)">Move up</button
        ><button class="btn" @click="emit('move', 1)">Move down</button
        ><button class="btn" @click="emit('remove')">Take out</button></span
      >
    </div>
  </div>
</template>
