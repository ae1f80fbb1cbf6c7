<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'

/** Who works in this quiz, and letting a colleague in. */
const store = useQuiz()
const session = useSession()
const teachers = computed(() => store.view?.teachers ?? [])
const isOwner = computed(() => teachers.value.some(({ id, owner }) => owner && id === session.person?.id))
const mayShare = computed(() => teachers.value.some((each) => each.mayShare && each.id === session.person?.id))
const email = ref('')
const mayShareOn = ref(false)
const may = ref<'read' | 'write'>('write')
const { problem, act } = useAct()
const share = async () => {
  const shared = await act(
    () => quizRoutes.share({ id: store.id!, body: { email: email.value, mayShare: mayShareOn.value, may: may.value } }),
    ({ name }) => `${name} can now ${may.value === 'write' ? 'work in' : 'look at'} this quiz.`,
  )
  if (!shared) return
  email.value = ''
  mayShareOn.value = false
  await act(store.reload)
}
const address = computed(() =>
  store.view?.address ? `${window.location.origin}/quizzes/by-address/${store.view.address}` : '',
)
const setAddress = (on: boolean) =>
  act(async () => {
    await quizRoutes.address({ id: store.id!, body: { on } })
    await store.reload()
  })
async function copyAddress() {
  await navigator.clipboard.writeText(address.value)
  announce('The address is copied.')
}
async function end(person: string, name: string) {
  const own = person === session.person?.id
  const sure = await confirmed(
    own ? 'Leave this quiz?' : `End that ${name} works in this quiz?`,
    own
      ? 'You no longer see it; its owner can let you in again.'
      : 'What they have changed stays. You can let them in again.',
    own ? 'Leave it' : 'End it',
  )
  if (!sure || !(await act(() => quizRoutes.unshare({ id: store.id!, query: { person } }).then(() => true)))) return
  if (own) await navigateTo('/quizzes')
  else await act(store.reload)
}
</script>

<template>
  <section>
    <h2 class="small-head">Teachers of this quiz</h2>
    <ul>
      <li v-for="each in teachers" :key="each.id" class="flex flex-wrap items-baseline gap-x-2">
        {{ each.name }}<span v-if="each.owner" class="text-label text-soft">owner</span
        ><span v-else-if="each.mayShare" class="text-label text-soft">may let others in</span
        ><span v-else-if="each.may === 'read'" class="text-label text-soft">may look at it</span>
        <button
          v-else-if="isOwner || each.id === session.person?.id"
          class="link text-label"
          :aria-label="each.id === session.person?.id ? 'leave this quiz' : `end sharing with ${each.name}`"
          @click="end(each.id, each.name)"
        >
          {{ each.id === session.person?.id ? 'leave' : 'end sharing' }}
        </button>
      </li>
    </ul>
    <form v-if="mayShare" class="mt-2" @submit.prevent="share">
      <div class="flex flex-wrap items-end gap-2">
        <LabelledField label="E-mail of a colleague" class="basis-full"
          ><input v-model="email" class="field py-1" type="email" required /></LabelledField
        ><select v-model="may" class="field w-auto! py-1" aria-label="They may">
          <option value="write">works in it</option>
          <option value="read">looks at it</option></select
        ><button class="btn py-1.5">Share</button>
      </div>
      <label v-if="isOwner && may === 'write'" class="mt-1.5 flex items-baseline gap-2 text-label"
        ><input v-model="mayShareOn" type="checkbox" /> They may let others in as well</label
      >
    </form>
    <div v-if="isOwner" class="mt-3 text-label">
      <template v-if="address">
        <p>Every teacher of the school with this address may look at it and copy it:</p>
        <input class="field mt-1 py-1 text-small" readonly :value="address" aria-label="Address of this quiz" />
        <p class="mt-1 flex flex-wrap gap-x-4">
          <button class="link" @click="copyAddress">copy it</button>
          <button class="link" @click="setAddress(true)">another address</button>
          <button class="link" @click="setAddress(false)">end it</button>
        </p>
      </template>
      <button v-else class="link" @click="setAddress(true)">let others look at it by an address</button>
    </div>
    <ProblemNote class="mt-2 text-label" :words="problem" />
  </section>
</template>
