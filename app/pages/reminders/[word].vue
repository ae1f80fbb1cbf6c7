<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { myRoutes } from '~/client/my'

/** Calls reminders off, for who comes by the address in one: nobody has to sign in for that. */
definePageMeta({ layout: 'bare' })
useHead({ title: 'Reminders · Thistle' })
const word = String(useRoute().params.word)
const { state, error } = useAsyncState(() => myRoutes.remindersAt({ word }), null)
const { problem, busy, act } = useAct()
const set = (on: boolean) =>
  act(async () => {
    state.value = await myRoutes.setRemindersAt({ word, body: { on } })
  })
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-xl px-5 py-12">
    <h1 class="text-3xl">Reminders by mail</h1>
    <ProblemNote v-if="error" class="mt-5" :words="sentenceOf(error)" />
    <template v-if="state">
      <p class="mt-5 text-lg" role="status">
        {{
          state.on
            ? 'You get a reminder before a quiz is due that you have not sat, where your teacher sends them.'
            : 'You get no more reminders. Other letters about your quizzes still come.'
        }}
      </p>
      <ProblemNote class="mt-4" :words="problem" />
      <button class="btn btn-main mt-6" :disabled="busy" @click="set(!state.on)">
        {{ state.on ? 'Send me no more reminders' : 'Send me reminders again' }}
      </button>
    </template>
  </main>
</template>
