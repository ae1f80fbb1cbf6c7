<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import { count, sentenceTime } from '~~/core/kit/phrases'
import { editInWords, editTo } from '~~/core/quiz/edits'
import { ruleTitle } from '~~/core/rules'
import { allRows, rowSize } from '~~/core/quiz/walk'
import type { Quiz } from '~~/core/quiz'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { KeptEdit } from '~~/server/domain/quizzes/history'

/** What was done in this quiz, by whom and when; any earlier state looked at, and brought back as an edit. */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const store = useQuiz()
const session = useSession()
const { problem, act } = useAct()
const edits = shallowRef<KeptEdit[]>([])
const more = ref(false)
const shown = shallowRef<{ edit: KeptEdit; quiz: Quiz; questions: Map<string, Hit> } | null>(null)

const load = (before?: number) =>
  act(async () => {
    const page = await quizRoutes.history({ id: store.id!, query: before === undefined ? {} : { before } })
    edits.value = before === undefined ? page.edits : [...edits.value, ...page.edits]
    more.value = page.more
  })
watch(
  () => open,
  (now) => {
    shown.value = null
    if (now) void load()
  },
)
const naming = (quiz: Quiz, questions: ReadonlyMap<string, Hit>) => ({
  quiz,
  question: (id: string) => (questions.get(id) ?? store.facts.get(id))?.title,
  rule: ruleTitle,
})
const wordsOf = (edit: KeptEdit) => editInWords(edit.edit, naming(store.quiz!, store.facts)).slice(0, 4)

const look = (edit: KeptEdit) =>
  act(async () => {
    const { quiz, questions } = await quizRoutes.earlier({ id: store.id!, revision: edit.revision })
    shown.value = { edit, quiz, questions: new Map(questions.map((hit) => [hit.id, hit])) }
  })
const titleOf = (id: string) =>
  (shown.value?.questions.get(id) ?? store.facts.get(id))?.title ?? 'A question that is no longer in the bank'
const back = computed(() => (shown.value && store.quiz ? editTo(store.quiz, shown.value.quiz) : null))
function bringBack() {
  store.learn([...shown.value!.questions.values()])
  store.make(back.value)
  emit('close')
  announce('The quiz is as it was then.', store.undo)
}
</script>

<template>
  <ModalDialog wide :open="open" title="History" @close="emit('close')">
    <ProblemNote :words="problem" />
    <div v-if="shown" class="space-y-3">
      <p>
        As it was after {{ shown.edit.byName }}’s change of {{ sentenceTime(shown.edit.at, session.zone) }}:
        {{
          count(
            allRows(shown.quiz.content).reduce((all, row) => all + rowSize(row), 0),
            'question',
          )
        }}.
      </p>
      <div
        class="max-h-[50dvh] overflow-y-auto border-y border-rule"
        tabindex="0"
        role="region"
        aria-label="The quiz as it was"
      >
        <section v-for="section in shown.quiz.content.sections" :key="section.id" class="mb-3">
          <h3 class="border-b border-ink py-1 font-serif">{{ section.title }}</h3>
          <ol>
            <li v-for="row in section.rows" :key="row.id" class="border-b border-rule py-1 font-serif text-label">
              <template v-if="row.type === 'question'">{{ titleOf(row.question) }}</template>
              <template v-else-if="row.type === 'pool'"
                >Draw {{ row.draw }} of {{ row.questions.length }}{{ row.title ? ` · ${row.title}` : '' }}</template
              >
              <template v-else-if="row.type === 'stimulus'">{{ row.draw }} on a stimulus</template>
              <template v-else>A text</template>
            </li>
          </ol>
        </section>
      </div>
      <div class="flex justify-end gap-2">
        <button class="btn" @click="shown = null">Back to the history</button>
        <button class="btn btn-main" :disabled="!back" @click="bringBack">
          {{ back ? 'Bring this back' : 'It is like this now' }}
        </button>
      </div>
    </div>
    <template v-else>
      <p v-if="!edits.length && !problem" class="text-soft">Nothing was changed yet.</p>
      <ol class="max-h-[60dvh] overflow-y-auto" tabindex="0" aria-label="Changes, the newest first">
        <li v-for="edit in edits" :key="edit.revision" class="flex gap-4 border-b border-rule py-2">
          <span class="w-40 shrink-0 text-small text-soft"
            >{{ edit.byName }}<br />{{ sentenceTime(edit.at, session.zone) }}</span
          >
          <span class="min-w-0 grow text-label"
            ><span v-for="(words, i) in wordsOf(edit)" :key="i" class="block">{{ words }}</span></span
          >
          <button class="link shrink-0 self-start text-label" @click="look(edit)">look at it</button>
        </li>
      </ol>
      <div class="mt-3 flex justify-between">
        <button v-if="more" class="btn" @click="load(edits.at(-1)!.revision)">Show earlier ones</button>
        <button class="btn ml-auto" @click="emit('close')">Close</button>
      </div>
    </template>
  </ModalDialog>
</template>
