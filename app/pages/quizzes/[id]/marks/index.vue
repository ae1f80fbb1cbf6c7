<script setup lang="ts">
import type { Closing } from '~~/core/schedule/closing'
import { quizRoutes } from '~/client/quizzes'
import { exact } from '~~/core/kit/exact'
import { clockTime, count, duration, sentenceTime } from '~~/core/kit/phrases'
import { classFigures } from '~~/core/marking/class-figures'
import type { MarkedStudent, MarksTable } from '~~/server/domain/marks/marks'

const id = String(useRoute().params.id)
const session = useSession()
const store = useQuiz()
const table = shallowRef<MarksTable | null>(null)
const { problem, busy, act } = useAct()
const only = ref('all')
const asking = ref(false)
const sort = ref<'name' | 'grade'>('name')

function load() {
  return act(async () => {
    table.value = await quizRoutes.marks({ id })
  })
}
onMounted(load)

const shown = computed(() => {
  const students = (table.value?.students ?? []).filter(
    (student) => only.value === 'all' || student.classes.includes(only.value),
  )
  const worth = (student: MarkedStudent) => (student.share === null ? -1 : exact(student.share).valueOf())
  return sort.value === 'name' ? students : [...students].sort((a, b) => worth(b) - worth(a))
})
const summary = computed(() => {
  if (!table.value) return ''
  if (table.value.anonymous) return `${count(shown.value.length, 'paper')} without names`
  const { graded, passed, mean } = classFigures(shown.value, table.value.decimals)
  return graded
    ? `${graded} of ${shown.value.length} graded · mean ${mean} %${table.value.passMark ? ` · ${passed} passed at ${table.value.passMark}` : ''}`
    : ''
})
/** Of papers without names there is no grade: whose attempts belong together is not told. */
const hasGrades = computed(() => table.value !== null && !table.value.survey && !table.value.anonymous)
/** The time alone where it is the same day. */
function until(from: string, to: string): string {
  const [began, ended] = [sentenceTime(from, session.zone), sentenceTime(to, session.zone)]
  return began.split(',')[0] === ended.split(',')[0] ? clockTime(to, session.zone) : ended
}
/** Minutes below two hours, then hours and days. */
const span = (from: string, to: string | null) =>
  to ? spanWords(Math.floor((Date.parse(to) - Date.parse(from)) / 60_000)) : ''
const spanWords = (minutes: number) => (minutes < 120 ? `${minutes} min` : duration(minutes))

function release(group: { id: string; name: string; releasedAt: string | null }) {
  return act(async () => {
    await quizRoutes.release({ id, body: { class: group.id, released: group.releasedAt === null } })
    announce(
      group.releasedAt === null
        ? `Released to ${group.name}.`
        : `No longer shown to ${group.name}. What has been seen has been seen.`,
    )
    await load()
  })
}
const letEverybodyIn = () =>
  act(async () => {
    await quizRoutes.letEverybodyIn({ id })
    announce('Everybody can come back in.')
    await load()
  })
const letIn = (attempt: string, name: string) =>
  act(async () => {
    await quizRoutes.letIn({ id, attempt })
    announce(`${name} can come back in.`)
    await load()
  })
const closing = shallowRef<Closing | null>(null)
async function askToClose() {
  closing.value = null
  asking.value = true
  await act(async () => {
    closing.value = await quizRoutes.closing({ id, query: {} })
  })
}
async function closeNow() {
  asking.value = false
  await act(async () => {
    const { ended } = await quizRoutes.closeNow({ id, body: {} })
    announce(`Closed. ${ended} ${ended === 1 ? 'paper was' : 'papers were'} handed in as they stood.`)
    await Promise.all([load(), store.reload()])
  })
}
</script>

<template>
  <div>
    <Teleport v-if="store.view?.state === 'open'" defer to="#quiz-actions"
      ><button class="btn btn-warn" @click="askToClose">Close now…</button></Teleport
    >
    <div class="mx-auto max-w-6xl">
      <ProblemNote class="mb-3" :words="problem" />
      <EmptyNote v-if="table?.anonymous && !table.students.length" title="No paper handed in yet"
        >Papers without names are listed when they have been handed in.{{
          table.sitting ? ` ${count(table.sitting, 'paper')} under way.` : ''
        }}</EmptyNote
      >
      <EmptyNote v-else-if="table && !table.students.length" title="Nobody to mark yet"
        >Say under Rules which class sits this quiz.</EmptyNote
      >
      <template v-else-if="table">
        <div class="flex flex-wrap items-center gap-x-6 gap-y-2 py-2">
          <div v-if="!table.anonymous" class="flex gap-1.5" role="group" aria-label="Class">
            <button class="tag" :aria-pressed="only === 'all'" @click="only = 'all'">Everyone</button>
            <button
              v-for="group in table.classes"
              :key="group.id"
              class="tag"
              :aria-pressed="only === group.name"
              @click="only = group.name"
            >
              {{ group.name }}
            </button>
          </div>
          <p v-if="!table.survey" class="text-soft">{{ summary || 'Nothing handed in yet' }}</p>
          <p v-if="table.anonymous && table.sitting" class="text-soft">
            {{ count(table.sitting, 'paper') }} under way: listed when handed in
          </p>
          <button v-if="table.anonymous && table.shutOut" class="btn" :disabled="busy" @click="letEverybodyIn">
            Let everybody back in ({{ table.shutOut }} waiting)
          </button>
          <div v-if="table.byHand" class="ml-auto flex flex-wrap gap-2">
            <button v-for="group in table.classes" :key="group.id" class="btn" @click="release(group)">
              {{ group.releasedAt ? `Take back from ${group.name}` : `Release to ${group.name}` }}
            </button>
          </div>
        </div>
        <SurveyFigures v-if="table.survey" class="mb-8 mt-2" :quiz="id" />
        <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Marks">
          <table class="listed w-full text-left sm:min-w-180">
            <thead>
              <tr class="border-b border-ink text-small text-soft">
                <th class="py-1.5 font-semibold" :aria-sort="sort === 'name' ? 'ascending' : undefined">
                  <template v-if="table.anonymous">Paper</template>
                  <button v-else @click="sort = 'name'">Student{{ sort === 'name' ? ' ↓' : '' }}</button>
                </th>
                <th class="font-semibold"><span :class="table.anonymous && 'sr-only'">Attempts</span></th>
                <th v-if="!table.anonymous" class="font-semibold">Time</th>
                <th v-if="!table.survey" class="text-right font-semibold">Score</th>
                <th
                  v-if="hasGrades"
                  class="pl-6 text-right font-semibold"
                  :aria-sort="sort === 'grade' ? 'descending' : undefined"
                >
                  <button @click="sort = 'grade'">Grade ({{ table.method }}){{ sort === 'grade' ? ' ↓' : '' }}</button>
                </th>
                <th v-if="hasGrades" class="pl-6 font-semibold">Passed</th>
              </tr>
            </thead>
            <tbody v-for="student in shown" :key="student.id" class="border-b border-rule align-top">
              <tr
                v-for="(attempt, index) in student.attempts.length ? student.attempts : [null]"
                :key="attempt?.id ?? student.id"
              >
                <th
                  v-if="index === 0"
                  scope="rowgroup"
                  :rowspan="Math.max(1, student.attempts.length)"
                  class="py-2 pr-4 font-normal"
                >
                  <span class="font-semibold">{{ student.name }}</span><span
                    v-if="only === 'all'"
                    class="ml-2 text-note text-soft"
                    >{{ student.classes.join(', ') }}</span
                  ><span v-if="student.entries.length" class="block text-small text-soft">{{
                    student.entries.map((each) => `${each.name}: ${each.value}`).join(' · ')
                  }}</span>
                </th>
                <template v-if="attempt">
                  <td class="py-2 pr-4">
                    <NuxtLink
                      class="link"
                      :to="`/quizzes/${id}/marks/${attempt.id}`"
                      :aria-label="
                        attempt.how ? `Attempt ${attempt.how.number} of ${student.name}` : `Open ${student.name}`
                      "
                      >{{ attempt.how ? `Attempt ${attempt.how.number}` : 'Open' }}</NuxtLink
                    >
                    <span v-if="attempt.state === 'open'" class="ml-2 text-bloom">sitting</span
                    ><span v-if="attempt.state === 'unsent'" class="ml-2 text-amber">left unsent</span
                    ><span
                      v-if="attempt.how?.endedBy === 'clock' && attempt.state === 'handed'"
                      class="ml-2 text-small text-soft"
                      >by the clock</span
                    >
                    <button
                      v-if="attempt.how?.shutOut"
                      class="btn ml-2 py-0.5"
                      :disabled="busy"
                      @click="letIn(attempt.id, student.name)"
                    >
                      Let back in
                    </button>
                    <span v-if="attempt.how?.daysLate" class="ml-2 text-amber"
                      >{{ attempt.how.daysLate }} {{ attempt.how.daysLate === 1 ? 'day' : 'days' }} late</span
                    ><span v-if="attempt.how?.minutesOver" class="ml-2 text-amber"
                      >{{ attempt.how.minutesOver }} min over</span
                    >
                  </td>
                  <td v-if="!table.anonymous" class="py-2 pr-4 text-label">
                    <template v-if="attempt.how">{{
                      sentenceTime(attempt.how.startedAt, session.zone)
                    }}</template><template v-if="attempt.how?.handedInAt"
                      >–{{ until(attempt.how.startedAt, attempt.how.handedInAt) }}
                      <span class="text-soft"
                        >· {{ span(attempt.how.startedAt, attempt.how.handedInAt) }}</span
                      ></template
                    >
                  </td>
                  <td v-if="!table.survey" class="py-2 text-right" data-name="Score">
                    {{ attempt.score ?? '–'
                    }}<span v-if="attempt.possible" class="text-soft"> of {{ attempt.possible }}</span>
                  </td>
                </template>
                <td v-else :colspan="table.survey ? 2 : 3" class="py-2 text-soft">
                  {{ store.view?.state === 'closed' || store.view?.state === 'filed' ? 'not sat' : 'not started' }}
                </td>
                <template v-if="index === 0 && hasGrades">
                  <td
                    :rowspan="Math.max(1, student.attempts.length)"
                    class="py-2 pl-6 text-right font-semibold"
                    data-name="Grade"
                  >
                    {{ student.undecided ? 'to be marked' : student.percent === null ? '–' : `${student.percent} %` }}
                    <span
                      v-if="student.text && student.text !== `${student.percent} %`"
                      class="block text-small font-normal text-soft"
                      >{{ student.text }}</span
                    >
                  </td>
                  <td
                    :rowspan="Math.max(1, student.attempts.length)"
                    class="py-2 pl-6"
                    :class="student.passed ? 'text-green' : 'text-soft'"
                  >
                    {{ student.passed === null ? '–' : student.passed ? '✓ passed' : 'not passed' }}
                    <span v-if="student.done" class="block text-small text-soft">done</span>
                  </td>
                </template>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </div>
    <ModalDialog :open="asking" title="Close this quiz now?" @close="asking = false">
      <p>
        Nobody can start any more, and every paper under way is handed in as it stands at this moment.
        <strong>This cannot be undone</strong> for those papers; a new window can be given under Rules.
      </p>
      <ClosingNote v-if="closing" class="mt-4" :closing="closing" />
      <p v-else class="mt-4 text-soft">Looking who is at work …</p>
      <div class="mt-5 flex justify-end gap-2">
        <button class="btn" @click="asking = false">Leave it open</button
        ><button class="btn btn-warn" :disabled="!closing" @click="closeNow">Close now</button>
      </div>
    </ModalDialog>
  </div>
</template>
