<script setup lang="ts">
import { linkRoutes } from '~/client/links'
import type { LinkDoor } from '~~/server/domain/links/come-in'

definePageMeta({ layout: 'bare' })
const token = String(useRoute().params.token)
const session = useSession()
const door = shallowRef<LinkDoor | null>(null)
const entries = reactive<Record<string, string>>({})
/** What is wrong with an entry, by its field. */
const faults = ref<Record<string, string>>({})
const { problem, busy, act } = useAct()
useHead({ title: () => `${door.value?.title ?? 'A quiz'} · Thistle` })
const isStudent = computed(() => session.person?.role === 'student')
const signInFirst = computed(() => ({ path: '/sign-in', query: { to: `/link/${token}` } }))

onMounted(() =>
  act(async () => {
    door.value = await linkRoutes.look({ token })
    if (door.value.isIn) await navigateTo(`/my/${door.value.quiz}`)
  }),
)
async function comeIn() {
  faults.value = {}
  await act(async () => {
    try {
      const reply = await linkRoutes.comeIn({ token, body: { entries: { ...entries } } })
      session.take(reply.session)
      await navigateTo(`/my/${reply.quiz}`)
    } catch (error) {
      if (!(error instanceof ApiProblem) || !error.more.faults) throw error
      const found = error.more.faults as { field: string; sentence: string }[]
      faults.value = Object.fromEntries(found.map(({ field, sentence }) => [field, sentence]))
      // What is wrong with entries stands beside them.
      if (error.code !== 'entries') throw error
      announce(sentenceOf(error))
    }
  })
}
</script>

<template>
  <main id="main" class="mx-auto max-w-md px-6 py-10">
    <template v-if="door">
      <h1 class="text-3xl">{{ door.title }}</h1>
      <p v-if="session.person && !isStudent" class="note-look mt-4">
        You are signed in as {{ session.person.name }}, who teaches. Sign out first to come in by this link.
      </p>
      <div v-else-if="door.by === 'signedIn' && !isStudent" class="mt-5">
        <p>This quiz is for students of the school.</p>
        <NuxtLink class="btn btn-main mt-4" :to="signInFirst">Sign in</NuxtLink>
        <ProblemNote class="mt-3" :words="problem" />
      </div>
      <form v-else class="mt-5 space-y-4" novalidate @submit.prevent="comeIn">
        <p v-if="isStudent" class="text-soft">You come in as {{ session.person!.name }}.</p>
        <p v-else-if="door.fields.length" class="text-soft">
          Write who you are. If you sign in to Thistle already,
          <NuxtLink class="link" :to="signInFirst">sign in first</NuxtLink>.
        </p>
        <template v-if="door.by === 'fields'">
          <div v-for="field in door.fields" :key="field.id">
            <LabelledField :label="field.required ? field.name : `${field.name} (may be left out)`"
              ><input
                v-model="entries[field.id]"
                class="field"
                :type="field.sort === 'date' ? 'date' : 'text'"
                :inputmode="field.sort === 'number' ? 'numeric' : undefined"
                :autocomplete="field.sort === 'name' ? 'name' : 'off'"
                :aria-invalid="faults[field.id] ? 'true' : undefined"
                :aria-describedby="faults[field.id] ? `fault-${field.id}` : undefined"
                maxlength="160"
            /></LabelledField>
            <p v-if="faults[field.id]" :id="`fault-${field.id}`" class="mt-1 text-label text-red">
              {{ faults[field.id] }}
            </p>
          </div>
        </template>
        <ProblemNote :words="problem" />
        <button class="btn btn-main w-full py-3" :disabled="busy">Go to the quiz</button>
      </form>
    </template>
    <template v-else>
      <h1 class="text-3xl">A quiz</h1>
      <ProblemNote class="mt-4" :words="problem" />
      <p v-if="!problem" class="mt-4 text-soft" role="status">Looking …</p>
    </template>
  </main>
</template>
