<script setup lang="ts">
import { kindLabels } from '~~/core/question/kinds'
import type { Fate, StagedLine } from '~~/server/domain/imports/batch'

/** What would come in, item by item; which of it is taken; how far it is; and the way back. */
const { flow } = defineProps<{ flow: ReturnType<typeof useImport> }>()
const { batch, chosen, quizzes, problem, undone } = flow
function toggleQuiz(index: number) {
  const next = new Set(quizzes.value)
  if (!next.delete(index)) next.add(index)
  quizzes.value = next
}
const only = ref<Fate | null>(null)
const proofWords = { proven: 'proven', differs: 'differs', open: 'not proven' } as const
type State = keyof typeof proofWords
const onlyProof = ref<State | null>(null)
const isShown = (item: StagedLine) =>
  (!only.value || item.fate === only.value) && (!onlyProof.value || item.proof?.state === onlyProof.value)
/** How many of the file's items are scored here as the file scores them. */
const proofs = computed(() => {
  const items = batch.value?.items.filter((item) => item.proof) ?? []
  return (Object.keys(proofWords) as State[])
    .map((state) => ({ state, n: items.filter((item) => item.proof?.state === state).length }))
    .filter(({ n }) => n)
})
const waiting = computed(() => batch.value?.items.filter((item) => item.fate !== 'broken' && waits(item)).length ?? 0)
const counts = computed(() =>
  Object.entries(fateWords)
    .map(([fate, words]) => ({
      fate: fate as Fate,
      words,
      n: batch.value?.items.filter((item) => item.fate === fate).length ?? 0,
    }))
    .filter(({ n }) => n),
)
const shown = computed(
  () =>
    batch.value?.items
      .map((item, index) => ({ item, index }))
      .filter(({ item }) => isShown(item))
      .slice(0, 300) ?? [],
)
const hidden = computed(() => (batch.value?.items.filter(isShown).length ?? 0) - shown.value.length)
/** One is open at a time. */
const opened = ref<number | null>(null)
watch(
  () => batch.value?.id,
  () => {
    opened.value = null
  },
)
function toggle(index: number) {
  const next = new Set(chosen.value)
  if (!next.delete(index)) next.add(index)
  chosen.value = next
}
function all(on: boolean) {
  const next = new Set(chosen.value)
  batch.value?.items.forEach((item, index) => {
    if (isShown(item) && item.fate !== 'broken') {
      if (on) next.add(index)
      else next.delete(index)
    }
  })
  chosen.value = next
}
const proofTones: Record<State, string> = { proven: 'text-green', differs: 'text-amber', open: 'text-amber' }
const tones: Record<Fate, string> = {
  new: 'text-green',
  changed: 'text-petrol',
  same: 'text-soft',
  broken: 'text-red',
  near: 'text-amber',
}
</script>

<template>
  <section v-if="batch" aria-label="What would come in" class="mt-6">
    <ProblemNote class="mb-3" :words="problem" />
    <div v-if="batch.state === 'running' || batch.state === 'stopping'" class="mb-4">
      <p role="status" class="font-semibold">
        {{ batch.state === 'stopping' ? 'Stopping …' : `${batch.progress} of ${batch.total} questions` }}
      </p>
      <progress
        class="w-full accent-petrol"
        :value="batch.progress"
        :max="batch.total"
        :aria-label="`${batch.progress} of ${batch.total}`"
      />
      <button type="button" class="btn mt-2" :disabled="batch.state === 'stopping'" @click="flow.stop()">Stop</button>
    </div>
    <div v-else-if="batch.state === 'done'" class="note-good mb-4 flex flex-wrap items-center gap-3">
      <strong>{{ batch.total }} {{ batch.total === 1 ? 'question is' : 'questions are' }} in the bank.</strong
      ><NuxtLink class="link" to="/bank">Go to the bank</NuxtLink
      ><NuxtLink v-for="quiz in batch.quizzes" :key="quiz.id" class="link" :to="`/quizzes/${quiz.id}/compose`"
        >Open the quiz “{{ quiz.title }}”</NuxtLink
      ><button type="button" class="btn" @click="flow.undo()">Take all of it back</button>
    </div>
    <p v-else-if="batch.state === 'undone'" class="note-look mb-4" role="status">{{ undone }}</p>
    <div v-else class="mb-4 flex flex-wrap items-center gap-3">
      <button type="button" class="btn btn-main" :disabled="!chosen.size" @click="flow.take()">
        Bring in {{ chosen.size }} {{ chosen.size === 1 ? 'question' : 'questions' }}
      </button>
      <span class="text-soft">Nothing is in the bank yet.</span>
    </div>
    <ul
      v-if="batch.state === 'staged' && batch.tests.length"
      class="mb-4 border-y border-rule bg-sheet px-3 py-2"
      aria-label="Tests in the file"
    >
      <li v-for="(test, index) in batch.tests" :key="index">
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            class="size-4 accent-petrol"
            :checked="quizzes.has(index)"
            @change="toggleQuiz(index)"
          />
          make the test “{{ test.title }}” a quiz of
          {{ test.questions === 1 ? '1 question' : `${test.questions} questions` }}, in draft</label
        >
        <p v-for="note in test.notes" :key="note" class="ml-6 text-label text-amber">{{ note }}</p>
      </li>
    </ul>
    <div v-if="proofs.length" class="mb-3 border-y border-rule bg-sheet px-3 py-2">
      <p class="flex flex-wrap items-center gap-2">
        <span>Scored both ways, by the file’s own rules and as here, over the same answers:</span>
        <button
          v-for="{ state, n } in proofs"
          :key="state"
          type="button"
          class="tag"
          :aria-pressed="onlyProof === state"
          @click="onlyProof = onlyProof === state ? null : state"
        >
          {{ n }} {{ state === 'differs' && n > 1 ? 'differ' : proofWords[state] }}
        </button>
      </p>
      <p v-if="waiting && batch.state === 'staged'" class="mt-1 text-label text-amber">
        {{ waiting === 1 ? 'One waits' : `${waiting} wait` }} for you to decide: tick what you want as it is scored
        here.
      </p>
    </div>
    <div class="flex flex-wrap items-center gap-2">
      <button type="button" class="tag" :aria-pressed="only === null" @click="only = null">
        all {{ batch.items.length }}
      </button>
      <button
        v-for="each in counts"
        :key="each.fate"
        type="button"
        class="tag"
        :aria-pressed="only === each.fate"
        @click="only = each.fate"
      >
        {{ each.n }} {{ each.words }}
      </button>
      <template v-if="batch.state === 'staged'"
        ><button type="button" class="link text-label" @click="all(true)">choose these</button
        ><button type="button" class="link text-label" @click="all(false)">choose none of these</button></template
      >
    </div>
    <ul class="mt-3 border-t border-ink">
      <li v-for="{ item, index } in shown" :key="index" class="flex items-start gap-3 border-b border-rule py-2">
        <input
          type="checkbox"
          class="mt-1.5 size-4 shrink-0 accent-petrol"
          :checked="chosen.has(index)"
          :disabled="item.fate === 'broken' || batch.state !== 'staged'"
          :aria-label="`Take ${item.title || item.place}`"
          @change="toggle(index)"
        />
        <div class="min-w-0 grow">
          <p class="line-clamp-2 font-serif">{{ item.title || item.place }}</p>
          <p class="flex flex-wrap gap-x-3 text-note text-soft">
            <span class="font-semibold" :class="tones[item.fate]">{{ fateWords[item.fate] }}</span><span
              v-if="item.kind"
              >{{ kindLabels[item.kind] }}</span
            ><span v-if="item.key" class="line-clamp-1">Key {{ item.key }}</span
            ><span v-if="item.folder.length">{{ item.folder.join(' / ') }}</span
            ><span v-if="item.proof" class="font-semibold" :class="proofTones[item.proof.state]">{{
              proofWords[item.proof.state]
            }}</span
            ><span>{{ item.place }}</span
            ><button
              v-if="item.fate !== 'broken' && batch.state !== 'undone'"
              type="button"
              class="link"
              :aria-expanded="opened === index"
              :aria-label="`${opened === index ? 'close it' : 'open it'}: ${item.title || item.place}`"
              @click="opened = opened === index ? null : index"
            >
              {{ opened === index ? 'close it' : 'open it' }}</button
            ><NuxtLink v-if="item.existing" class="link" :to="`/bank/${item.existing}`" target="_blank"
              >look at the one in the bank</NuxtLink
            >
          </p>
          <p v-if="item.problem" class="text-label text-red">{{ item.problem }}</p>
          <p v-if="item.proof?.state === 'differs'" class="note-look mt-1">
            {{
              item.proof.example.answer === null
                ? 'Where nothing is answered'
                : `For the answer “${item.proof.example.answer}”`
            }}
            the file gives <strong>{{ item.proof.example.file }}</strong>; here it earns
            <strong>{{ item.proof.example.here }}</strong>.
          </p>
          <p v-else-if="item.proof?.state === 'open'" class="text-label text-amber">
            Whether it is scored as in the file is not known. {{ item.proof.reason }}
          </p>
          <p v-if="item.lost.length" class="text-label text-amber">
            Words of the file that are not in it: {{ item.lost.slice(0, 12).join(', ')
            }}{{ item.lost.length > 12 ? ` and ${item.lost.length - 12} more` : '' }}.
          </p>
          <p v-for="note in item.notes" :key="note" class="text-label text-amber">{{ note }}</p>
          <StagedLook v-if="opened === index" :batch="batch.id" :index="index" />
        </div>
      </li>
    </ul>
    <p v-if="hidden > 0" class="mt-2 text-soft">
      and {{ hidden }} more, which are taken or left like those above by their kind.
    </p>
  </section>
</template>
