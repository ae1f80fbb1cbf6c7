<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import { sentenceTime } from '~~/core/kit/phrases'
import { stateLabels } from '~~/core/quiz/state'
import type { QuizListRow } from '~~/server/domain/quizzes/quizzes'

useHead({ title: 'Quizzes · Thistle' })
const session = useSession()
const {
  items: quizzes,
  more,
  isReady,
  error,
  next,
} = usePages(async (after) => {
  const page = await quizRoutes.list({ query: { after } })
  return { items: page.quizzes, more: page.more, next: after + page.quizzes.length }
})
const title = ref('')
const copying = shallowRef<QuizListRow | null>(null)
const { problem, act } = useAct()
const target = (quiz: QuizListRow) =>
  `/quizzes/${quiz.id}/${quiz.state === 'draft' ? 'compose' : quiz.state === 'scheduled' ? 'rules' : 'marks'}`
const times = (quiz: QuizListRow) =>
  quiz.opens
    ? `${sentenceTime(quiz.opens, session.zone)} – ${quiz.closes ? sentenceTime(quiz.closes, session.zone) : 'no end'}`
    : 'no window yet'

async function create() {
  await act(async () => {
    const { id } = await quizRoutes.add({ body: { title: title.value } })
    await navigateTo(`/quizzes/${id}/compose`)
  })
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-5xl px-5 py-8">
    <div class="flex flex-wrap items-end justify-between gap-4">
      <h1 class="text-3xl">Quizzes</h1>
      <form class="flex items-end gap-2" @submit.prevent="create">
        <div>
          <LabelledField label="Title of a new quiz"
            ><input v-model="title" class="field w-72" maxlength="160" required
          /></LabelledField>
        </div>
        <button class="btn btn-main">Start a quiz</button>
      </form>
    </div>
    <ProblemNote v-if="problem || error" class="mt-4" :words="problem || sentenceOf(error)" />
    <EmptyNote v-if="isReady && !error && !quizzes.length" title="No quiz yet" class="mt-8"
      >Give a new one a title, and start it.</EmptyNote
    >
    <div v-else class="relative mt-6 overflow-x-auto" tabindex="0" role="region" aria-label="All quizzes">
      <table class="w-full min-w-160 text-left">
        <thead>
          <tr class="border-b border-ink text-small text-soft">
            <th class="py-1.5 font-semibold">Quiz</th>
            <th class="font-semibold">State</th>
            <th class="font-semibold">Window</th>
            <th class="font-semibold">Classes</th>
            <th class="text-right font-semibold">Sitting</th>
            <th class="text-right font-semibold">Handed in</th>
            <th><span class="sr-only">Copy</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="quiz in quizzes" :key="quiz.id" class="border-b border-rule align-top">
            <td class="py-2.5 pr-4">
              <NuxtLink :to="target(quiz)" class="font-serif text-lg hover:underline">{{ quiz.title }}</NuxtLink><span
                v-if="!quiz.mine"
                class="block text-small text-soft"
                >shared by {{ quiz.ownerName }}</span
              >
            </td>
            <td class="py-3 pr-4">
              <span class="state">{{ stateLabels[quiz.state] }}</span>
            </td>
            <td class="py-3 pr-4 text-label">{{ times(quiz) }}</td>
            <td class="py-3 pr-4 text-label">{{ quiz.classes.join(', ') || '–' }}</td>
            <td class="py-3 text-right">{{ quiz.sitting || '–' }}</td>
            <td class="py-3 text-right">{{ quiz.handedIn || '–' }}</td>
            <td class="py-3 pl-4 text-right">
              <button class="link min-h-6 text-label" :aria-label="`Copy: ${quiz.title}`" @click="copying = quiz">
                copy
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="more" class="mt-4"><button class="btn" @click="next">Show older quizzes</button></p>
    </div>
    <CopyDialog :quiz="copying" @close="copying = null" />
  </main>
</template>
