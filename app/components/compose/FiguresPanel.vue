<script setup lang="ts">
import { objectiveRoutes } from '~/client/objectives'
import { useAsyncState } from '@vueuse/core'
import { exact, fixed, pointsText } from '~~/core/kit/exact'
import { chance, count, roughTime } from '~~/core/kit/phrases'
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** The figures of a quiz at every change, each with what it means in a sentence. */
const emit = defineEmits<{ passMark: [] }>()
const store = useQuiz()
const { figures, time } = useFigures()
const { state: objectives } = useAsyncState(() => objectiveRoutes.list(), [] as Objective[])

const nameOf = (id: string) => {
  const found = objectives.value.find((objective) => objective.id === id)
  return found ? `${found.code} ${found.title}` : '…'
}
const about = computed(() => (figures.value?.about ? 'about ' : ''))
const share = (value: number) => String(Math.round(value * 100))
const one = (value: number) => fixed(exact(Math.round(value * 1e6) / 1e6), 1)
const points = (part: number) => one(part * figures.value!.points)
const pass = computed(() => store.quiz?.rules.grade.pass ?? null)
const passAt = computed(() => {
  if (!pass.value || !figures.value?.points) return null
  return pass.value.by === 'percent' ? pass.value.value / 100 : pass.value.value / figures.value.points
})
const guessWords = computed(() => {
  const { attempts, error, passesError } = figures.value!.guessing
  const over =
    attempts === null
      ? ' This is one attempt; with any number of them, guessing passes in the end.'
      : attempts > 1
        ? ` Over ${count(attempts, 'attempt')}, all used, by the grading method.`
        : ''
  return `Somebody who knows nothing, answers everything and never types a right answer.${over}${error > 0 ? ` Points may be off by ${one(error)}.` : ''}${passesError > 0 ? ` Simulated with 4,000 guessers: it may be off by ${one(passesError * 100)} in 100.` : ''}`
})
const pools = computed(() => store.quiz?.content.sections.some(({ rows }) => rows.some((row) => row.type === 'pool')))
</script>

<template>
  <section v-if="figures" aria-label="Figures" class="space-y-5">
    <div>
      <h2 class="small-head">This quiz</h2>
      <FigureLine name="Questions each sits" :value="String(figures.questions)"
        >On every paper, whatever the pools give.</FigureLine
      >
      <FigureLine name="Points" :value="pointsText(figures.points)">The same on every paper.</FigureLine>
      <FigureLine v-if="time" name="Nine in ten are done by" :value="roughTime(time.ninety)"
        >Half are done by {{ roughTime(time.median) }}; the expected times of the questions add up to
        {{ roughTime(figures.seconds) }}. People differ in speed and questions in how long they take: 4,000 sittings are
        simulated.</FigureLine
      >
      <FigureLine
        v-if="figures.guessing.passes !== null"
        name="Pass by guessing alone"
        :value="(figures.guessing.passesError ? 'about ' : about) + chance(figures.guessing.passes)"
        >{{ guessWords }} On average guessing earns {{ share(figures.guessing.mean) }} % of the points.</FigureLine
      >
    </div>
    <div v-if="pools">
      <h2 class="small-head">Fair between papers</h2>
      <FigureLine
        v-if="figures.spread"
        name="Hardest and easiest paper"
        :value="`${about}${share(figures.spread.hardest)}–${share(figures.spread.easiest)} %`"
        >What the same usual student would get on the hardest set that can be drawn and on the easiest. Most papers lie
        within {{ one(figures.spread.deviation * 200) }} points in 100 of the mean,
        {{ share(figures.spread.mean) }} %.<template v-if="figures.spread.plain">
          Without spreading it would be {{ share(figures.spread.plain.hardest) }}–{{
            share(figures.spread.plain.easiest)
          }}
          %.</template
        ></FigureLine
      >
      <FigureLine name="Two papers share" :value="`${about}${one(figures.shared)} of ${figures.questions}`"
        >Questions that two students have in common on average: what neighbours can whisper about.</FigureLine
      >
      <FigureLine v-if="figures.papers" name="Different papers" :value="figures.papers"
        >Sets of questions that may be drawn, before any shuffling.</FigureLine
      >
    </div>
    <div v-if="figures.forecast">
      <h2 class="small-head">Forecast</h2>
      <FigureLine
        v-if="figures.forecast.passes !== null"
        name="Would pass"
        :value="about + chance(figures.forecast.passes)"
        >At the first attempt, if each question is answered as often right as it was so far.
        {{ figures.forecast.measured }} of {{ count(figures.forecast.questions, 'question') }}
        {{ figures.forecast.measured === 1 ? 'has' : 'have' }} been measured on 8 answers or more; for the others stand
        90, 80, 65, 50 and 35 % by difficulty 1 to 5.</FigureLine
      >
      <FigureLine name="Mean score" :value="`${points(figures.forecast.mean)} of ${pointsText(figures.points)}`"
        >One student’s score lies within {{ points(figures.forecast.deviation) }} points of it two times in
        three.</FigureLine
      >
      <FigureLine v-if="pools" name="Luck of the draw" :value="`±${points(figures.forecast.luck.deviation)} points`"
        >Which questions are drawn moves a score by about this much: {{ chance(figures.forecast.luck.part) }} of all by
        which scores differ.</FigureLine
      >
      <LazyForecastChart :twentieths="figures.forecast.twentieths" :pass-at="passAt" />
      <button type="button" class="link mt-1 text-label" @click="emit('passMark')">Where to put the pass mark …</button>
    </div>
    <div v-if="figures.coverage.length">
      <h2 class="small-head">Objectives on every paper</h2>
      <ul class="mt-2 space-y-2">
        <li v-for="each in figures.coverage" :key="each.objective" class="text-small">
          <span class="flex justify-between gap-2"
            ><span>{{ nameOf(each.objective) }}</span
            ><span class="shrink-0"
              >{{ each.atLeast === each.atMost ? each.atLeast : `${each.atLeast}–${each.atMost}` }}
              <span class="text-soft">of {{ figures.questions }}</span></span
            ></span
          >
          <span class="drawn-span relative mt-0.5 block h-1.5 rounded bg-rule" aria-hidden="true">
            <span
              class="drawn-rest absolute inset-y-0 left-0 rounded bg-petrol-mid"
              :style="{ width: `${(100 * each.atMost) / figures.questions}%` }"
            /><span
              class="drawn absolute inset-y-0 left-0 rounded bg-petrol"
              :style="{ width: `${(100 * each.atLeast) / figures.questions}%` }"
            />
          </span>
        </li>
      </ul>
      <p class="mt-2 text-note text-soft">
        Dark: what every student is bound to get. Light: what a paper may have.{{
          figures.about ? ' Pools overlap, so these are outer bounds.' : ''
        }}
      </p>
    </div>
  </section>
</template>
