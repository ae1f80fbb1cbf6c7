<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { sessionRoutes } from '~/client/session'
import { sentenceTime } from '~~/core/kit/phrases'

/** Tells a person who has signed in that somebody else made a link to change their password. */
const session = useSession()
const { state: notices } = useAsyncState(async () => (await sessionRoutes.notices()).links, [], {
  // They are shown on the next page.
  onError: () => {},
})
const { problem, busy, act } = useAct()
async function read() {
  if (await act(() => sessionRoutes.readNotices())) notices.value = []
}
</script>

<template>
  <section v-if="notices.length" aria-label="About your password" class="border-b border-amber bg-amber-tint px-5 py-3">
    <p v-for="notice in notices" :key="notice.madeAt">
      <bdi>{{ notice.by }}</bdi> made a link to change your password ({{ sentenceTime(notice.madeAt, session.zone) }}).
      {{ notice.usedAt ? `It was used ${sentenceTime(notice.usedAt, session.zone)}.` : 'It has not been used.' }}
    </p>
    <p class="mt-1">
      If you did not ask for it, tell your school.
      <NuxtLink to="/me" class="link">Change your password</NuxtLink>
      <button class="btn ml-3" :disabled="busy" @click="read">Close</button>
    </p>
    <ProblemNote :words="problem" />
  </section>
</template>
