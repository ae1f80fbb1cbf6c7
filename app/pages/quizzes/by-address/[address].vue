<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'

/** Where the address of a quiz leads: to a look at it, among one's own quizzes. */
const route = useRoute()
const { problem, act } = useAct()
const go = () =>
  act(async () => {
    const { id } = await quizRoutes.byAddress({ body: { address: String(route.params.address) } })
    await navigateTo({ path: '/quizzes', query: { look: id } }, { replace: true })
  })
onMounted(go)
</script>

<template>
  <main id="main" class="mx-auto max-w-xl px-6 py-20">
    <template v-if="problem">
      <h1 class="text-2xl">This quiz cannot be looked at</h1>
      <p class="mt-3 text-lg">{{ problem }}</p>
      <NuxtLink class="btn mt-5" to="/quizzes">Quizzes</NuxtLink>
    </template>
    <p v-else class="text-soft" role="status">Looking for the quiz …</p>
  </main>
</template>
