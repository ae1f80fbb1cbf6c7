<script setup lang="ts">
import { factsFrom } from '~~/core/figures/facts'
import { quizRoutes } from '~/client/quizzes'
import { useDebounceFn } from '@vueuse/core'
import { judgedMark, papersOf, weights } from '~~/core/figures'
import { exact, fixed, pointsText } from '~~/core/kit/exact'
import { chance, count } from '~~/core/kit/phrases'
import type { Rules } from '~~/core/quiz'
import { setAt } from '~~/core/quiz/edits'
import type { Judge } from '~~/server/domain/quizzes/ratings'

/**
 * Where to put the pass mark: judges say of each question how likely a student who only just deserves to pass gets it
 * right (modified Angoff); beside it what guessing reaches and what a class would do.
 */
const store = useQuiz()
const judges = shallowRef<Judge[]>([])
const { problem, act } = useAct()
const mine = reactive(new Map<string, number>())
const waiting = new Map<string, number | null>()
const saved = ref('')

onMounted(() =>
  act(async () => {
    judges.value = await quizRoutes.judges({ id: store.id! })
    for (const [question, value] of judges.value.find((judge) => judge.mine)?.ratings ?? []) mine.set(question, value)
  }),
)

const facts = computed(() => new Map([...store.facts].map(([id, hit]) => [id, factsFrom(hit)])))
const papers = computed(() => (store.quiz ? papersOf(store.met!.content, facts.value) : null))
const questions = computed(() =>
  papers.value ? [...weights(papers.value)].map(([id, points]) => ({ id, points, hit: store.facts.get(id) })) : [],
)
const judged = computed(() =>
  papers.value
    ? judgedMark(
        papers.value,
        judges.value.map((judge) => (judge.mine ? mine : new Map(judge.ratings))).filter((ratings) => ratings.size),
      )
    : null,
)
const judging = computed(() => judges.value.filter((judge) => (judge.mine ? mine : judge.ratings.length)))

const send = useDebounceFn(async () => {
  if (!waiting.size) return
  const ratings = Object.fromEntries(waiting)
  waiting.clear()
  saved.value = 'keeping …'
  const kept = await act(async () => {
    judges.value = await quizRoutes.rate({ id: store.id!, body: { ratings } })
    return true
  })
  // What could not be kept is sent with the next.
  if (!kept)
    for (const [question, value] of Object.entries(ratings)) if (!waiting.has(question)) waiting.set(question, value)
  saved.value = kept ? 'kept' : 'not kept yet'
}, 600)
onBeforeUnmount(() => void send())
function rate(question: string, typed: string) {
  const value = typed.trim() === '' ? null : Math.round(Math.min(100, Math.max(0, Number(typed)))) / 100
  if (value !== null && Number.isNaN(value)) return
  if (value === null) mine.delete(question)
  else mine.set(question, value)
  waiting.set(question, value)
  void send()
}

const possible = computed(() => [...(papers.value ? weights(papers.value).values() : [])].reduce((a, b) => a + b, 0))
const current = computed(() => {
  const pass = store.quiz?.rules.grade.pass
  if (!pass || !possible.value) return null
  return pass.by === 'percent' ? pass.value : (pass.value / possible.value) * 100
})
const chosen = ref<number | null>(null)
const mark = computed(() => chosen.value ?? current.value ?? 60)
const { figures } = useFigures((rules: Rules) => ({
  ...rules,
  grade: { ...rules.grade, pass: { by: 'percent', value: mark.value } },
}))
const half = (value: number) => Math.round(value * 2) / 2
const judgedPercent = computed(() => (judged.value ? half(judged.value.share * 100) : null))
const words = (value: number, decimals = 1) => fixed(exact(Math.round(value * 1e6) / 1e6), decimals)
const isSet = computed(() => current.value !== null && Math.abs(current.value - mark.value) < 1e-9)

function take() {
  store.make(setAt(store.quiz!, ['rules', 'grade', 'pass'], { by: 'percent', value: mark.value }))
  announce(`The pass mark is ${pointsText(mark.value)} %.`, store.undo)
}
</script>

<template>
  <div class="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
    <section class="min-w-0">
      <p><NuxtLink class="link" :to="`/quizzes/${store.id}/compose`">Back to Compose</NuxtLink></p>
      <h2 class="mt-2 text-xl">Where to put the pass mark</h2>
      <p class="mt-1 max-w-2xl text-soft">
        Think of a student who only just deserves to pass. How likely do they get each question right? Colleagues who
        share this quiz judge by themselves, on their own page.
      </p>
      <ProblemNote class="mt-3" :words="problem" />
      <p v-if="!questions.length" class="mt-6 text-soft">There is no question yet.</p>
      <table v-else class="mt-4 w-full">
        <thead>
          <tr class="border-b border-ink text-left text-small text-soft">
            <th class="py-1 font-semibold">Question</th>
            <th class="px-3 text-right font-semibold">Points</th>
            <th class="w-32 text-right font-semibold">Just passing, %</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ id, points, hit } in questions" :key="id" class="border-b border-rule align-baseline">
            <td class="py-1.5 font-serif">{{ hit?.title ?? 'A question that is no longer in the bank' }}</td>
            <td class="px-3 text-right text-small text-soft">{{ pointsText(Math.round(points * 100) / 100) }}</td>
            <td class="text-right">
              <input
                class="field w-20! py-0.5 text-right"
                type="number"
                inputmode="numeric"
                min="0"
                max="100"
                step="5"
                :aria-label="`Chance in percent: ${hit?.title.slice(0, 80) ?? 'a question that is gone'}`"
                :value="mine.has(id) ? Math.round(mine.get(id)! * 100) : ''"
                @input="rate(id, ($event.target as HTMLInputElement).value)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p class="mt-2 text-small text-soft" role="status">
        {{ mine.size }} of {{ count(questions.length, 'question') }} rated by you{{ saved ? ` · ${saved}` : '' }}
      </p>
    </section>
    <aside class="space-y-6">
      <section>
        <h2 class="small-head">Judges</h2>
        <p v-if="!judged" class="mt-1 text-soft">Nobody has rated a question yet.</p>
        <template v-else>
          <ul class="mt-1 text-label">
            <li
              v-for="(judge, i) in judging"
              :key="judge.id"
              class="flex justify-between gap-3 border-b border-rule py-1"
            >
              <span>{{ judge.mine ? 'You' : judge.name }}</span><span class="tabular-nums"
                >{{ words(judged.judges[i] ?? 0) }} points</span
              >
            </li>
          </ul>
          <p class="mt-2">
            Together <strong>{{ words(judged.points) }} of {{ pointsText(possible) }} points</strong>,
            {{ words(judged.share * 100) }} %<template v-if="judged.error !== null"
              >, give or take {{ words(judged.error) }} (standard error over
              {{ count(judged.judges.length, 'judge') }})</template
            >.
          </p>
          <p v-if="judged.rated < judged.questions" class="mt-1 text-small text-soft">
            From {{ judged.rated }} of {{ judged.questions }} questions, those that all judges have rated; the others
            stand at their mean.
          </p>
        </template>
      </section>
      <section v-if="figures">
        <h2 class="small-head">At a pass mark of</h2>
        <div class="mt-1 flex items-center gap-2">
          <input
            class="field w-24! py-1 text-right"
            type="number"
            min="0"
            max="100"
            step="0.5"
            aria-label="Pass mark to look at, in percent"
            :value="mark"
            @input="chosen = Math.min(100, Math.max(0, half(Number(($event.target as HTMLInputElement).value))))"
          />
          <span>%</span>
          <button
            v-if="judgedPercent !== null && judgedPercent !== mark"
            class="btn py-1"
            @click="chosen = judgedPercent"
          >
            As judged: {{ pointsText(judgedPercent) }} %
          </button>
        </div>
        <p v-if="figures.guessing.passes !== null" class="mt-3 text-label">
          <strong>{{ chance(figures.guessing.passes) }}</strong> pass by guessing alone; guessing earns
          {{ words(figures.guessing.mean * 100, 0) }} % on average.
        </p>
        <template v-if="figures.forecast">
          <p v-if="figures.forecast.passes !== null" class="mt-1 text-label">
            <strong>{{ chance(figures.forecast.passes) }}</strong> of a class like those before would pass.
          </p>
          <LazyForecastChart :twentieths="figures.forecast.twentieths" :pass-at="mark / 100" />
        </template>
        <button class="btn btn-main mt-3" :disabled="isSet" @click="take">
          {{ isSet ? `The pass mark is ${pointsText(mark)} %` : `Set the pass mark to ${pointsText(mark)} %` }}
        </button>
      </section>
    </aside>
  </div>
</template>
