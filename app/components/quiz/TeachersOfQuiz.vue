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
const { problem, act } = useAct()
const share = async () => {
  const shared = await act(
    () => quizRoutes.share({ id: store.id!, body: { email: email.value, mayShare: mayShareOn.value } }),
    ({ name }) => `${name} can now work in this quiz.`,
  )
  if (!shared) return
  email.value = ''
  mayShareOn.value = false
  await act(store.reload)
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
        ><span v-else-if="each.mayShare" class="text-label text-soft">may let others in</span>
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
      <div class="flex items-end gap-2">
        <LabelledField label="E-mail of a colleague" class="grow"
          ><input v-model="email" class="field py-1" type="email" required /></LabelledField
        ><button class="btn py-1.5">Share</button>
      </div>
      <label v-if="isOwner" class="mt-1.5 flex items-baseline gap-2 text-label"
        ><input v-model="mayShareOn" type="checkbox" /> They may let others in as well</label
      >
    </form>
    <ProblemNote class="mt-2 text-label" :words="problem" />
  </section>
</template>
