<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { quizRoutes } from '~/client/quizzes'
import { schoolRoutes } from '~/client/school'
import { count, sentenceTime } from '~~/core/kit/phrases'
import { daysLater } from '~~/core/quiz/copy'

/** Copies a quiz: under another title, with or without its rules, on other days by the school's clock. */
const { quiz } = defineProps<{
  quiz: { id: string; title: string; opens: string | null; may: 'read' | 'write' } | null
}>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const { problem, busy, act } = useAct()
const title = ref('')
const withRules = ref(true)
const days = ref(7)
watch(
  () => quiz,
  (now) => {
    title.value = now ? `${now.title} (copy)`.slice(0, 160) : ''
    problem.value = ''
    term.value = undefined
  },
)
/** Terms of the school, the latest first; the one in which it opens, and those after it. */
const { state: terms } = useAsyncState(() => schoolRoutes.terms(), [])
const term = ref<string | undefined>()
const dayOf = (at: string) => Math.round(Date.parse(`${at.slice(0, 10)}T12:00:00Z`) / 86_400_000)
const moves = computed(() => {
  const opens = quiz?.opens
  if (!opens) return []
  const here = terms.value.find(({ starts, ends }) => starts <= opens.slice(0, 10) && opens.slice(0, 10) <= ends)
  if (!here) return []
  return terms.value
    .filter(({ starts }) => starts > here.starts)
    .map(({ name, starts }) => {
      // Whole weeks: the same day of the week.
      const by = Math.round((dayOf(starts) - dayOf(here.starts)) / 7) * 7
      return { name, days: by }
    })
    .reverse()
})
function moveTo(to: { name: string; days: number }) {
  term.value = to.name.slice(0, 60)
  days.value = to.days
}
const isWorkedIn = computed(() => quiz?.may !== 'read')
const opens = computed(() => {
  if (!quiz?.opens || !withRules.value || !Number.isInteger(days.value)) return ''
  return sentenceTime(daysLater(quiz.opens, days.value, session.zone), session.zone)
})
async function copy() {
  const made = await act(() =>
    quizRoutes.copy({
      id: quiz!.id,
      body: {
        title: title.value,
        withRules: withRules.value,
        days: days.value,
        ...(term.value ? { term: term.value } : {}),
      },
    }),
  )
  if (!made) return
  emit('close')
  if (made.leftOut) announce(`${count(made.leftOut, 'question')} that you may not see in the bank did not come along.`)
  await navigateTo(`/quizzes/${made.id}/compose`)
}
</script>

<template>
  <ModalDialog :open="quiz !== null" title="Copy the quiz" @close="emit('close')">
    <form class="space-y-4" @submit.prevent="copy">
      <LabelledField label="Title of the copy"
        ><input v-model="title" class="field" maxlength="160" required
      /></LabelledField>
      <TickBox :model-value="withRules" @update:model-value="withRules = !withRules">{{
        isWorkedIn ? 'with its rules, windows and classes' : 'with its rules (not its windows, classes and password)'
      }}</TickBox>
      <p v-if="withRules && isWorkedIn" class="flex flex-wrap items-baseline gap-2">
        its dates moved by
        <input
          v-model.number="days"
          class="field w-24! py-0.5"
          type="number"
          min="-3660"
          max="3660"
          step="1"
          required
          aria-label="Days by which dates are moved"
        />
        days<span v-if="opens" class="text-soft">: it first opens {{ opens }}</span>
      </p>
      <p v-if="withRules && isWorkedIn && moves.length" class="flex flex-wrap gap-2">
        <button
          v-for="each in moves"
          :key="each.name"
          type="button"
          class="btn py-1"
          :aria-pressed="term === each.name"
          @click="moveTo(each)"
        >
          to {{ each.name }}: {{ each.days / 7 }} weeks later
        </button>
      </p>
      <p class="text-small text-soft">
        The copy is yours and in draft. Co-teachers, sittings, marks and what you released stay behind.
      </p>
      <ProblemNote :words="problem" />
      <div class="flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button>
        <button class="btn btn-main" :disabled="busy">Copy it</button>
      </div>
    </form>
  </ModalDialog>
</template>
