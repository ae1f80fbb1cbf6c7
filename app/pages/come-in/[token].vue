<script setup lang="ts">
import { sessionRoutes } from '~/client/session'
import { useAsyncState } from '@vueuse/core'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Choose a password · Thistle' })
const session = useSession()
const token = String(useRoute('come-in-token').params.token)
const {
  state: pass,
  error,
  isReady,
} = useAsyncState(() => sessionRoutes.lookAtPass({ token }), null, {
  onError: () => {},
})
const password = ref('')
const { problem, busy, act } = useAct()
async function choose() {
  await act(async () => {
    session.take(await sessionRoutes.usePass({ token, body: { password: password.value } }))
    await navigateTo('/')
  })
}
</script>

<template>
  <main id="main" class="mx-auto max-w-md px-6 py-14">
    <h1 class="text-4xl">Thistle</h1>
    <div v-if="error" class="mt-6">
      <ProblemNote :words="sentenceOf(error)" />
      <NuxtLink to="/sign-in" class="link mt-4 inline-block">To signing in</NuxtLink>
    </div>
    <form v-else-if="isReady && pass" class="mt-3 space-y-4" @submit.prevent="choose">
      <p class="text-lg">{{ pass.name }}, {{ pass.school }}</p>
      <p class="text-soft">
        {{ pass.again ? 'Choose a new password. Everywhere else you are signed out.' : 'Choose a password.' }}
        <template v-if="pass.email">You sign in with {{ pass.email }}.</template>
      </p>
      <input type="hidden" autocomplete="username" :value="pass.email ?? ''" />
      <NewPassword v-model="password" :person="pass" />
      <ProblemNote :words="problem" />
      <button class="btn btn-main w-full" :disabled="busy">Keep it and come in</button>
    </form>
  </main>
</template>
