<script setup lang="ts">
import { myRoutes } from '~/client/my'
import { sessionRoutes } from '~/client/session'

useHead({ title: 'My account · Thistle' })
const session = useSession()
const current = ref('')
const next = ref('')
const { problem, busy, act } = useAct()
async function change() {
  const done = await act(
    () => sessionRoutes.changePassword({ body: { current: current.value, next: next.value } }),
    'Your password is changed. On every other device you are signed out.',
  )
  if (done) current.value = next.value = ''
}
/** Shown once: only its digest is kept. */
const calendar = ref('')
async function makeCalendar() {
  const made = await act(
    () => myRoutes.makeCalendar(),
    'This is the address of your calendar. One that was made before is over.',
  )
  if (made) calendar.value = `${location.origin}${made.address}`
}
async function endCalendar() {
  if (await act(() => myRoutes.endCalendar(), 'The address is ended: nobody reads your calendar by it any more.'))
    calendar.value = ''
}
async function leaveEverywhere() {
  await act(async () => {
    await sessionRoutes.signOutEverywhere()
    session.person = null
    await navigateTo('/sign-in')
  })
}

/** Of students alone: whether they want reminders. */
const reminders = shallowRef<{ on: boolean } | null>(null)
if (session.person?.role === 'student' && !session.person.guest)
  void act(async () => {
    reminders.value = await myRoutes.reminders()
  })
const setReminders = (on: boolean) =>
  act(async () => {
    reminders.value = await myRoutes.setReminders({ body: { on } })
    announce(on ? 'Reminders come again.' : 'No reminders come any more.')
  })
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-lg px-5 py-8">
    <h1 class="text-3xl">{{ session.person?.name }}</h1>
    <p class="text-soft">{{ session.school }}</p>
    <p v-if="session.person?.guest" class="mt-4">
      You came by a link: you have no password, and this browser alone knows you.
    </p>
    <form v-else class="mt-8 space-y-4" @submit.prevent="change">
      <h2 class="border-b border-ink pb-1 text-xl">Password</h2>
      <LabelledField label="The password until now"
        ><input v-model="current" class="field" type="password" autocomplete="current-password" required
      /></LabelledField>
      <NewPassword
        v-if="session.person"
        v-model="next"
        label="A new one"
        :person="{ ...session.person, email: null }"
      />
      <ProblemNote :words="problem" />
      <button class="btn btn-main" :disabled="busy">Change it</button>
    </form>
    <section class="mt-10">
      <h2 class="border-b border-ink pb-1 text-xl">Calendar</h2>
      <p class="mt-2 text-soft">
        When your quizzes open, close and are due, for your own calendar: as a file once, or by an address that it asks
        again and again. Whoever has the address reads it.
      </p>
      <div class="mt-3 flex flex-wrap gap-2">
        <a class="btn" href="/api/my/calendar">Take the file</a>
        <button class="btn" :disabled="busy" @click="makeCalendar">Make an address…</button>
        <button class="btn btn-quiet" :disabled="busy" @click="endCalendar">End the address</button>
      </div>
      <p v-if="calendar" class="mt-3 border-y border-rule py-3 break-all select-all">
        <code>{{ calendar }}</code>
      </p>
    </section>
    <section v-if="reminders" class="mt-10">
      <h2 class="border-b border-ink pb-1 text-xl">Letters</h2>
      <TickBox class="mt-3" :model-value="reminders.on" :disabled="busy" @update:model-value="setReminders"
        >Remind me by mail before a quiz is due that I have not sat</TickBox
      >
    </section>
    <section v-if="!session.person?.guest" class="mt-10">
      <h2 class="border-b border-ink pb-1 text-xl">Devices</h2>
      <p class="mt-2 text-soft">
        A device that you have lost, or a computer that you have left open: sign out on all of them.
      </p>
      <button class="btn mt-3" :disabled="busy" @click="leaveEverywhere">Sign out everywhere</button>
    </section>
    <section v-if="session.person?.role === 'student'" class="mt-10">
      <h2 class="border-b border-ink pb-1 text-xl">Classes</h2>
      <NuxtLink to="/join" class="btn mt-3">Join a class with a code</NuxtLink>
    </section>
  </main>
</template>
