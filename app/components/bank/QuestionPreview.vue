<script setup lang="ts">
import { pointsText } from '~~/core/kit/exact'
import { questionRoutes } from '~/client/questions'
import { useDebounceFn } from '@vueuse/core'
import type { Question } from '~~/core/question'
import type { Preview } from '~~/server/domain/bank/questions/preview'
import type { Response } from '~/components/paper/response'

/** The question as a student would see it, kept up as it is written; an answer can be tried. Nothing is kept. */
const { question, shared = '' } = defineProps<{
  question: Question
  /** What it shares with others. */ shared?: string
}>()
const emit = defineEmits<{ instances: [Preview['instances']] }>()
const preview = shallowRef<Preview | null>(null)
const answer = ref<Response | null>(null)
const problem = ref('')
/** Hints that have been looked at. */
const hints = ref(0)
let looking = new AbortController()

/** Looks at the question as it is by now; an older look that is still under way is of no use, and is ended. */
async function refresh() {
  looking.abort()
  const { signal } = (looking = new AbortController())
  try {
    const body = { question, answer: answer.value ?? undefined }
    const found = await questionRoutes.preview({ body, signal })
    if (signal.aborted) return
    preview.value = found
    problem.value = ''
    emit('instances', found.instances)
  } catch (error) {
    if (!signal.aborted) problem.value = sentenceOf(error)
  }
}
onBeforeUnmount(() => {
  looking.abort()
})
const soon = useDebounceFn(refresh, 350)
watch(() => question, soon, { deep: true })
watch(answer, soon)
watch(
  () => question.kind,
  () => {
    answer.value = null
  },
)
onMounted(refresh)
const verdict = computed(() => {
  const result = preview.value?.result
  if (!result || preview.value?.keyless) return ''
  if (result.share === null) return '… waits for a mark by hand'
  return result.share >= 1 ? '✓ right' : result.share > 0 ? '± partly right' : '✗ not right'
})
</script>

<template>
  <section aria-label="As a student sees it">
    <h2 class="small-head border-b border-rule pb-1">As a student sees it</h2>
    <ProblemNote class="mt-3" :words="problem" />
    <StimulusBox
      v-if="shared"
      :html="shared"
      label="Shared with other questions"
      class="mt-3 max-h-80 overflow-y-auto"
    />
    <div v-if="preview" class="mt-3">
      <p class="text-label text-soft">
        Question 1 · {{ preview.points }} {{ preview.points === 1 ? 'point' : 'points' }}
      </p>
      <WrittenText
        id="preview-stem"
        :html="preview.stem || (preview.body.asks === 'gaps' ? '' : '<p>…</p>')"
        :language="question.language"
        class="mb-4 text-xl"
      />
      <AnswerField
        v-model="answer"
        :body="preview.body"
        name="preview"
        labelledby="preview-stem"
        :language="question.language"
      />
      <div v-if="question.hints.length" class="mt-3 text-label">
        <WrittenText
          v-for="hint in question.hints.slice(0, hints)"
          :key="hint"
          :html="hint"
          :language="question.language"
          class="mt-1 border-l-4 border-amber pl-3"
        />
        <button v-if="hints < question.hints.length" type="button" class="link" @click="hints++">
          Look at hint {{ hints + 1 }} of {{ question.hints.length }}
        </button>
        <span class="text-soft">Given only where a quiz allows it.</span>
      </div>
      <div aria-live="polite">
        <div v-if="preview.result" class="mt-4 border-l-4 border-petrol-mid pl-4">
          <p v-if="preview.result.unreadable" class="text-amber">{{ preview.result.unreadable }}</p>
          <p v-else>
            <strong>{{ verdict }}</strong>
            <template v-if="preview.result.points !== null">
              · {{ pointsText(preview.result.points) }} of {{ preview.points }}</template
            >
          </p>
          <p class="text-green"><span class="text-soft">Key</span> {{ preview.result.key }}</p>
          <WrittenText v-for="(comment, index) in preview.result.comments" :key="index" :html="comment" />
        </div>
        <p v-else class="mt-3 text-label text-soft">Try an answer: what it earns is shown here.</p>
      </div>
      <ul v-if="preview.faults.length" class="note-look mt-4 list-inside list-disc">
        <li v-for="fault in preview.faults" :key="fault">{{ fault }}</li>
      </ul>
    </div>
  </section>
</template>
