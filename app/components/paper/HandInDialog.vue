<script setup lang="ts">
import { count } from '~~/core/kit/phrases'

/** Before a paper goes in: what is unanswered or to come back to, each a way there. */
const { unanswered } = defineProps<{
  open: boolean
  /** Titles of sections that have not been entered. */
  waiting: string[]
  unanswered: { id: string; number: number; required: boolean }[]
  flagged: { id: string; number: number }[]
  busy: boolean
  problem: string
  /** Whether a question can still be gone to. */
  mayReturn: (item: string) => boolean
  /** It may be taken up again until it is due. */
  again: boolean
}>()
const required = computed(() => unanswered.filter((question) => question.required))
const emit = defineEmits<{ close: []; go: [item: string]; handIn: [] }>()
</script>

<template>
  <ModalDialog :open="open" title="Hand in this paper?" @close="emit('close')">
    <p v-if="waiting.length" class="note-look mb-3">
      You have not entered {{ waiting.map((title) => `“${title}”`).join(', ') }} yet.
    </p>
    <p v-if="!unanswered.length && !flagged.length" class="text-lg">
      Every question has an answer, and none is marked to come back to.
    </p>
    <div
      v-for="group in [
        { of: required, words: 'to be answered before you hand in' },
        { of: unanswered.filter((question) => !question.required), words: 'not answered' },
        { of: flagged, words: 'to come back to' },
      ].filter((each) => each.of.length)"
      :key="group.words"
      class="mb-4"
    >
      <p class="font-semibold">{{ count(group.of.length, 'question') }} {{ group.words }}</p>
      <p class="mt-1 flex flex-wrap gap-1.5">
        <template v-for="question in group.of" :key="question.id">
          <button
            v-if="mayReturn(question.id)"
            class="btn min-w-9 px-2 py-1"
            :aria-label="`Go to question ${question.number}`"
            @click="emit('go', question.id)"
          >
            {{ question.number }}
          </button>
          <span v-else class="tag">{{ question.number }}</span>
        </template>
      </p>
    </div>
    <p class="text-soft">
      {{
        again
          ? 'You may take the paper up again until it is due.'
          : 'Handing in cannot be undone: after it nothing can be changed.'
      }}
    </p>
    <ProblemNote class="mt-3" :words="problem" />
    <div class="mt-5 flex justify-end gap-3">
      <button class="btn" @click="emit('close')">Go on writing</button>
      <button class="btn btn-main" :disabled="busy || required.length > 0" @click="emit('handIn')">Hand in</button>
    </div>
  </ModalDialog>
</template>
