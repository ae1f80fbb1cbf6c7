<script setup lang="ts">
import { myRoutes } from '~/client/my'
import { thisDevice } from '~/documents/device'
import { useAsyncState } from '@vueuse/core'
import { count, sentenceTime } from '~~/core/kit/phrases'
import { pointsText } from '~~/core/kit/exact'

const id = String(useRoute().params.id)
const session = useSession()
const { state: quiz, error } = useAsyncState(() => myRoutes.before({ id }), null)
useHead({ title: () => `${quiz.value?.title ?? 'Quiz'} · Thistle` })
const password = ref('')
const { problem, busy, act } = useAct()

const confirm = (done: boolean) =>
  act(async () => {
    await myRoutes.done({ id, body: { done } })
    quiz.value = { ...quiz.value!, confirmed: done }
  })

async function start() {
  await act(async () => {
    const { attempt } = await myRoutes.start({
      id,
      body: { device: thisDevice(), ...(quiz.value?.asksPassword ? { password: password.value } : {}) },
    })
    await navigateTo(`/sit/${attempt}`)
  })
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-2xl px-5 py-12">
    <ProblemNote v-if="error" :words="sentenceOf(error)" />
    <template v-if="quiz">
      <h1 class="text-3xl">{{ quiz.title }}</h1>
      <p class="mt-1 text-soft">
        {{ count(quiz.questions, 'question') }} · {{ count(Number(pointsText(quiz.points)), 'point')
        }}<template v-if="quiz.attempt > 1"> · attempt {{ quiz.attempt }}</template
        ><template v-if="quiz.due"> · due {{ sentenceTime(quiz.due, session.zone) }}</template>
      </p>
      <WrittenText v-if="quiz.intro" :html="quiz.intro" class="mt-5 text-lg" />
      <ul class="mt-6 space-y-2 border-l-4 border-rule pl-5 font-serif text-lg">
        <li v-for="sentence in quiz.told" :key="sentence">{{ sentence }}</li>
      </ul>
      <p v-if="quiz.confirmed !== null" class="mt-6">
        <TickBox :model-value="quiz.confirmed" :disabled="busy" @update:model-value="confirm"
          >I am done with this quiz</TickBox
        >
      </p>
      <form v-if="quiz.may.may" class="mt-8" @submit.prevent="start">
        <div v-if="quiz.asksPassword" class="mb-4 max-w-xs">
          <LabelledField label="Password of this quiz"
            ><input v-model="password" class="field" autocomplete="off" required
          /></LabelledField>
        </div>
        <ProblemNote class="mb-4" :words="problem" />
        <button class="btn btn-main px-6 py-2.5 text-lg" :disabled="busy">Start now</button>
        <p class="mt-2 text-soft">{{ quiz.may.sentence }}</p>
      </form>
      <p v-else class="note-look mt-8">
        {{ quiz.may.sentence }} <NuxtLink class="link" to="/my">Back to my quizzes</NuxtLink>
      </p>
    </template>
  </main>
</template>
