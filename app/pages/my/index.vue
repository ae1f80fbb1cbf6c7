<script setup lang="ts">
import { Check } from '@lucide/vue'
import { myRoutes } from '~/client/my'
import { sendLeftOvers } from '~/stores/sitting'
import { sentenceTime } from '~~/core/kit/phrases'

useHead({ title: 'My quizzes · Thistle' })
const session = useSession()
const {
  items: quizzes,
  more,
  isReady,
  error,
  next,
  again,
} = usePages(async (after) => {
  const page = await myRoutes.list({ query: { after } })
  return { items: page.quizzes, more: page.more, next: page.next }
})
onMounted(async () => {
  if (await sendLeftOvers()) await again()
})
const groups = computed(() =>
  [
    { title: 'Under way', of: quizzes.value.filter((quiz) => quiz.may === 'continue') },
    { title: 'Open to you', of: quizzes.value.filter((quiz) => quiz.may === 'start') },
    { title: 'To come', of: quizzes.value.filter((quiz) => quiz.may === 'wait') },
    { title: 'Done', of: quizzes.value.filter((quiz) => quiz.may === 'done') },
  ].filter((group) => group.of.length),
)
const when = (at: string) => sentenceTime(at, session.zone)
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-3xl px-5 py-10">
    <h1 class="text-3xl">My quizzes</h1>
    <ProblemNote v-if="error" class="mt-6" :words="sentenceOf(error)"
      ><button class="link" @click="again()">Try again</button></ProblemNote
    >
    <EmptyNote v-else-if="isReady && !quizzes.length" title="No quiz for you yet" class="mt-8"
      >Your teacher will open one; it appears here by itself.</EmptyNote
    >
    <section v-for="group in groups" :key="group.title" class="mt-8">
      <h2 class="border-b border-ink pb-1 text-xl">{{ group.title }}</h2>
      <ul>
        <li
          v-for="quiz in group.of"
          :key="quiz.id"
          class="flex flex-wrap items-start gap-x-6 gap-y-2 border-b border-rule py-4"
        >
          <div class="min-w-60 flex-1">
            <h3 class="text-lg">{{ quiz.title }}</h3>
            <p class="text-soft">
              <template v-if="quiz.voluntary">Voluntary. </template>{{ quiz.sentence
              }}<template v-if="quiz.due"> Due {{ when(quiz.due) }}.</template>
            </p>
            <p v-if="quiz.seen" class="text-soft">{{ quiz.seen }}</p>
            <p v-if="quiz.attempts.length" class="mt-1 flex flex-wrap gap-x-4">
              <NuxtLink v-for="attempt in quiz.attempts" :key="attempt.id" class="link" :to="`/review/${attempt.id}`">
                {{
                  quiz.attempts.length > 1 || (quiz.attemptsAllowed ?? 2) > 1
                    ? `Attempt ${attempt.number}`
                    : 'Look at it'
                }}<span v-if="attempt.handedInAt" class="text-soft"> · {{ when(attempt.handedInAt) }}</span>
              </NuxtLink>
            </p>
          </div>
          <div class="flex items-center gap-4">
            <p v-if="quiz.done" class="flex items-center gap-1 text-small font-semibold text-green">
              <Check class="size-4" aria-hidden="true" /> done
            </p>
            <p v-if="quiz.grade" class="text-right">
              <span class="text-xl font-semibold">{{ quiz.grade.text }}</span>
              <span
                v-if="quiz.grade.passed !== null && !quiz.grade.text.endsWith('passed')"
                class="block text-small font-semibold"
                :class="quiz.grade.passed ? 'text-green' : 'text-soft'"
                >{{ quiz.grade.passed ? 'passed' : 'not passed' }}</span
              >
            </p>
            <NuxtLink v-if="quiz.may === 'continue'" class="btn btn-main" :to="`/sit/${quiz.sitting}`">Go on</NuxtLink>
            <NuxtLink v-if="quiz.may === 'start'" class="btn btn-main" :to="`/my/${quiz.id}`">{{
              quiz.attempts.length ? 'Sit it again' : 'Look, then start'
            }}</NuxtLink>
          </div>
        </li>
      </ul>
    </section>
    <p v-if="more" class="mt-6"><button class="btn" @click="next">Show older quizzes</button></p>
  </main>
</template>
