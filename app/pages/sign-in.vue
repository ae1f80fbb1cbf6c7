<script setup lang="ts">
import { sessionRoutes } from '~/client/session'
import { useAsyncState } from '@vueuse/core'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Sign in · Thistle' })

const session = useSession()
const route = useRoute()
const email = ref('')
const password = ref('')
const { problem, busy, act } = useAct()
const forgot = ref(false)
const written = ref(false)
async function ask() {
  await act(async () => {
    await sessionRoutes.forgot({ body: { email: email.value } })
    written.value = true
  })
}
const { state: people } = useAsyncState(() => sessionRoutes.demoPeople(), [])
const groups = computed(() => {
  const students = Map.groupBy(
    people.value.filter((each) => each.role === 'student'),
    (each) => each.classes ?? 'No class',
  )
  return [
    ['Teachers', people.value.filter((each) => each.role === 'teacher')] as const,
    ...[...students].map(([name, members]) => [`Students, ${name}`, members] as const),
  ].filter(([, members]) => members.length)
})

async function enter(how: () => Promise<void>) {
  await act(async () => {
    await how()
    const to = String(route.query.to ?? '/')
    await navigateTo(to.startsWith('/') && !to.startsWith('//') ? to : '/')
  })
}
</script>

<template>
  <main id="main" class="mx-auto grid max-w-5xl gap-x-14 gap-y-10 px-6 py-14 md:grid-cols-[20rem_1fr]">
    <section>
      <h1 class="text-4xl">Thistle</h1>
      <p class="mt-2 text-lg text-soft">{{ session.school || 'Quizzes, built, sat and marked.' }}</p>
      <form v-if="forgot" class="mt-8 space-y-4" @submit.prevent="ask">
        <h2 class="text-xl">A new password</h2>
        <p v-if="written" role="status" class="note-good">
          If somebody signs in with this address, a letter with a link is on its way to it. The link holds for two
          hours.
        </p>
        <template v-else>
          <p class="text-soft">
            Write the address that you sign in with. A letter brings a link. Who has no address asks their teacher.
          </p>
          <LabelledField label="E-mail"
            ><input v-model="email" class="field" type="email" autocomplete="username" required
          /></LabelledField>
          <ProblemNote :words="problem" />
          <button class="btn btn-main w-full" :disabled="busy">Write to me</button>
        </template>
        <button type="button" class="btn btn-quiet" @click="forgot = written = false">Back to signing in</button>
      </form>
      <form v-else class="mt-8 space-y-4" @submit.prevent="enter(() => session.signIn(email, password))">
        <div>
          <LabelledField label="E-mail"
            ><input v-model="email" class="field" type="email" autocomplete="username" required
          /></LabelledField>
        </div>
        <div>
          <LabelledField label="Password"
            ><input v-model="password" class="field" type="password" autocomplete="current-password" required
          /></LabelledField>
        </div>
        <ProblemNote :words="problem" />
        <button class="btn btn-main w-full" :disabled="busy">Sign in</button>
        <p class="flex flex-wrap justify-between gap-x-4 text-label">
          <button type="button" class="link" @click="forgot = true">Password forgotten</button>
          <NuxtLink to="/join" class="link">Join a class with a code</NuxtLink>
        </p>
      </form>
    </section>
    <section v-if="groups.length" class="border-rule md:border-l md:pl-14">
      <h2 class="text-xl">Or come in as one of the demo school’s people</h2>
      <p class="mt-1 text-soft">All of them are made up. Their password is “fair winds”.</p>
      <div v-for="[name, members] in groups" :key="name" class="mt-6">
        <h3 class="small-head border-b border-rule pb-1">{{ name }}</h3>
        <ul class="mt-2 flex flex-wrap gap-2">
          <li v-for="person in members" :key="person.id">
            <button
              class="btn font-normal"
              :class="person.role === 'teacher' && 'border-petrol font-semibold'"
              :disabled="busy"
              @click="enter(() => session.signInAs(person.id))"
            >
              {{ person.name }}
            </button>
          </li>
        </ul>
      </div>
    </section>
  </main>
</template>
