<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import { count, duration, sentenceTime } from '~~/core/kit/phrases'
import type { MarkedPaper } from '~~/server/domain/marks/marks'

const route = useRoute()
const session = useSession()
const paper = shallowRef<MarkedPaper | null>(null)
const { problem, act } = useAct()
const [id, attempt] = [String(route.params.id), String(route.params.attempt)]
function load() {
  return act(async () => {
    paper.value = await quizRoutes.paper({ id, attempt })
  })
}
onMounted(load)
const seconds = (n: number) => (n < 120 ? `${n} s` : duration(Math.round(n / 30) / 2))
const inAll = computed(() => seconds(paper.value!.away.reduce((sum, each) => sum + each.seconds, 0)))
const how = computed(() => paper.value?.attempt.how ?? null)
const when = (at: string) => sentenceTime(at, session.zone)
const reasons: Record<string, string> = {
  ended: 'came after the end',
  lease: 'was written on a device that no longer had the paper',
  page: 'was for a page already left',
  section: 'was for a section already closed',
  settled: 'came after the last check of its question',
  stale: 'came after something newer',
  invalid: 'was no answer to this question',
}
</script>

<template>
  <div>
    <div class="mx-auto max-w-3xl">
      <p><NuxtLink class="link" :to="`/quizzes/${String(route.params.id)}/marks`">All marks</NuxtLink></p>
      <ProblemNote class="mt-3" :words="problem" />
      <template v-if="paper">
        <h2 class="mt-1 text-2xl">{{ paper.student }}{{ how ? `, attempt ${how.number}` : '' }}</h2>
        <p class="text-soft">
          <template v-if="how">Started {{ when(how.startedAt) }}</template
          ><template v-else>Without a name</template
          ><template v-if="how?.handedInAt">
            · handed in {{ when(how.handedInAt) }}{{ how.endedBy === 'clock' ? ' by the clock' : '' }}</template
          ><template v-if="paper.edition !== null"> · edition {{ paper.edition }}</template>
          <template v-if="paper.attempt.score">
            · <strong class="text-ink">{{ paper.attempt.score }} of {{ paper.attempt.possible }}</strong></template
          ><template v-else> · {{ paper.attempt.state === 'open' ? 'under way' : 'waits for marks' }}</template>
        </p>
        <div v-if="paper.aside.length" class="note-look mt-4">
          <p class="font-semibold">Set aside, and not marked</p>
          <p v-for="(line, index) in paper.aside" :key="index">
            Question {{ line.number }}: “{{ line.text || 'cleared' }}” {{ reasons[line.reason] ?? line.reason
            }}<template v-if="line.arrivedAt"> ({{ when(line.arrivedAt) }})</template>
          </p>
        </div>
        <details v-if="paper.away.length" class="mt-4">
          <summary>
            Left the page {{ count(paper.away.length, 'time') }}, {{ inAll }} in all
            <span class="text-soft">(noted, and said to students; why, nobody knows)</span>
          </summary>
          <ul class="ml-5 mt-1 list-disc text-soft">
            <li v-for="each in paper.away" :key="each.leftAt">{{ when(each.leftAt) }}: {{ seconds(each.seconds) }}</li>
          </ul>
        </details>
        <section v-for="section in paper.sections" :key="section.title" class="mt-6">
          <h3 class="border-b border-ink pb-1 text-xl">{{ section.title }}</h3>
          <ReviewedQuestion v-for="question in section.questions" :key="question.item" :question="question"
            ><HandMark
              v-if="paper.attempt.state !== 'open'"
              :key="String(question.mark?.points)"
              :question="question"
              :quiz="id"
              :attempt="attempt"
              @marked="load"
          /></ReviewedQuestion>
        </section>
      </template>
    </div>
  </div>
</template>
