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
const tags = ref('')
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
if (isNew.value) {
  begin()
  tags.value = question.value.tags.join(', ')
}
function letGo() {
  forget()
  tags.value = question.value.tags.join(', ')
}
function load(version?: number) {
  return act(async () => {
    detail.value = await questionRoutes.get({ id: id.value, query: version ? { version } : {} })
    question.value = detail.value.question
    // An older version that is taken up is a change to the newest: keeping it makes it the next version.
    if (version && version !== detail.value.version) differ()
    else begin(detail.value.version)
    tags.value = question.value.tags.join(', ')
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
watch(tags, (text) => {
  question.value = {
    ...question.value,
    tags: [
      ...new Set(
        text
          .split(',')
          .map((tag) => tag.trim())
          .filter(Boolean),
      ),
    ],
  }
})

const set = (values: Partial<Question>) => {
  question.value = { ...question.value, ...values } as Question
}
const setBody = (values: object) => {
  question.value = { ...question.value, body: { ...question.value.body, ...values } } as Question
}
const shared = ref('')
const { recent, note } = useRecentObjectives()
const instances = shallowRef<{ values: Record<string, string>; stem: string; key: string }[]>([])
const number = (event: Event) => Number((event.target as HTMLInputElement).value)

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
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
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
    <FoundDraft :found="found" @forget="letGo" />
    <ProblemNote class="mt-3" :words="problem" />
    <OutsideNote v-if="detail" :detail="detail" @changed="load()" />
    <p v-if="detail?.mayWrite === false && !detail.origin" class="note-look mt-3">
      This question is shared with you for reading. Write another like it to have one of your own.
    </p>
    <div v-if="ready" class="mt-5 grid gap-x-12 gap-y-10 lg:grid-cols-[1.35fr_1fr]">
      <div class="space-y-6">
        <StimulusPicker
          :chosen="question.stimulus"
          @update:chosen="set({ stimulus: $event })"
          @shown="shared = $event"
        />
        <div>
          <span class="label mb-1">{{ question.kind === 'gaps' ? 'What to do (may be left out)' : 'Question' }}</span>
          <RichText
            label="Question"
            :language="question.language"
            :model-value="question.stem"
            @update:model-value="set({ stem: $event })"
          />
        </div>
        <BodyEditor :question="question" @update:body="setBody" />
        <VaryEditor :vary="question.vary" :instances="instances" @update:vary="set({ vary: $event })" />
        <fieldset class="grid gap-4 sm:grid-cols-3">
          <legend class="small-head col-span-full mb-2">About it</legend>
          <LabelledField label="Points"
            ><input
              class="field py-1"
              type="number"
              min="0"
              max="1000"
              step="0.5"
              :value="question.points"
              @input="set({ points: number($event) })"
          /></LabelledField>
          <LabelledField label="Expected time, seconds"
            ><input
              class="field py-1"
              type="number"
              min="5"
              max="7200"
              step="5"
              :value="question.seconds"
              @input="set({ seconds: number($event) })"
          /></LabelledField>
          <LabelledField label="Difficulty"
            ><select class="field py-1" :value="question.difficulty" @change="set({ difficulty: number($event) })">
              <option v-for="level in 5" :key="level" :value="level">
                {{ level }}{{ level === 1 ? ' easy' : level === 5 ? ' hard' : '' }}
              </option>
            </select></LabelledField
          >
          <div class="sm:col-span-3">
            <ObjectivePicker
              :chosen="question.objectives"
              :objectives="objectives"
              :recent="recent"
              @update:chosen="set({ objectives: $event })"
            />
          </div>
          <DescribeMore :question="question" @set="set" />
          <LabelledField label="Internal name"
            ><input
              class="field py-1"
              maxlength="160"
              :value="question.internalName"
              @input="set({ internalName: ($event.target as HTMLInputElement).value })"
          /></LabelledField>
          <LabelledField label="Tags, with commas"
            ><input v-model="tags" class="field py-1" maxlength="300"
          /></LabelledField>
          <LabelledField label="Source"
            ><input
              class="field py-1"
              maxlength="200"
              :value="question.source"
              @input="set({ source: ($event.target as HTMLInputElement).value })"
          /></LabelledField>
        </fieldset>
        <fieldset class="space-y-3">
          <legend class="small-head">Comments that students may see afterwards</legend>
          <div
            v-for="(words, name) in { right: 'When right', wrong: 'When not right', general: 'In any case' } as const"
            :key="name"
          >
            <span class="label">{{ words }}</span>
            <RichText
              slim
              :language="question.language"
              :label="`Comment: ${words}`"
              :model-value="question.comments[name]"
              @update:model-value="set({ comments: { ...question.comments, [name]: $event } })"
            />
          </div>
        </fieldset>
        <MoreAbout :question="question" @set="set" />
        <AroundQuestion
          v-if="detail && !detail.origin"
          :key="`${detail.id}.${detail.version}`"
          :detail="detail"
          @look="load"
          @changed="reload"
        />
      </div>
      <QuestionPreview
        class="lg:sticky lg:top-4 lg:self-start"
        :question="question"
        :shared="shared"
        @instances="instances = $event"
      />
    </div>
  </main>
</template>
