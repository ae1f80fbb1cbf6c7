<script setup lang="ts">
import { schoolRoutes } from '~/client/school'
import { useAsyncState, useIntervalFn } from '@vueuse/core'
import { sentenceTime } from '~~/core/kit/phrases'

/** Letters that were sent. Where no mail server is named they stay here, and are read here. */
useHead({ title: 'Letters · Thistle' })
const session = useSession()
const {
  state: mail,
  error,
  isReady,
  execute,
} = useAsyncState(() => schoolRoutes.mail(), null, { resetOnExecute: false })
useIntervalFn(() => void execute(), 10_000)
/** Text and the addresses in it, which can be followed. */
const parts = (body: string) => body.split(/(https?:\/\/\S+)/)
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-3xl px-5 py-8">
    <header class="flex flex-wrap items-end gap-3">
      <h1 class="grow text-3xl">Letters</h1>
      <NuxtLink to="/school" class="btn">The school</NuxtLink>
    </header>
    <p v-if="mail?.stays" class="note-look mt-4">
      No mail server is named (THISTLE_SMTP): letters stay on this machine and are read here. Those with a link let
      somebody in.
    </p>
    <ProblemNote v-if="error" class="mt-4" :words="sentenceOf(error)" />
    <EmptyNote v-if="isReady && mail && !mail.letters.length" title="No letter yet" class="mt-6"
      >Invitations and links for passwords appear here.</EmptyNote
    >
    <ul v-else-if="mail" class="mt-6">
      <li v-for="letter in mail.letters" :key="letter.id" class="border-b border-rule py-3">
        <details>
          <summary class="flex flex-wrap gap-x-4">
            <span class="min-w-56 font-semibold">{{ letter.to }}</span><span class="grow">{{ letter.subject }}</span>
            <span class="text-soft"
              >{{ sentenceTime(letter.at, session.zone)
              }}<template v-if="letter.fault">, not sent: {{ letter.fault }}</template
              ><template v-else-if="!letter.sentAt">, on its way</template></span
            >
          </summary>
          <p class="mt-3 bg-sheet p-4 font-serif whitespace-pre-line">
            <template v-for="(part, i) in parts(letter.body)" :key="i"
              ><a v-if="i % 2" :href="part" class="link break-all">{{ part }}</a
              ><template v-else>{{ part }}</template></template
            >
          </p>
        </details>
      </li>
    </ul>
  </main>
</template>
