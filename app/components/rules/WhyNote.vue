<script setup lang="ts">
import { until } from '@vueuse/core'
import { quizRoutes } from '~/client/quizzes'
import type { Reply } from '~/client/route'
import { alikeName } from '~~/core/people'
import type { Edit } from '~~/core/quiz/edits'

/** Why somebody can sit it now, or cannot: the rule that decides, what they read, and what would let them. */
const store = useQuiz()
const typed = ref('')
const asked = ref<{ id: string; name: string } | null>(null)
const answer = shallowRef<Reply<typeof quizRoutes.why> | null>(null)
const { problem, busy, act } = useAct()
const found = computed(() => {
  const wanted = alikeName(typed.value)
  if (!wanted || asked.value) return []
  return (store.view?.students ?? []).filter(({ name }) => alikeName(name).includes(wanted)).slice(0, 6)
})
async function ask(student: { id: string; name: string }) {
  asked.value = student
  typed.value = student.name
  const reply = await act(() => quizRoutes.why({ id: store.id!, query: { student: student.id } }))
  if (reply && asked.value?.id === student.id) answer.value = reply
}
function again() {
  asked.value = null
  answer.value = null
}
/** A remedy is an edit like any other; when it is kept the answer is asked anew. */
async function mend(edit: Edit) {
  // Its label says what it does, and for whom.
  store.make(edit, true)
  await until(() => store.waiting.length).toBe(0, { timeout: 10_000 })
  if (asked.value) await ask(asked.value)
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">Why can … not sit it?</h2>
    <LabelledField label="A student" class="mt-3">
      <input v-model="typed" class="field" type="search" placeholder="Type a name" @input="again" />
    </LabelledField>
    <ul v-if="found.length" class="border-x border-b border-rule bg-sheet">
      <li v-for="student in found" :key="student.id">
        <button class="w-full px-3 py-1.5 text-left hover:bg-petrol-tint" @click="ask(student)">
          {{ student.name }}
        </button>
      </li>
    </ul>
    <p v-else-if="typed && !asked" class="mt-1 text-label text-soft">Nobody of your classes is called so.</p>
    <ProblemNote class="mt-2" :words="problem" />
    <div v-if="answer" class="mt-3 space-y-1.5 text-label" role="status">
      <p>
        <span class="font-semibold" :class="answer.may ? 'text-green' : 'text-amber'">{{
          answer.may ? '✓ Can sit it now.' : answer.sees ? 'Sees it, cannot start now.' : 'Does not see it.'
        }}</span>
        {{ answer.sentence }}
      </p>
      <p v-if="answer.told" class="text-soft">They read: “{{ answer.told }}”</p>
      <button
        v-if="answer.remedy && 'edit' in answer.remedy"
        class="min-h-6 font-semibold text-petrol underline underline-offset-2"
        :disabled="busy"
        @click="mend(answer.remedy.edit)"
      >
        {{ answer.remedy.label }}
      </button>
    </div>
  </section>
</template>
