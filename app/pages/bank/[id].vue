<script setup lang="ts">
import { objectiveRoutes } from '~/client/objectives'
import { questionRoutes } from '~/client/questions'
import { useAsyncState } from '@vueuse/core'
import { blankQuestion } from '~~/core/question/blank'
import { plainText } from '~~/core/question/allowed-html'
import { begunWith } from '~/utils/begun-with'
import type { KindName, Question } from '~~/core/question'
import { kindLabels } from '~~/core/question/kinds'
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import type { QuestionDetail } from '~~/server/domain/bank/questions/questions'

const route = useRoute()
const id = computed(() => String(route.params.id))
/** The rehearsal that somebody comes from. */
const back = /^\/quizzes\/[\w-]+\/rehearse$/.exec(String(route.query.back ?? ''))?.[0]
const isNew = computed(() => id.value === 'new')
const asked = String(route.query.kind ?? 'choice')
const question = ref<Question>({
  ...blankQuestion(asked in kindLabels ? (asked as KindName) : 'choice'),
  stimulus: route.query.stimulus ? String(route.query.stimulus) : null,
  ...begunWith(route.query),
})
provide(
  questionLanguage,
  computed(() => question.value.language),
)
const detail = shallowRef<QuestionDetail | null>(null)
const { problem, busy, act } = useAct()
const { state: objectives } = useAsyncState(() => objectiveRoutes.list(), [] as Objective[])
/** Its internal name, else its beginning: lists call it so as well. */
const title = computed(() => {
  if (isNew.value) return `New question: ${kindLabels[question.value.kind].toLowerCase()}`
  const { internalName, stem, kind } = question.value
  return internalName || plainText(stem) || kindLabels[kind]
})
useHead({ title: () => `${isNew.value ? 'New question' : 'Question'} · Thistle` })

/** The page is there at once and is filled when its question has come: a page that waits can be left half way. */
const ready = ref(isNew.value)
const { changed, found, settle, settleAt, begin, differ, forget, keeping } = useDraft(
  () => (isNew.value ? `question:new:${asked}:${String(route.query.stimulus ?? '')}` : `question:${id.value}`),
  question,
)
if (isNew.value) begin()
function load(version?: number) {
  return act(async () => {
    detail.value = await questionRoutes.get({ id: id.value, query: version ? { version } : {} })
    question.value = detail.value.question
    // An older version that is taken up is a change to the newest: keeping it makes it the next version.
    if (version && version !== detail.value.version) differ()
    else begin(detail.value.version)
    ready.value = true
  })
}
/** Folder or sharing has changed; what is being written stays. */
function reload() {
  return act(async () => {
    detail.value = await questionRoutes.get({ id: id.value })
  })
}
if (!isNew.value) void load()
const { recent, note } = useRecentObjectives()

async function keep(another = false) {
  note(question.value.objectives)
  if (!isNew.value) {
    const { reply } = await keeping(() => act(revise))
    // What was written while it was being kept stays, as a change to it.
    if (reply) await (changed.value ? reload() : load())
    return
  }
  const { reply, goes } = await keeping(() => act(add))
  if (!reply) return
  if (another) {
    question.value = {
      ...blankQuestion(question.value.kind),
      stimulus: question.value.stimulus,
      objectives: question.value.objectives,
      difficulty: question.value.difficulty,
      points: question.value.points,
      seconds: question.value.seconds,
      tags: question.value.tags,
    }
    begin()
    window.scrollTo({ top: 0 })
  } else if (!goes) await navigateTo(`/bank/${reply.id}`, { replace: true })
}
async function add() {
  const made = await questionRoutes.add({ body: question.value })
  announce(made.state === 'work' ? 'Kept as “in work”: it cannot be marked yet.' : 'Kept in the bank.')
  settleAt(`question:${made.id}`, made.version)
  return made
}
async function revise() {
  const made = await questionRoutes.revise({
    id: id.value,
    body: { on: detail.value!.versions[0]!.version, question: question.value },
  })
  settle(made.version)
  announce(
    `Version ${made.version} is kept.${made.state === 'work' ? ' It is “in work”: it cannot be marked yet.' : ''}`,
  )
  return made
}

function retire(retired: boolean) {
  return act(async () => {
    await questionRoutes.setState({ id: id.value, body: { retired } })
    announce(
      retired ? 'Retired: it is no longer offered. Quizzes that are open keep it.' : 'In use again.',
      retired
        ? () => {
            void retire(false)
          }
        : null,
    )
    await load()
  })
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-7xl px-5 py-6">
    <p class="flex gap-x-4 text-label">
      <NuxtLink class="link" to="/bank">Bank</NuxtLink>
      <NuxtLink v-if="back" class="link" :to="back">Back to the rehearsal</NuxtLink>
    </p>
    <div class="mt-1 flex flex-wrap items-center gap-3">
      <h1 class="line-clamp-1 min-w-0 max-w-[60%] text-2xl max-lg:max-w-full">{{ ready ? title : 'Loading …' }}</h1>
      <span v-if="detail" class="text-label text-soft"
        >{{ kindLabels[question.kind] }} · version {{ detail.version
        }}<template v-if="!detail.origin"> · {{ detail.ownerName }}</template></span
      >
      <span v-if="detail && detail.state !== 'usable'" class="state bg-amber-tint! text-amber!">{{
        detail.state === 'work' ? 'In work' : 'Retired'
      }}</span>
      <div class="ml-auto flex flex-wrap gap-2">
        <button v-if="detail && !detail.origin" class="btn" @click="retire(detail.state !== 'retired')">
          {{ detail.state === 'retired' ? 'Use it again' : 'Retire' }}
        </button>
        <button v-if="isNew" class="btn" :disabled="busy || !changed" @click="keep(true)">
          Keep and write another like it
        </button>
        <button class="btn btn-main" :disabled="busy || !changed || detail?.mayWrite === false" @click="keep()">
          {{ isNew ? 'Keep in the bank' : 'Keep as a new version' }}
        </button>
      </div>
    </div>
    <FoundDraft :found="found" @forget="forget" />
    <ProblemNote class="mt-3" :words="problem" />
    <OutsideNote v-if="detail" :detail="detail" @changed="load()" />
    <p v-if="detail?.mayWrite === false && !detail.origin" class="note-look mt-3">
      This question is shared with you for reading. Write another like it to have one of your own.
    </p>
    <QuestionForm
      v-if="ready"
      v-model="question"
      class="mt-5 grid gap-x-12 gap-y-10 lg:grid-cols-[1.35fr_1fr]"
      :objectives="objectives"
      :recent="recent"
    >
      <AroundQuestion
        v-if="detail && !detail.origin"
        :key="`${detail.id}.${detail.version}`"
        :detail="detail"
        @look="load"
        @changed="reload"
      />
    </QuestionForm>
  </main>
</template>
