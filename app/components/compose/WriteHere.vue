<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { objectiveRoutes } from '~/client/objectives'
import { questionRoutes } from '~/client/questions'
import { blankQuestion } from '~~/core/question/blank'
import type { Question } from '~~/core/question'
import { kindLabels } from '~~/core/question/kinds'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { QuestionDetail } from '~~/server/domain/bank/questions/questions'
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import type { Writing } from '~/utils/writing'

/** A question written, or changed, without leaving the quiz. What is not kept yet is found again when it is opened again. */
const { writing, quiz } = defineProps<{ writing: Writing; quiz: { id: string; title: string } }>()
const emit = defineEmits<{
  close: []
  /** A new question is in the bank. */
  made: [Hit]
  /** The question has a new version. */
  changed: [Hit]
  /** There is a copy, for this quiz alone. */
  copied: [Hit]
}>()
const isNew = writing.as === 'new'
const question = ref<Question>(
  writing.as === 'new' ? { ...blankQuestion(writing.kind), ...writing.begins } : blankQuestion('choice'),
)
provide(
  questionLanguage,
  computed(() => question.value.language),
)
const detail = shallowRef<QuestionDetail | null>(null)
const ready = ref(isNew)
const { problem, busy, act } = useAct()
const { state: objectives } = useAsyncState(() => objectiveRoutes.list(), [] as Objective[])
const { recent, note } = useRecentObjectives()
const { changed, found, settle, begin, forget, remember } = useDraft(
  () => (writing.as === 'new' ? `quiz:${quiz.id}:new:${writing.kind}` : `question:${writing.question}`),
  question,
)
const title = computed(() =>
  writing.as === 'new' ? `New question: ${kindLabels[writing.kind].toLowerCase()}` : 'Change a question',
)
if (isNew) begin()
else
  void act(async () => {
    detail.value = await questionRoutes.get({ id: writing.as === 'change' ? writing.question : '' })
    question.value = detail.value.question
    begin(detail.value.version)
    ready.value = true
  })

/** As lists and running orders show it. */
async function hitOf(id: string): Promise<Hit> {
  const { hits } = await questionRoutes.search({ query: { id, state: 'all' } as never })
  return hits[0]!
}
async function keepNew() {
  if (writing.as !== 'new') return
  note(question.value.objectives)
  await act(async () => {
    const made = await questionRoutes.add({
      query: { folder: writing.folder ?? '', sharing: 'school' },
      body: question.value,
    })
    settle()
    emit('made', await hitOf(made.id))
    announce(
      made.state === 'work'
        ? 'In the bank as “in work”, and in the running order: it cannot be marked yet.'
        : 'In the bank, and in the running order.',
    )
  })
}
async function keepVersion() {
  const { id, versions } = detail.value!
  await act(async () => {
    const made = await questionRoutes.revise({ id, body: { on: versions[0]!.version, question: question.value } })
    settle(made.version)
    emit('changed', await hitOf(id))
    announce(`Version ${made.version} is in the bank, for every quiz that follows the newest.`)
  })
}
async function keepCopy() {
  await act(async () => {
    const internalName = `${question.value.internalName} (for “${quiz.title}”)`.trim().slice(0, 160)
    const made = await questionRoutes.add({
      query: { folder: '', sharing: 'private' },
      body: { ...question.value, internalName },
    })
    settle()
    emit('copied', await hitOf(made.id))
    announce('A copy for this quiz only: the question in the bank stays as it was.')
  })
}
function close() {
  remember()
  emit('close')
}
</script>

<template>
  <SidePanel open :title="title" @close="close">
    <template #acts>
      <button v-if="isNew" class="btn btn-main" :disabled="busy || !changed" @click="keepNew">
        Keep in the bank and put in
      </button>
      <template v-else-if="detail">
        <button class="btn" :disabled="busy || !changed" @click="keepCopy">A copy for this quiz only</button>
        <button
          class="btn btn-main"
          :disabled="busy || !changed || !detail.mayWrite"
          :title="detail.mayWrite ? '' : 'This question is shared with you for reading'"
          @click="keepVersion"
        >
          For the bank, as version {{ detail.version + 1 }}
        </button>
      </template>
    </template>
    <FoundDraft :found="found" @forget="forget" />
    <ProblemNote class="mb-3" :words="problem" />
    <p v-if="!ready && !problem" class="text-soft" role="status">Loading …</p>
    <QuestionForm
      v-if="ready"
      v-model="question"
      class="grid gap-x-10 gap-y-8 lg:grid-cols-[1.35fr_1fr]"
      :objectives="objectives"
      :recent="recent"
    />
  </SidePanel>
</template>
