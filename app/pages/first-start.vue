<script setup lang="ts">
import { schoolRoutes } from '~/client/school'

definePageMeta({ layout: 'bare' })
useHead({ title: 'A new school · Thistle' })
const session = useSession()
const { problem, busy, act } = useAct()
const zones = timeZones()
const given = reactive({
  school: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  name: '',
  email: '',
  password: '',
  word: '',
})
const asksWord = ref(false)
onMounted(async () => {
  await act(async () => {
    if (!session.school) asksWord.value = (await schoolRoutes.firstStart()).asksWord
  })
})
async function layOut() {
  await act(async () => {
    session.take(await schoolRoutes.layOut({ body: given }))
    await navigateTo('/classes')
  })
}
</script>

<template>
  <main id="main" class="mx-auto max-w-lg px-6 py-14">
    <h1 class="text-4xl">Thistle</h1>
    <template v-if="session.school">
      <p class="mt-4 text-lg">{{ session.school }} is laid out here already.</p>
      <NuxtLink to="/sign-in" class="btn btn-main mt-4">Sign in</NuxtLink>
    </template>
    <form v-else class="mt-3 space-y-4" @submit.prevent="layOut">
      <p class="text-lg text-soft">
        Nothing is here yet. Name your school, and yourself as its first teacher: you run it until you let somebody
        else.
      </p>
      <LabelledField label="Name of the school"
        ><input v-model="given.school" class="field" maxlength="160" autocomplete="organization" required
      /></LabelledField>
      <LabelledField label="Its time zone"
        ><select v-model="given.zone" class="field">
          <option v-for="zone in zones" :key="zone">{{ zone }}</option>
        </select></LabelledField
      >
      <LabelledField v-if="asksWord" label="The word that Thistle printed when it was started"
        ><input
          v-model="given.word"
          class="field"
          autocomplete="off"
          autocapitalize="characters"
          spellcheck="false"
          maxlength="60"
          required
      /></LabelledField>
      <h2 class="border-b border-ink pt-3 pb-1 text-xl">Its first teacher</h2>
      <LabelledField label="Your name"
        ><input v-model="given.name" class="field" maxlength="160" autocomplete="name" required
      /></LabelledField>
      <LabelledField label="Your e-mail, to sign in with"
        ><input v-model="given.email" class="field" type="email" autocomplete="username" required
      /></LabelledField>
      <NewPassword v-model="given.password" :person="given" />
      <ProblemNote :words="problem" />
      <button class="btn btn-main w-full" :disabled="busy">{{ busy ? 'Laying it out …' : 'Begin' }}</button>
    </form>
  </main>
</template>
