<script setup lang="ts">
import { stage } from '~/documents/stage'
import { sessionEnd } from '~/client/session-end'

/** In the frame of a rehearsal pages look again when its time is another. */
const turn = ref(0)
const router = useRouter()
stage?.enter({
  turn() {
    turn.value++
  },
  go(path) {
    void router.push(path)
    turn.value++
  },
  path: () => router.currentRoute.value.fullPath,
  paper: () => /^\/(?:sit|review)\/([^/]+)/.exec(router.currentRoute.value.path)?.[1] ?? null,
  reconnect() {
    window.dispatchEvent(new Event('online'))
  },
})
const pageKey = computed(() => (stage ? `${router.currentRoute.value.fullPath} ${turn.value}` : undefined))
</script>

<template>
  <a
    href="#main"
    class="sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50 focus:bg-sheet focus:p-2"
    >To the content</a
  >
  <NuxtLayout><NuxtPage :page-key="pageKey" /></NuxtLayout>
  <LazySignInAgain v-if="sessionEnd && !stage" />
</template>
