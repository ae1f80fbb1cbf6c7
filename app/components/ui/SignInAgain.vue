<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { pageLeft, sessionEnd, signedInAgain } from '~/client/session-end'

/**
 * Covers a page whose session has ended, or whose browser somebody else has signed in with. The page stays as it is, and its
 * requests are sent again afterwards. A native dialog, so that it opens above any other dialog.
 */
const session = useSession()
const sheet = useTemplateRef('sheet')
const password = ref('')
const { problem, busy, act } = useAct()
const other = computed(() => (sessionEnd.value?.why === 'other' ? sessionEnd.value.name : null))
const email = computed(() => session.person?.email ?? '')

onMounted(() => sheet.value?.showModal())

async function enter() {
  const isOwn = await act(() => session.signInAgain(email.value, password.value))
  password.value = ''
  if (isOwn) signedInAgain()
  else if (isOwn === false) startAnew()
}
/** Goes to the first page of the person who is signed in now. */
function startAnew() {
  pageLeft()
  window.location.assign('/')
}
/** Somebody may have signed in again in another tab. */
async function look() {
  if (document.hidden || busy.value) return
  if (await session.isBack().catch(() => false)) signedInAgain()
}
useEventListener(window, 'focus', () => void look())
useEventListener(document, 'visibilitychange', () => void look())
</script>

<template>
  <Teleport to="body">
    <dialog
      ref="sheet"
      aria-labelledby="sign-in-again"
      class="m-auto w-full max-w-[min(32rem,calc(100vw-2rem))] border border-ink bg-sheet p-6 text-ink shadow-lg backdrop:bg-black/40"
      @cancel.prevent
    >
      <h2 id="sign-in-again" class="border-b border-ink pb-2 font-serif text-xl font-semibold">
        {{ other === null ? 'Sign in again' : 'Somebody else has signed in' }}
      </h2>
      <p v-if="other === null" class="mt-4">
        You have been signed out. Everything on this page is still here and will be saved when you sign in again.
      </p>
      <p v-else class="mt-4">
        <bdi>{{ other }}</bdi> has signed in with this browser. This page belongs to
        <bdi>{{ session.person?.name }}</bdi>
        and has stopped, so that nothing is saved under the wrong name.
      </p>
      <form v-if="email" class="mt-4 space-y-4" @submit.prevent="enter">
        <input
          type="email"
          class="sr-only"
          autocomplete="username"
          :value="email"
          readonly
          tabindex="-1"
          aria-hidden="true"
        />
        <LabelledField :label="`Password of ${session.person?.name} (${email})`"
          ><input v-model="password" class="field" type="password" autocomplete="current-password" required autofocus
        /></LabelledField>
        <ProblemNote :words="problem" />
        <div class="flex flex-wrap gap-3">
          <button class="btn btn-main" :disabled="busy">Sign in and continue</button>
          <button type="button" class="btn" @click="startAnew">
            {{ other === null ? 'Leave this page' : `Continue as ${other}` }}
          </button>
        </div>
        <p class="text-note text-soft">If you leave this page, changes that are not saved yet may be lost.</p>
      </form>
      <div v-else class="mt-4 space-y-4">
        <p>You signed in without a password. Open your link again in another tab, then come back here.</p>
        <button class="btn" @click="startAnew">Leave this page</button>
      </div>
    </dialog>
  </Teleport>
</template>
