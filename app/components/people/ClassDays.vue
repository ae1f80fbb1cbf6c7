<script setup lang="ts">
import { sentenceTime } from '~~/core/kit/phrases'
import { dayScale } from '~~/core/day-line/day-scale'
import type { RegisterQuiz } from '~~/server/domain/classes/register'

/** The quizzes of a class as a line of days: what is over, open and to come. */
const { quizzes } = defineProps<{ quizzes: readonly RegisterQuiz[] }>()
const session = useSession()
const now = useNow(30_000)
const dated = computed(() =>
  quizzes.filter((quiz) => quiz.opens !== null).sort((a, b) => (a.opens! < b.opens! ? -1 : 1)),
)
const scale = computed(() =>
  dayScale(
    [now.value, ...dated.value.flatMap(({ opens, closes }) => [opens!, ...(closes ? [closes] : [])])],
    session.zone,
  ),
)
/** Percent of the width: the rest is for words that begin at its end. */
const room = 78
const left = (at: string) => `${scale.value.at(at) * room}%`
const width = ({ opens, closes }: RegisterQuiz) =>
  closes
    ? `${Math.max(0.6, (scale.value.at(closes) - scale.value.at(opens!)) * room)}%`
    : `${100 - scale.value.at(opens!) * room}%`
const words = ({ title, state, opens, closes }: RegisterQuiz) =>
  `${title}: ${state}, from ${sentenceTime(opens!, session.zone)}${closes ? ` to ${sentenceTime(closes, session.zone)}` : ''}`
const look: Partial<Record<RegisterQuiz['state'], string>> = {
  closed: 'bg-soft',
  open: 'bg-petrol',
  scheduled: 'border border-petrol bg-petrol-tint',
  draft: 'border border-dashed border-soft',
}
</script>

<template>
  <section
    v-if="dated.length"
    aria-label="Quizzes of the class by day"
    tabindex="0"
    class="overflow-x-auto rounded border border-rule bg-sheet px-3.5 py-2 text-note"
  >
    <div class="relative sm:min-w-150">
      <div class="relative h-5 border-b border-rule">
        <DayTicks :ticks="scale.ticks" :room="room" />
      </div>
      <span
        class="pointer-events-none absolute inset-y-0 border-l-2 border-bloom"
        :style="{ left: left(now) }"
        aria-hidden="true"
        ><span class="absolute top-5 left-1 font-semibold text-bloom">now</span></span
      >
      <ul class="pt-4 pb-1">
        <li v-for="quiz in dated" :key="quiz.id" class="relative h-5.5">
          <NuxtLink
            :to="`/quizzes/${quiz.id}/${quiz.state === 'draft' || quiz.state === 'scheduled' ? 'rules' : 'marks'}`"
            class="group absolute inset-y-0.5 flex items-center"
            :style="{ left: left(quiz.opens!), right: 0 }"
            :aria-label="words(quiz)"
            :title="words(quiz)"
          >
            <span
              class="h-3.5 shrink-0 rounded"
              :class="look[quiz.state]"
              :style="{ width: width(quiz), minWidth: '0.5rem' }"
            />
            <span
              class="ml-1.5 truncate font-semibold group-hover:underline"
              :class="quiz.state === 'closed' && 'text-soft'"
              >{{ quiz.title
              }}<span v-if="quiz.state !== 'open'" class="font-normal text-soft"> · {{ quiz.state }}</span></span
            >
          </NuxtLink>
        </li>
      </ul>
    </div>
  </section>
</template>
