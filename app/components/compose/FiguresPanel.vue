<script setup lang="ts">
import { objectiveRoutes } from '~/client/objectives'
import { useAsyncState } from '@vueuse/core'
import { exact, fixed } from '~~/core/kit/exact'
import { roughTime } from '~~/core/kit/phrases'
import type { Figures } from '~~/core/figures'
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** The first figures of a quiz, answered at every change by a worker. */
const store = useQuiz()
const figures = shallowRef<Figures | null>(null)
const { state: objectives } = useAsyncState(() => objectiveRoutes.list(), [] as Objective[])
let worker: Worker | undefined
let stamp = 0

onMounted(() => {
  worker = new Worker(new URL('../../workers/figures.worker.ts', import.meta.url), { type: 'module' })
  worker.addEventListener('message', (event: MessageEvent<{ stamp: number; figures: Figures }>) => {
    if (event.data.stamp === stamp) figures.value = event.data.figures
  })
  watch(
    [() => store.quiz?.content, () => store.facts],
    () => {
      if (!store.quiz) return
      const facts = [...store.facts].map(([id, hit]) => [id, { objectives: [...hit.objectives], seconds: hit.seconds }])
      worker!.postMessage({ stamp: ++stamp, content: JSON.parse(JSON.stringify(store.quiz.content)), facts })
    },
    { immediate: true },
  )
})
onBeforeUnmount(() => worker?.terminate())

const nameOf = (id: string) => {
  const found = objectives.value.find((objective) => objective.id === id)
  return found ? `${found.code} ${found.title}` : '…'
}
const about = computed(() => (figures.value?.about ? 'about ' : ''))
</script>

<template>
  <section aria-label="Figures" class="space-y-5">
    <dl v-if="figures" class="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1 text-label">
      <dt class="small-head col-span-2">This quiz</dt>
      <dt>Questions each sits</dt>
      <dd class="text-right font-semibold">{{ figures.questions }}</dd>
      <dt>Points</dt>
      <dd class="text-right font-semibold">{{ figures.points }}</dd>
      <dt>Expected time</dt>
      <dd class="text-right font-semibold">{{ roughTime(figures.seconds) }}</dd>
      <dt class="small-head col-span-2 mt-3">Between papers</dt>
      <dt>Two papers share</dt>
      <dd class="text-right font-semibold">
        {{ about }}{{ fixed(exact(figures.shared), 1) }} of {{ figures.questions }}
      </dd>
      <template v-if="figures.papers"
        ><dt>Different sets</dt>
        <dd class="text-right font-semibold">{{ figures.papers }}</dd></template
      >
    </dl>
    <div v-if="figures?.coverage.length">
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
          <span class="relative mt-0.5 block h-1.5 rounded bg-rule" aria-hidden="true">
            <span
              class="absolute inset-y-0 left-0 rounded bg-petrol-mid"
              :style="{ width: `${(100 * each.atMost) / figures.questions}%` }"
            /><span
              class="absolute inset-y-0 left-0 rounded bg-petrol"
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
