<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'

/** Who works in this quiz, and letting a colleague in. */
const store = useQuiz()
const email = ref('')
const { problem, act } = useAct()
const share = async () => {
  const shared = await act(
    () => quizRoutes.share({ id: store.id!, body: { email: email.value } }),
    ({ name }) => `${name} can now work in this quiz.`,
  )
  if (!shared) return
  email.value = ''
  await act(store.reload)
}
</script>

<template>
  <section>
    <h2 class="small-head">Teachers of this quiz</h2>
    <p>{{ store.view?.teachers.join(', ') }}</p>
    <form class="mt-2 flex items-end gap-2" @submit.prevent="share">
      <LabelledField label="E-mail of a colleague" class="grow"
        ><input v-model="email" class="field py-1" type="email" required /></LabelledField
      ><button class="btn py-1.5">Share</button>
    </form>
    <ProblemNote class="mt-2 text-label" :words="problem" />
  </section>
</template>
