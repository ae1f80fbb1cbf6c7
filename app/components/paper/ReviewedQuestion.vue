<script setup lang="ts">
import type { ReviewedQuestion } from '~~/server/domain/reviews/paper-view'
import type { Response } from './AnswerField.vue'

/** One question of a review: for the student what may be seen, for the teacher all of it. */
const { question } = defineProps<{ question: ReviewedQuestion }>()
const verdicts = { right: '✓ right', partly: '± partly right', wrong: '✗ not right', unanswered: '– not answered' }
const tones = { right: 'text-green', partly: 'text-amber', wrong: 'text-red', unanswered: 'text-soft' }
const hasOptions = computed(() => question.question?.body.asks === 'one' || question.question?.body.asks === 'several')
</script>

<template>
  <article class="border-b border-rule py-5" :aria-labelledby="`n-${question.item}`">
    <p :id="`n-${question.item}`" class="flex flex-wrap gap-x-3 text-[0.9375rem] text-soft">
      <span>Question {{ question.number }}</span>
      <template v-if="question.mark">
        <span class="font-semibold" :class="tones[question.mark.verdict]">{{ verdicts[question.mark.verdict] }}</span>
        <span>{{ question.mark.points }} of {{ question.mark.possible }} {{ question.mark.possible === '1' ? 'point' : 'points' }}</span>
      </template>
    </p>
    <WrittenText v-if="question.question" :id="`s-${question.item}`" :html="question.question.stem" class="mt-1 text-lg" />
    <div v-if="question.question && hasOptions" class="mt-3">
      <AnswerField :body="question.question.body" :name="question.item" :labelledby="`s-${question.item}`" :model-value="(question.answer?.given as Response | null) ?? null" readonly :right="question.key?.options ?? []" />
    </div>
    <dl v-else-if="question.answer || question.key" class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
      <template v-if="question.answer"><dt class="text-soft">Answer</dt><dd class="font-serif text-lg">{{ question.answer.text || 'none' }}</dd></template>
      <template v-if="question.key"><dt class="text-soft">Key</dt><dd class="font-serif text-lg text-green">{{ question.key.text }}</dd></template>
    </dl>
    <div v-if="question.comments?.length" class="mt-3 border-l-4 border-petrol-mid pl-4">
      <WrittenText v-for="(comment, index) in question.comments" :key="index" :html="comment" />
    </div>
  </article>
</template>
