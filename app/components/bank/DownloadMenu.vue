<script setup lang="ts">
import { questionRoutes } from '~/client/questions'
import type { Unseen } from '~~/formats'

/** Writes questions, or a quiz, as a file; what a plain reader of it will not see is said before. */
const {
  what,
  questions,
  quiz = undefined,
} = defineProps<{
  what: 'questions' | 'quiz'
  /** Those that will be in it. */
  questions: string[]
  /** The quiz that holds them. */
  quiz?: string
}>()
const formats = useFileFormats()
const options = computed(() => formats[what].value)
const { act, problem, busy } = useAct()
const asked = shallowRef<{ as: string; label: string; whole: boolean; unseen: Unseen[] } | null>(null)
const shown = computed(() => asked.value?.unseen.slice(0, 200) ?? [])

function pick(as: string) {
  return act(async () => {
    const unseen = questions.length ? await questionRoutes.unseen({ body: { questions, as } }) : []
    if (!unseen.length && what === 'questions') await write(as)
    else {
      const format = options.value.find(({ value }) => value === as)
      asked.value = { as, unseen, label: format?.label ?? '', whole: format?.whole ?? false }
    }
  })
}
async function write(as: string) {
  await (quiz === undefined
    ? downloadFile('questions/file', { questions, as })
    : downloadFile(`quizzes/${quiz}/file`, { as }))
  asked.value = null
}
</script>

<template>
  <div>
    <PickMenu up words="Download as" :options="options" @pick="pick" />
    <ModalDialog
      wide
      :open="asked !== null"
      :title="asked?.whole ? `What others will not see in ${asked.label}` : `What will not be in ${asked?.label ?? ''}`"
      @close="asked = null"
    >
      <p v-if="what === 'quiz'" class="mb-2">
        Windows, attempts, what counts, when it is shown and everything else of its rules stay here: the file has its
        running order, its points, its time limit and its questions.
      </p>
      <p v-if="asked?.unseen.length" class="mb-2">
        {{
          asked.whole
            ? 'Thistle reads all of it again. A program that knows nothing of Thistle will not see, of'
            : 'Such a file has no place for this, of'
        }}
        {{ asked.unseen.length === 1 ? 'one question' : `${asked.unseen.length} questions` }}:
      </p>
      <dl class="max-h-[50vh] overflow-y-auto border-y border-rule" tabindex="0" aria-label="What is not seen">
        <div v-for="each in shown" :key="each.id" class="border-b border-rule py-1.5 last:border-0">
          <dt class="font-serif">{{ each.title }}</dt>
          <dd v-for="words in each.what" :key="words" class="text-label text-soft">{{ words }}</dd>
        </div>
      </dl>
      <p v-if="asked && asked.unseen.length > shown.length" class="mt-2 text-soft">
        and {{ asked.unseen.length - shown.length }} more questions
      </p>
      <ProblemNote class="mt-3" :words="problem" />
      <div class="mt-5 flex justify-end gap-3">
        <button class="btn" @click="asked = null">Leave it</button>
        <button class="btn btn-main" :disabled="busy" @click="asked && act(() => write(asked!.as))">Download it</button>
      </div>
    </ModalDialog>
    <ProblemNote v-if="asked === null" class="mt-2" :words="problem" />
  </div>
</template>
