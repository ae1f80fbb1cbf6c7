<script setup lang="ts">
import { count } from '~~/core/kit/phrases'
import type { Section } from '~~/core/quiz'
import { allRows, questionsOf } from '~~/core/quiz/walk'

/** What can be done with all chosen rows at once. */
const { sections } = defineProps<{ sections: readonly Section[] }>()
const rows = inject(chosenRows)!
const store = useQuiz()
const questions = computed(() => [
  ...new Set(
    allRows(store.met!.content)
      .filter((row) => rows.chosen.value.includes(row.id))
      .flatMap(questionsOf),
  ),
])
const { problem, busy, change } = useChangeMany(() => {
  void store.reload()
})
const points = ref<number | null>(null)
const total = ref<number | null>(null)
const places = computed(() => sections.map(({ id, title }) => ({ value: id, label: title })))
</script>

<template>
  <div
    v-if="rows.chosen.value.length"
    role="region"
    aria-label="Chosen rows"
    class="sticky bottom-0 z-10 -mx-5 flex flex-wrap items-center gap-2 border-t border-ink bg-sheet px-5 py-2.5 text-label"
  >
    <span class="font-semibold" role="status">{{ count(rows.chosen.value.length, 'row') }} chosen</span>
    <button class="btn py-1" :disabled="rows.chosen.value.length < 2" @click="rows.pool()">Make a pool of them</button>
    <form class="flex items-center gap-1" @submit.prevent="points !== null && rows.points(points)">
      <input
        v-model.number="points"
        class="field w-18! py-0.5"
        type="number"
        min="0"
        max="1000"
        step="0.5"
        aria-label="Points for each question of the chosen rows"
        placeholder="pts"
      /><button class="btn py-1">each</button>
    </form>
    <form class="flex items-center gap-1" @submit.prevent="total !== null && rows.spread(total)">
      <input
        v-model.number="total"
        class="field w-18! py-0.5"
        type="number"
        min="0"
        max="100000"
        step="0.5"
        aria-label="Points in all, spread over the chosen rows"
        placeholder="pts"
      /><button class="btn py-1">in all</button>
    </form>
    <PickMenu v-if="sections.length > 1" up words="Move to" :options="places" @pick="rows.moveTo" />
    <button class="btn py-1" @click="rows.required()">
      {{ rows.allRequired.value ? 'May be left out' : 'Has to be answered' }}
    </button>
    <button
      class="btn py-1"
      :disabled="!questions.length || busy"
      title="Puts the options of each question in another order, once and for good: a new version in the bank"
      @click="change(questions, { do: 'shuffleAnswers', seed: anySeed() }, 'Answers shuffled for good')"
    >
      Shuffle answers for good
    </button>
    <button class="btn py-1" @click="rows.takeOut()">Take out</button>
    <button class="btn btn-quiet py-1" @click="rows.none()">Choose none</button>
    <ProblemNote class="basis-full" :words="problem" />
  </div>
</template>
