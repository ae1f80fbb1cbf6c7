<script setup lang="ts">
import { reviewRoutes } from '~/client/reviews'
import { sittingRoutes } from '~/client/sittings'
import { useTimeoutFn } from '@vueuse/core'
import { count, sentenceTime } from '~~/core/kit/phrases'
import { facetNames, type FacetName } from '~~/core/release/names'
import type { Review } from '~~/server/domain/reviews/review'

const route = useRoute()
const session = useSession()
const review = shallowRef<Review | null>(null)
const { problem, busy, act } = useAct()
useHead({ title: () => `${review.value?.title ?? 'Review'} · Thistle` })

/** Asks again by itself when the rules say that something changes. */
const { start: askLater } = useTimeoutFn(
  () => {
    void load()
  },
  () =>
    Math.min(
      2 ** 31 - 1,
      review.value?.changesAt
        ? Math.max(500, Date.parse(review.value.changesAt) - Date.parse(serverTime()) + 300)
        : 2 ** 31 - 1,
    ),
  { immediate: false },
)

function load() {
  return act(async () => {
    review.value = await reviewRoutes.get({ id: String(route.params.id) })
    setServerTime(review.value.now)
    if (review.value.state === 'open') await navigateTo(`/sit/${review.value.attempt}`)
    else askLater()
  })
}
watch(() => route.params.id, load, { immediate: true })

const words: Record<FacetName, string> = {
  score: 'your score',
  grade: 'your grade',
  questions: 'the questions',
  answers: 'your answers',
  marks: 'what was right or wrong',
  key: 'the correct answers',
  comments: 'comments',
  class: 'how the class did',
  best: 'the best results',
  certificate: 'a certificate',
}
const waits: Record<string, string> = {
  marked: 'when everything is marked',
  attemptsUsed: 'when your attempts are used up',
  due: 'at the due time',
  windowClosed: 'when the window has closed for your class',
  everyoneDone: 'when everyone is done',
  teacher: 'when your teacher releases it',
}
/** What is not shown yet, and from when it will be; what never is shown is not promised. */
const later = computed(() =>
  facetNames.flatMap((name) => {
    const facet = review.value!.facets[name]
    if (facet.shown || facet.moment === 'never') return []
    const from =
      facet.from && facet.from > review.value!.now
        ? `from ${sentenceTime(facet.from, session.zone)}`
        : facet.from
          ? null
          : waits[facet.moment]
    if (!from) return facet.ifPassed ? [`${words[name]}: only when passed`] : []
    return [`${words[name]}: ${from}${facet.ifPassed ? ', if you have passed' : ''}`]
  }),
)
const when = (at: string) => sentenceTime(at, session.zone)
const takeUpAgain = () =>
  act(async () => {
    await sittingRoutes.again({ id: review.value!.attempt })
    await navigateTo(`/sit/${review.value!.attempt}`)
  })
const print = () => window.print()
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-3xl px-5 py-10">
    <ProblemNote :words="problem"><button class="link" @click="load">Try again</button></ProblemNote>
    <template v-if="review && review.state !== 'open'">
      <p class="text-soft"><NuxtLink class="link" to="/my">My quizzes</NuxtLink></p>
      <h1 class="mt-1 text-3xl">{{ review.title }}</h1>
      <p class="mt-1 text-soft">
        Attempt {{ review.number }} ·
        <template v-if="review.state === 'handed'">handed in {{ when(review.handedInAt!) }}</template>
        <template v-else>not handed in: it counts as zero</template>
        <template v-if="review.daysLate">
          · {{ review.daysLate }} {{ review.daysLate === 1 ? 'day' : 'days' }} late</template
        >
        <template v-if="review.minutesOver"> · {{ review.minutesOver }} min over time</template>
      </p>
      <div v-if="review.again" class="note-look mt-4">
        <p>
          {{
            review.again.until
              ? `You may take this paper up again until ${when(review.again.until)}.`
              : 'You may take this paper up again.'
          }}
          It counts as not handed in until you hand it in anew.
        </p>
        <button class="btn mt-2" :disabled="busy" @click="takeUpAgain">Take it up again</button>
      </div>
      <nav v-if="review.attempts.length > 1" aria-label="Attempts" class="mt-3 flex flex-wrap gap-2">
        <NuxtLink
          v-for="attempt in review.attempts"
          :key="attempt.id"
          :to="attempt.state === 'open' ? `/sit/${attempt.id}` : `/review/${attempt.id}`"
          class="tag"
          :class="attempt.id === review.attempt && 'tag-on'"
          >Attempt {{ attempt.number }}{{ attempt.state === 'open' ? ' (under way)' : '' }}</NuxtLink
        >
      </nav>
      <p v-if="review.scoreWaits" class="mt-4">Score: when your paper has been marked.</p>
      <div v-if="review.score || review.grade" class="mt-6 flex flex-wrap gap-x-12 gap-y-4 border-y border-ink py-5">
        <div v-if="review.score">
          <p class="text-soft">Score of this attempt</p>
          <p class="text-3xl font-semibold">
            {{ review.score.points
            }}<span class="text-lg font-normal text-soft">
              of {{ review.score.possible }} · {{ review.score.percent }}</span
            >
          </p>
        </div>
        <div v-if="review.grade">
          <p class="text-soft">
            Grade<template v-if="review.attempts.length > 1"> ({{ review.grade.method }})</template>
          </p>
          <p class="text-3xl font-semibold">
            {{ review.grade.text }}
            <span
              v-if="review.grade.passed !== null && !review.grade.text.endsWith('passed')"
              class="text-lg"
              :class="review.grade.passed ? 'text-green' : 'text-red'"
              >{{ review.grade.passed ? '✓ passed' : 'not passed' }}</span
            >
          </p>
        </div>
        <ul v-if="review.grade?.sections.length" aria-label="Sections to pass">
          <li v-for="each in review.grade.sections" :key="each.title">
            {{ each.title }}: {{ each.percent }} %
            <span :class="each.reached ? 'text-green' : 'text-red'"
              >{{ each.reached ? '✓ reached' : 'not reached' }}: {{ each.needed }} % needed</span
            >
          </li>
        </ul>
        <div v-if="review.classFigures">
          <p class="text-soft">Your class ({{ review.classFigures.students }} students)</p>
          <p class="text-lg">mean {{ review.classFigures.mean }} % · highest {{ review.classFigures.highest }} %</p>
        </div>
      </div>
      <section v-if="review.best" class="mt-6">
        <h2 class="border-b border-rule pb-1 text-xl">Best results</h2>
        <p v-if="review.best.place !== null" class="mt-2">
          Yours is number {{ review.best.place }} of {{ review.best.of }}.
        </p>
        <ol v-if="review.best.list.length" class="mt-1 max-w-md">
          <li
            v-for="(each, i) in review.best.list"
            :key="i"
            class="flex gap-4 border-b border-rule py-1"
            :class="each.own && 'font-semibold'"
          >
            <span class="w-8 text-right tabular-nums">{{ each.place }}</span>
            <span class="grow">{{ each.who }}<template v-if="each.own"> (you)</template></span>
            <span class="tabular-nums">{{ each.percent }}</span>
          </li>
        </ol>
      </section>
      <WrittenText v-if="review.closing.words" :html="review.closing.words" class="mt-6 text-lg" />
      <WrittenText v-if="review.closing.after" :html="review.closing.after" class="mt-4 text-lg" />
      <details v-if="review.receipt" class="mt-6 border-l-4 border-rule pl-5">
        <summary>Receipt</summary>
        <p class="mt-1">
          {{ review.title }}, attempt {{ review.number }}, handed in {{ when(review.receipt.at) }} by
          {{ review.studentName }}: {{ review.receipt.answered }} of
          {{ count(review.receipt.questions, 'question') }} answered. Code <code>{{ review.receipt.code }}</code>
        </p>
        <ol v-if="review.receipt.answers" class="mt-1">
          <li v-for="each in review.receipt.answers" :key="each.number">
            {{ each.number }}. {{ each.text || 'no answer' }}
          </li>
        </ol>
        <button class="btn btn-quiet" @click="print">Print</button>
      </details>
      <div v-if="later.length" class="mt-6 border-l-4 border-rule pl-5">
        <p class="font-semibold">Not shown yet</p>
        <ul>
          <li v-for="line in later" :key="line" class="font-serif">{{ line }}</li>
        </ul>
      </div>
      <p v-if="review.certificate" class="mt-6"><button class="btn" @click="print">Print the certificate</button></p>
      <section v-if="review.certificate" class="certificate hidden print:block">
        <p class="text-4xl">{{ session.school }}</p>
        <p class="mt-16 text-xl">This is to certify that</p>
        <p class="mt-4 text-4xl">{{ review.certificate.name }}</p>
        <p class="mt-4 text-xl">has passed</p>
        <p class="mt-4 text-3xl">{{ review.certificate.quiz }}</p>
        <p class="mt-10">with {{ review.certificate.grade }}, {{ when(review.certificate.at) }}</p>
      </section>
      <section v-for="section in review.sections" :key="section.title" class="mt-8 print:hidden">
        <h2 class="border-b border-ink pb-1 text-xl">{{ section.title }}</h2>
        <ReviewedQuestion v-for="question in section.questions" :key="question.item" :question="question" />
      </section>
    </template>
    <p v-else-if="!problem" class="text-soft" role="status">Loading …</p>
  </main>
</template>
