<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { quizRoutes } from '~/client/quizzes'
import { count, percent } from '~~/core/kit/phrases'
import { kindLabels } from '~~/core/question/kinds'

/** What was answered in a survey: counts and shares, as bars with their figures. Nobody's name is in it. */
const { quiz } = defineProps<{ quiz: string }>()
const { state: figures, error } = useAsyncState(() => quizRoutes.answers({ id: quiz }), null)
const share = (n: number, of: number) => (of ? n / of : 0)
</script>

<template>
  <section>
    <h2 class="text-xl">What was answered</h2>
    <ProblemNote v-if="error" class="mt-2" :words="sentenceOf(error)" />
    <p v-else-if="!figures" class="text-soft" role="status">Counting …</p>
    <template v-else>
      <p class="text-soft">{{ count(figures.papers, 'paper') }} handed in.</p>
      <div v-for="question in figures.questions" :key="question.id" class="mt-6">
        <h3 class="font-serif text-lg font-normal">{{ question.title }}</h3>
        <p class="text-note text-soft">
          {{ kindLabels[question.kind] }} · {{ question.answered }} of {{ question.asked }} answered
        </p>
        <table class="mt-1 w-full max-w-3xl">
          <caption class="sr-only">
            Answers to:
            {{
              question.title
            }}
          </caption>
          <tbody>
            <tr v-for="each in question.counts" :key="each.words" class="border-b border-rule">
              <th scope="row" class="w-1/2 py-1 pr-3 text-left align-top font-normal [overflow-wrap:anywhere]">
                {{ each.words }}
              </th>
              <td class="py-1">
                <span
                  class="inline-block h-3 bg-petrol align-middle"
                  :style="{ width: `${share(each.n, question.answered) * 65}%` }"
                  aria-hidden="true"
                />
                <span class="ml-2 text-label"
                  >{{ each.n }} <span class="text-soft">({{ percent(share(each.n, question.answered)) }})</span></span
                >
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="question.more" class="text-note text-soft">and {{ count(question.more, 'other answer') }}</p>
      </div>
    </template>
  </section>
</template>
