<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import type { Reply } from '~/client/route'
import { sentenceTime } from '~~/core/kit/phrases'

/** Students who signed up to their place with the join code, without a link. A teacher sees who did, and can undo it. */
type Register = Reply<typeof classRoutes.register>
const { register } = defineProps<{ register: Register }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { problem, busy, act } = useAct()
const claimed = computed(() =>
  register.students.flatMap((student) => (student.claim ? [{ ...student, claim: student.claim }] : [])),
)
async function undoSignUp({ id, name }: { id: string; name: string }) {
  const sure = await confirmed(
    `Undo ${name}’s sign-up?`,
    'The person who signed up is signed out and can no longer sign in. Answers and marks are kept. The student can sign up again with the join code.',
    'Undo sign-up',
    'Cancel',
  )
  if (!sure) return
  const done = await act(
    () => classRoutes.takeClaimBack({ id: register.id, body: { student: id } }),
    `${name} can sign up again.`,
  )
  if (done) emit('changed')
}
</script>

<template>
  <details v-if="claimed.length" class="mt-5">
    <summary class="text-soft">
      {{ claimed.length === 1 ? '1 student signed' : `${claimed.length} students signed` }} up with the join code
    </summary>
    <ul class="mt-1">
      <li
        v-for="student in claimed"
        :key="student.id"
        class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1"
      >
        <bdi class="min-w-0 break-words">{{ student.name }}</bdi>
        <span class="grow text-soft"
          >{{ sentenceTime(student.claim.at, session.zone) }}, as “<bdi>{{ student.claim.name }}</bdi
          >”, by {{ student.claim.knownBy === 'number' ? 'their number' : 'their address'
          }}<template v-if="student.email"
            >, <bdi>{{ student.email }}</bdi></template
          ></span
        >
        <button class="btn btn-quiet py-0" :disabled="busy" @click="undoSignUp(student)">
          Undo sign-up<span class="sr-only"> of {{ student.name }}</span>
        </button>
      </li>
    </ul>
    <ProblemNote :words="problem" />
  </details>
</template>
