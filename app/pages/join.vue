<script setup lang="ts">
import { classRoutes } from '~/client/classes'

definePageMeta({ layout: 'bare' })
useHead({ title: 'Join a class · Thistle' })
const session = useSession()
const code = ref(String(useRoute().query.code ?? ''))
const found = ref<string | null>(null)
const who = reactive({ name: '', email: '', number: '', password: '' })
const { problem, busy, act } = useAct()
const isStudent = computed(() => session.person?.role === 'student')

async function look() {
  await act(async () => {
    found.value = (await classRoutes.lookAtCode({ body: { code: code.value } })).name
  })
}
async function join() {
  await act(async () => {
    if (isStudent.value) {
      const { name, already } = await classRoutes.join({ body: { code: code.value } })
      announce(already ? `You are in “${name}” already.` : `You are in “${name}”.`)
    } else session.take(await classRoutes.joinAsNew({ body: { code: code.value, ...who } }))
    await navigateTo('/my')
  })
}
</script>

<template>
  <main id="main" class="mx-auto max-w-md px-6 py-10">
    <h1 class="text-3xl">Join a class</h1>
    <p v-if="session.person && !isStudent" class="note-look mt-4">
      You are signed in as {{ session.person.name }}, who teaches. Sign out first to try a code.
    </p>
    <form v-else-if="found === null" class="mt-5 space-y-4" @submit.prevent="look">
      <LabelledField label="The code of the class"
        ><input
          v-model="code"
          class="field py-3 text-center font-serif text-2xl! uppercase tracking-[0.2em]"
          autocomplete="off"
          autocapitalize="characters"
          spellcheck="false"
          maxlength="40"
          required
      /></LabelledField>
      <p class="text-label text-soft">Five letters and three digits, from the wall or from your teacher.</p>
      <ProblemNote :words="problem" />
      <button class="btn btn-main w-full py-3" :disabled="busy">Continue</button>
      <NuxtLink v-if="!session.person" to="/sign-in" class="link inline-block">To signing in</NuxtLink>
    </form>
    <form v-else class="mt-5 space-y-4" @submit.prevent="join">
      <p class="border-y border-rule py-4 font-serif text-2xl">{{ found }}</p>
      <p v-if="isStudent" class="text-soft">You join as {{ session.person!.name }}.</p>
      <template v-else>
        <p class="text-soft">
          Say who you are. If your school has put you on its list, use the e-mail or the number it knows you by. If you
          sign in to Thistle already,
          <NuxtLink :to="{ path: '/sign-in', query: { to: `/join?code=${encodeURIComponent(code)}` } }" class="link"
            >sign in first</NuxtLink
          >.
        </p>
        <LabelledField label="Your name, as your teacher knows it"
          ><input v-model="who.name" class="field" autocomplete="name" maxlength="160" required
        /></LabelledField>
        <LabelledField label="Your e-mail, to sign in with"
          ><input v-model="who.email" class="field" type="email" autocomplete="username" required
        /></LabelledField>
        <LabelledField label="Your student number, if you have one"
          ><input v-model="who.number" class="field" autocomplete="off" spellcheck="false" maxlength="100"
        /></LabelledField>
        <NewPassword v-model="who.password" :person="who" />
      </template>
      <ProblemNote :words="problem" />
      <button class="btn btn-main w-full py-3" :disabled="busy">Join {{ found }}</button>
      <button type="button" class="btn btn-quiet" @click="found = null">Another code</button>
    </form>
  </main>
</template>
