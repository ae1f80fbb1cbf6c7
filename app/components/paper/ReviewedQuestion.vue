<script setup lang="ts">
import { count } from '~~/core/kit/phrases'
import type { ReviewedQuestion } from '~~/server/domain/reviews/paper-view'
import type { Response } from './response'

/** One question of a review: for the student what may be seen, for the teacher all of it. */
const { question } = defineProps<{ question: ReviewedQuestion }>()
const verdicts = {
  right: '✓ right',
  partly: '± partly right',
  wrong: '✗ not right',
  unanswered: '– not answered',
  waiting: '… waits for a mark',
}
const tones = {
  right: 'text-green',
  partly: 'text-amber',
  wrong: 'text-red',
  unanswered: 'text-soft',
  waiting: 'text-amber',
}
const given = computed(() => (question.answer?.given as Response | null) ?? null)
const key = computed(() => (question.key?.given as Response | null) ?? null)
const asks = computed(() => question.question?.body.asks)
/** Options show the key on themselves; of other ways of asking the key is shown beside the answer. */
const onOptions = computed(() => asks.value === 'one' || asks.value === 'several' || asks.value === 'places')
const inWords = computed(() => !question.question || asks.value === 'number' || asks.value === 'text')
</script>

<template>
  <article class="border-b border-rule py-5" :aria-labelledby="`n-${question.item}`">
    <StimulusBox
      v-if="question.stimulus"
      :html="question.stimulus.html"
      :language="question.stimulus.language"
      :label="`From question ${question.number} on`"
      class="mb-5"
    />
    <p :id="`n-${question.item}`" class="flex flex-wrap gap-x-3 text-label text-soft">
      <span>Question {{ question.number }}</span>
      <template v-if="question.mark">
        <span class="font-semibold" :class="tones[question.mark.verdict]">{{ verdicts[question.mark.verdict] }}</span>
        <span v-if="question.mark.points !== null"
          >{{ question.mark.points }} of {{ question.mark.possible }}
          {{ question.mark.possible === '1' ? 'point' : 'points' }}</span
        >
        <span v-if="question.mark.checks">checked {{ count(question.mark.checks, 'time') }}</span>
        <span v-if="question.mark.hints">{{ count(question.mark.hints, 'hint') }}</span>
      </template>
      <StageEdit :item="question.item" />
    </p>
    <WrittenText
      v-if="question.question"
      :id="`s-${question.item}`"
      :html="question.question.stem"
      :language="question.question.language"
      class="mt-1 text-lg"
    />
    <dl v-if="inWords && (question.answer || question.key)" class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
      <template v-if="question.answer"
        ><dt class="text-soft">Answer</dt>
        <dd class="font-serif text-lg">{{ question.answer.text || 'none' }}</dd></template
      >
      <template v-if="question.key"
        ><dt class="text-soft">Key</dt>
        <dd class="font-serif text-lg text-green">{{ question.key.text }}</dd></template
      >
    </dl>
    <template v-else-if="question.question">
      <AnswerField
        v-if="question.answer || onOptions"
        class="mt-3"
        :body="question.question.body"
        :name="question.item"
        :labelledby="`s-${question.item}`"
        :model-value="given"
        readonly
        :right="key?.chosen ?? []"
        :language="question.question.language"
      />
      <div v-if="question.key && !onOptions" class="mt-3 border-l-4 border-green pl-4">
        <p class="font-semibold text-green">Key</p>
        <AnswerField
          v-if="key"
          :body="question.question.body"
          :name="`${question.item}-key`"
          :labelledby="`s-${question.item}`"
          :model-value="key"
          readonly
          :language="question.question.language"
        />
        <p v-else class="whitespace-pre-line font-serif text-lg">{{ question.key.text }}</p>
      </div>
    </template>
    <div v-if="question.comments?.length" class="mt-3 border-l-4 border-petrol-mid pl-4">
      <WrittenText v-for="(comment, index) in question.comments" :key="index" :html="comment" />
    </div>
    <slot />
  </article>
</template>
