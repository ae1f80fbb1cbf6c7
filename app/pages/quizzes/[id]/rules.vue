<script setup lang="ts">
import { toldToStudents } from '~~/core/schedule/told'

const store = useQuiz()
const told = computed(() =>
  store.quiz ? toldToStudents(store.quiz.rules, store.quiz.content, store.quiz.rules.limit) : [],
)
const email = ref('')
const problem = ref('')

async function share() {
  problem.value = ''
  try {
    const { name } = await api<{ name: string }>(`quizzes/${store.view!.id}/teachers`, {
      method: 'POST',
      body: { email: email.value },
    })
    announce(`${name} can now work in this quiz.`)
    email.value = ''
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <QuizFrame>
    <DayLine />
    <div class="mt-5 grid gap-x-8 gap-y-8 lg:grid-cols-[1fr_1fr_19rem]">
      <SittingRules />
      <div class="space-y-8"><AttemptRules /><ReleaseSentences /></div>
      <aside class="space-y-6">
        <section>
          <h2 class="border-b border-ink pb-1.5 text-xl">Checks</h2>
          <ChecksList class="mt-3 text-[0.9375rem]" :checks="store.checks" />
        </section>
        <section class="border-l-4 border-rule pl-4 text-soft">
          <h2 class="small-head">Students are told</h2>
          <p class="font-serif">{{ told.join(' ') }}</p>
        </section>
        <section>
          <h2 class="small-head">Teachers of this quiz</h2>
          <p>{{ store.view?.teachers.join(', ') }}</p>
          <form class="mt-2 flex items-end gap-2" @submit.prevent="share">
            <label class="label grow"
              >E-mail of a colleague<input
                v-model="email"
                class="field py-1 font-normal"
                type="email"
                required /></label
            ><button class="btn py-1.5">Share</button>
          </form>
          <p v-if="problem" role="alert" class="note-stop mt-2 text-[0.9375rem]">{{ problem }}</p>
        </section>
      </aside>
    </div>
  </QuizFrame>
</template>
