<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import type { Reply } from '~/client/route'
import { sentenceTime } from '~~/core/kit/phrases'

/** Students who took their place by the code of the class, without a link: a teacher sees who did, and can take it back. */
type Register = Reply<typeof classRoutes.register>
const { register } = defineProps<{ register: Register }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const { problem, busy, act } = useAct()
const claimed = computed(() =>
  register.students.flatMap((student) => (student.claim ? [{ ...student, claim: student.claim }] : [])),
)
async function takeBack({ id, name }: { id: string; name: string }) {
  const sure = await confirmed(
    `Take ${name}’s place back?`,
    'Whoever signed in to it is signed out, and cannot sign in any more. Answers and marks stay with the place. The student can claim it again with the code of the class.',
    'Take back',
    'Cancel',
  )
  if (!sure) return
  const done = await act(
    () => classRoutes.takeClaimBack({ id: register.id, body: { student: id } }),
    `${name}’s place can be claimed again.`,
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
        <button
          class="btn btn-quiet py-0"
          :disabled="busy"
          :aria-label="`Take back ${student.name}’s place`"
          @click="takeBack(student)"
        >
          Take back
        </button>
      </li>
    </ul>
    <ProblemNote :words="problem" />
  </details>
</template>
