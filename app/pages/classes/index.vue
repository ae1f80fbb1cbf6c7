<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import { schoolRoutes } from '~/client/school'
import { useAsyncState } from '@vueuse/core'
import { count } from '~~/core/kit/phrases'

useHead({ title: 'Classes · Thistle' })
const {
  state: classes,
  isReady,
  error,
  execute,
} = useAsyncState(() => classRoutes.list(), [], { resetOnExecute: false })
const { state: terms } = useAsyncState(() => schoolRoutes.terms(), [])
const making = ref(false)
const name = ref('')
const term = ref<string | null>(null)
const { problem, busy, act } = useAct()
const groups = computed(() =>
  [
    { title: 'Yours', of: classes.value.filter((each) => each.mine && !each.filed) },
    { title: 'Of the school', of: classes.value.filter((each) => !each.mine && !each.filed) },
    { title: 'Filed away', of: classes.value.filter((each) => each.filed) },
  ].filter((group) => group.of.length),
)

async function make() {
  const made = await act(() => classRoutes.make({ body: { name: name.value, term: term.value } }))
  if (made) await navigateTo(`/classes/${made.id}`)
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-8">
    <header class="flex flex-wrap items-end gap-3">
      <h1 class="grow text-3xl">Classes</h1>
      <button class="btn btn-main" @click="making = true">Make a class…</button>
    </header>
    <ProblemNote v-if="error" class="mt-4" :words="sentenceOf(error)"
      ><button class="link" @click="execute()">Try again</button></ProblemNote
    >
    <EmptyNote v-else-if="isReady && !classes.length" title="No class yet" class="mt-6"
      >Make one, then add students by their names, or let them join with a code.</EmptyNote
    >
    <section v-for="group in groups" :key="group.title" class="mt-7">
      <h2 class="border-b border-ink pb-1 text-xl">{{ group.title }}</h2>
      <ul>
        <li
          v-for="each in group.of"
          :key="each.id"
          class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2.5"
        >
          <NuxtLink
            v-if="each.mine"
            :to="`/classes/${each.id}`"
            class="min-w-56 text-lg font-semibold break-words hover:underline"
            >{{ each.name }}</NuxtLink><span v-else class="min-w-56 text-lg break-words">{{ each.name }}</span>
          <span class="grow text-soft">{{ each.term }}</span>
          <span v-if="each.may === 'help'" class="text-label text-soft">you help</span>
          <span class="text-soft">{{ count(each.students, 'student') }}</span>
        </li>
      </ul>
    </section>
    <ModalDialog :open="making" title="A new class" @close="making = false">
      <form class="space-y-4" @submit.prevent="make">
        <LabelledField label="Name"><input v-model="name" class="field" maxlength="80" required /></LabelledField>
        <LabelledField v-if="terms.length" label="Term"
          ><select v-model="term" class="field">
            <option :value="null">none</option>
            <option v-for="each in terms" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select></LabelledField
        >
        <ProblemNote :words="problem" />
        <div class="flex justify-end gap-2">
          <button type="button" class="btn" @click="making = false">Leave it</button
          ><button class="btn btn-main" :disabled="busy">Make it</button>
        </div>
      </form>
    </ModalDialog>
  </main>
</template>
