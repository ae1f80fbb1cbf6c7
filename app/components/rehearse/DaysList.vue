<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import { count } from '~~/core/kit/phrases'
import { daysAsLines, momentWords, neverWords, type StudentDays } from '~~/core/day-line/student-days'
import type { Instant } from '~~/core/kit/time'

/** What one student sees, moment by moment, in words: each moment with a time is gone to at a press. */
const { name, days, here, quiz, student } = defineProps<{
  name: string
  days: StudentDays
  here: Instant
  quiz: string
  /** Whom it can be sent to: a student who has the quiz. */
  student: string | null
}>()
const emit = defineEmits<{ go: [at: Instant] }>()
const session = useSession()
/** The last moment with a time that has come. */
const current = computed(() => days.moments.findLastIndex(({ at }) => at !== null && at <= here))
const text = computed(() => [`What ${name} sees, and when`, '', ...daysAsLines(days, session.zone)].join('\n'))
async function copy() {
  await navigator.clipboard.writeText(text.value)
  announce(`${count(days.moments.length, 'line')} copied.`)
}
const print = () => window.print()
const { problem, busy, act } = useAct()
const send = () =>
  act(async () => {
    const { to } = await quizRoutes.sendDays({ id: quiz, body: { student: student! } })
    announce(`On its way to ${to}.`)
  })
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">What {{ name }} sees, and when</h2>
    <ol>
      <li
        v-for="(each, i) in days.moments"
        :key="i"
        class="border-b border-rule"
        :class="i === current && 'bg-bloom-tint'"
      >
        <button
          v-if="each.at !== null"
          class="w-full px-1.5 py-1.5 text-left hover:bg-petrol-tint"
          @click="emit('go', each.at)"
        >
          <span class="block text-note" :class="i === current ? 'font-semibold text-bloom' : 'text-soft'"
            >{{ momentWords(each, session.zone) }}<template v-if="i === current"> · here</template></span
          >{{ each.words }}
        </button>
        <p v-else class="px-1.5 py-1.5">
          <span class="block text-note text-soft">{{ momentWords(each, session.zone) }}</span>{{ each.words }}
        </p>
      </li>
    </ol>
    <p v-if="days.never.length" class="px-1.5 py-1.5 text-note text-soft">Never: {{ neverWords(days.never) }}.</p>
    <ProblemNote :words="problem" />
    <p class="mt-1 flex gap-3 px-1.5 text-label print:hidden">
      <button class="link" @click="copy">Copy as text</button>
      <button class="link" @click="print">Print</button>
      <button v-if="student" class="link" :disabled="busy" @click="send">Send to them</button>
    </p>
  </section>
</template>
