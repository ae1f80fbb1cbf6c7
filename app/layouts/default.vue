<script setup lang="ts">
import { clockTime } from '~~/core/kit/phrases'
import { stage } from '~/documents/stage'

const session = useSession()
const route = useRoute()
const now = useNow(5000)
const { message, undo } = useAnnouncement()

const areas = computed(() =>
  session.person?.role === 'student'
    ? [{ to: '/my', name: 'My quizzes' }]
    : [
        { to: '/today', name: 'Today' },
        { to: '/bank', name: 'Bank' },
        { to: '/quizzes', name: 'Quizzes' },
        { to: '/classes', name: 'Classes' },
        ...(session.person?.admin ? [{ to: '/school', name: 'School' }] : []),
      ],
)
const isHere = (to: string) =>
  route.path === to ||
  route.path.startsWith(`${to}/`) ||
  (to === '/my' && route.path.startsWith('/review')) ||
  (to === '/classes' && route.path.startsWith('/students')) ||
  (to === '/school' && /^\/(mail|roster)/.test(route.path))
const clock = computed(
  () =>
    `${new Intl.DateTimeFormat('en-GB', { timeZone: session.zone, weekday: 'short' }).format(new Date(now.value))} ${clockTime(now.value, session.zone)}`,
)

async function leave() {
  const sure =
    !session.person?.guest ||
    (await confirmed(
      'Sign out?',
      'You came by a link, without a password: nothing but this browser knows you. Signed out, you cannot come back to what you have sat.',
      'Sign out all the same',
    ))
  if (!sure) return
  await session.signOut()
  await navigateTo('/sign-in')
}
</script>

<template>
  <div class="flex min-h-dvh flex-col">
    <header class="bg-bar text-bar-ink print:hidden">
      <div class="flex min-h-11 flex-wrap items-center gap-x-6 gap-y-1 px-5 py-1 max-sm:gap-x-4">
        <NuxtLink to="/" class="font-serif text-lg font-semibold">Thistle</NuxtLink>
        <nav aria-label="Areas" class="flex flex-wrap gap-x-5 max-sm:order-last max-sm:w-full max-sm:gap-x-4">
          <NuxtLink
            v-for="area in areas"
            :key="area.to"
            :to="area.to"
            :aria-current="isHere(area.to) ? 'page' : undefined"
            class="border-b-2 py-1.5"
            :class="
              isHere(area.to) ? 'border-bloom text-bar-ink' : 'border-transparent text-bar-soft hover:text-bar-ink'
            "
            >{{ area.name }}</NuxtLink
          >
        </nav>
        <LazyFindOrDo v-if="session.person && !stage" />
        <div class="ml-auto flex flex-wrap items-center gap-x-5 text-label max-sm:gap-x-3">
          <span class="max-sm:hidden" :title="`The school’s time (${session.zone})`">{{ clock }}</span>
          <NuxtLink to="/me" class="underline decoration-transparent underline-offset-2 hover:decoration-current">{{
            session.person?.name
          }}</NuxtLink>
          <button class="text-bar-soft underline underline-offset-2 hover:text-bar-ink" @click="leave">Sign out</button>
        </div>
      </div>
    </header>
    <SessionNotices v-if="session.person && !stage" :key="session.person.id" />
    <slot />
    <ConfirmDialog />
    <div
      role="status"
      aria-live="polite"
      class="pointer-events-none fixed bottom-4 left-1/2 z-40 -translate-x-1/2 print:hidden"
    >
      <div v-if="message" class="pointer-events-auto flex items-center gap-4 bg-bar px-4 py-2 text-bar-ink shadow">
        <span>{{ message }}</span>
        <button v-if="undo" class="underline underline-offset-2" @click="undo?.()">Undo</button>
      </div>
    </div>
  </div>
</template>
