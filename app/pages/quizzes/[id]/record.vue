<script setup lang="ts">
import { sentenceTime } from '~~/core/kit/phrases'
import { quizRoutes } from '~/client/quizzes'
import type { RecordLine } from '~~/server/domain/quizzes/record-page'

/** The record of a quiz: who did what, when and why, the newest first. */
const store = useQuiz()
const session = useSession()
const id = store.id!
const about = ref<'quiz' | 'papers'>('quiz')
const lines = shallowRef<RecordLine[]>([])
const more = ref(false)
const anonymous = ref(false)
const ready = ref(false)
const { problem, act } = useAct()
const load = (after = 0) =>
  act(async () => {
    const page = await quizRoutes.record({ id, query: { about: about.value, after } })
    lines.value = after ? [...lines.value, ...page.lines] : page.lines
    more.value = page.more
    anonymous.value = page.anonymous
    ready.value = true
  })
watch(about, () => load(), { immediate: true })
/** Lines under the days on which they were written. */
const days = computed(() => {
  const by = new Map<string, RecordLine[]>()
  for (const line of lines.value) {
    const day = sentenceTime(line.at, session.zone).split(',')[0]!
    by.set(day, [...(by.get(day) ?? []), line])
  }
  return [...by]
})
</script>

<template>
  <div class="mx-auto max-w-3xl">
    <div class="flex flex-wrap items-end gap-4">
      <h2 class="grow text-2xl">Record</h2>
      <TickBox
        v-if="!anonymous"
        :model-value="about === 'papers'"
        @update:model-value="about = $event ? 'papers' : 'quiz'"
        >with what happened to each paper</TickBox
      >
      <p v-else class="text-label text-soft">Papers have no names here: nothing of single ones is told.</p>
    </div>
    <ProblemNote class="mt-3" :words="problem" />
    <EmptyNote v-if="ready && !lines.length" title="Nothing has happened yet" class="mt-6">
      From when it is opened on, all that is done with this quiz stands here. What was edited before stands in its
      history.
    </EmptyNote>
    <section v-for="[day, written] in days" :key="day" class="mt-6">
      <h3 class="border-b border-ink pb-1 text-lg">{{ day }}</h3>
      <ol>
        <li v-for="line in written" :key="line.id" class="grid grid-cols-[4rem_1fr] border-b border-rule py-1.5">
          <span class="text-soft">{{ sentenceTime(line.at, session.zone).split(', ')[1] }}</span>
          <div>
            <p>
              <span class="font-semibold">{{ line.who ?? 'The clock' }}</span> {{ line.what
              }}<span v-if="line.student && line.student !== line.who" class="text-soft"> · {{ line.student }}</span>
            </p>
            <p v-for="each in line.more" :key="each" class="text-label text-soft">{{ each }}</p>
          </div>
        </li>
      </ol>
    </section>
    <p v-if="more" class="mt-4"><button class="btn" @click="load(lines.length)">Show earlier ones</button></p>
  </div>
</template>
