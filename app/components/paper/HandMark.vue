<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import type { ReviewedQuestion } from '~~/server/domain/reviews/paper-view'

/** A mark that a person gives. It takes the place of what was computed, and can be taken back. */
const { question, quiz, attempt } = defineProps<{ question: ReviewedQuestion; quiz: string; attempt: string }>()
const emit = defineEmits<{ marked: [] }>()
const points = ref(question.mark?.points ?? '')
const comment = ref('')
const { problem, act } = useAct()
const open = ref(question.mark?.verdict === 'waiting')
function give(value: number | null) {
  return act(async () => {
    await quizRoutes.giveMark({
      id: quiz,
      attempt,
      body: { item: question.item, points: value, comment: comment.value },
    })
    announce(value === null ? 'The mark is taken back.' : `Marked: ${value} of ${question.mark?.possible}.`)
    emit('marked')
  })
}
</script>

<template>
  <div v-if="question.mark" class="mt-3">
    <form v-if="open" class="flex flex-wrap items-end gap-3" @submit.prevent="give(Number(points))">
      <label class="text-note text-soft"
        >Points of {{ question.mark.possible
        }}<input
          v-model="points"
          class="field block w-24! py-1"
          type="number"
          min="0"
          :max="question.mark.possible"
          step="0.25"
          required
      /></label>
      <label class="grow text-note text-soft"
        >Comment for the student<input v-model="comment" class="field block py-1" maxlength="4000"
      /></label>
      <button class="btn btn-main">Mark</button>
      <button
        v-if="question.mark.byHand && question.mark.points !== null"
        type="button"
        class="btn"
        @click="give(null)"
      >
        Take the mark back
      </button>
    </form>
    <button v-else type="button" class="link text-label" @click="open = true">
      {{ question.mark.byHand ? 'Mark again' : 'Mark by hand instead' }}
    </button>
    <ProblemNote class="mt-2" :words="problem" />
  </div>
</template>
