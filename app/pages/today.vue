<script setup lang="ts">
import { questionRoutes } from '~/client/questions'
import { quizRoutes } from '~/client/quizzes'
import { useAsyncState } from '@vueuse/core'
import { list, sentenceTime } from '~~/core/kit/phrases'
import type { QuizListRow } from '~~/server/domain/quizzes/list'

useHead({ title: 'Today · Thistle' })
const session = useSession()
const { state: listed, isReady, error } = useAsyncState(() => quizRoutes.list(), { quizzes: [], more: false })
/** Those that one works in: what may only be looked at asks for nothing. */
const quizzes = computed(() => listed.value.quizzes.filter(({ may }) => may === 'write'))
const { state: doubted } = useAsyncState(() => questionRoutes.doubts(), [])
const { state: todo, isReady: asked, error: unasked } = useAsyncState(() => quizRoutes.today(), [])
const tones = {
  'let in': 'text-red',
  stops: 'text-red',
  leak: 'text-red',
  mark: 'text-ink',
  release: 'text-ink',
  look: 'text-amber',
}
const when = (at: string) => sentenceTime(at, session.zone)
const groups = computed(() =>
  [
    {
      title: 'Under way',
      of: quizzes.value.filter((quiz) => quiz.state === 'open'),
      to: 'marks',
      words: (quiz: QuizListRow) =>
        `${quiz.sitting} sitting · ${quiz.handedIn} handed in${quiz.closes ? ` · closes ${when(quiz.closes)}` : ''}`,
    },
    {
      title: 'Next',
      of: quizzes.value.filter((quiz) => quiz.state === 'scheduled').sort((a, b) => (a.opens! < b.opens! ? -1 : 1)),
      to: 'rules',
      words: (quiz: QuizListRow) => `opens ${when(quiz.opens!)} for ${list(quiz.meant)}`,
    },
    {
      title: 'Being composed',
      of: quizzes.value.filter((quiz) => quiz.state === 'draft'),
      to: 'compose',
      words: (quiz: QuizListRow) => `last changed ${when(quiz.changedAt)}`,
    },
    {
      title: 'Closed lately',
      of: quizzes.value.filter((quiz) => quiz.state === 'closed').slice(0, 5),
      to: 'marks',
      words: (quiz: QuizListRow) => `${quiz.handedIn} papers${quiz.closes ? ` · closed ${when(quiz.closes)}` : ''}`,
    },
  ].filter((group) => group.of.length),
)
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-3xl px-5 py-10">
    <h1 class="text-3xl">Today at {{ session.school }}</h1>
    <ProblemNote v-if="error" class="mt-6" :words="sentenceOf(error)" />
    <EmptyNote v-else-if="isReady && !quizzes.length" title="No quiz yet" class="mt-8"
      >Begin with <NuxtLink class="link" to="/quizzes">a new quiz</NuxtLink>, or
      <NuxtLink class="link" to="/bank">write questions</NuxtLink> first.</EmptyNote
    >
    <section v-if="doubted.length" class="note-look mt-8" aria-labelledby="doubted">
      <h2 id="doubted" class="text-xl">Colleagues say that something is wrong</h2>
      <ul>
        <li v-for="each in doubted" :key="each.question" class="py-1.5">
          <NuxtLink :to="`/bank/${each.question}`" class="font-serif text-lg underline underline-offset-2">{{
            each.title
          }}</NuxtLink>
          <span v-if="each.doubts > 1">· {{ each.doubts }} remarks</span>
        </li>
      </ul>
    </section>
    <section v-if="todo.length" class="mt-8" aria-labelledby="todo">
      <h2 id="todo" class="border-b border-ink pb-1 text-xl">Needs a hand</h2>
      <ul>
        <li
          v-for="each in todo"
          :key="`${each.sort} ${each.quiz}`"
          class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2.5"
        >
          <div class="min-w-60 grow basis-96">
            <p class="font-serif text-lg">{{ each.title }}</p>
            <p :class="tones[each.sort]">{{ each.words }}</p>
          </div>
          <NuxtLink class="btn" :to="each.to">{{ each.action }}</NuxtLink>
        </li>
      </ul>
    </section>
    <ProblemNote
      v-else-if="unasked && !error"
      class="mt-6"
      :words="`What needs a hand is not known: ${sentenceOf(unasked)}`"
    />
    <p v-else-if="asked && quizzes.length" class="mt-6 text-green">✓ Nothing needs a hand now.</p>
    <section v-for="group in groups" :key="group.title" class="mt-8">
      <h2 class="border-b border-ink pb-1 text-xl">{{ group.title }}</h2>
      <ul>
        <li v-for="quiz in group.of" :key="quiz.id" class="border-b border-rule py-3">
          <NuxtLink :to="`/quizzes/${quiz.id}/${group.to}`" class="font-serif text-lg hover:underline">{{
            quiz.title
          }}</NuxtLink>
          <p class="text-soft">{{ group.words(quiz) }}</p>
        </li>
      </ul>
    </section>
  </main>
</template>
