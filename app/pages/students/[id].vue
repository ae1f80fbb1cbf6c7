<script setup lang="ts">
import { studentRoutes } from '~/client/students'
import { useAsyncState } from '@vueuse/core'
import { sentenceTime } from '~~/core/kit/phrases'
import { needWords } from '~~/core/people'
import { languageName } from '~~/core/question/language-name'
import type { Accommodation } from '~~/core/quiz'

/** A student as a letter about them: what they can do now, what is coming, what they have done. */
const id = String(useRoute('students-id').params.id)
const session = useSession()
const {
  state: student,
  error,
  execute,
} = useAsyncState(() => studentRoutes.page({ id }), null, { resetOnExecute: false })
useHead({ title: () => `${student.value?.name ?? 'Student'} · Thistle` })
const when = (at: string) => sentenceTime(at, session.zone)
const needing = ref(false)
const link = ref<string | null>(null)
const { problem, busy, act } = useAct()
const groups = computed(() =>
  [
    { title: 'Now', of: student.value?.quizzes.filter(({ may }) => may === 'continue' || may === 'start') ?? [] },
    { title: 'To come', of: student.value?.quizzes.filter(({ may }) => may === 'wait') ?? [] },
    { title: 'Done', of: student.value?.quizzes.filter(({ may }) => may === 'done') ?? [] },
  ].filter((group) => group.of.length),
)
async function keep(need: Accommodation, reason: string | undefined) {
  const body = { ...need, ...(reason === undefined ? {} : { reason }) }
  if (
    !(await act(
      () => studentRoutes.setAccommodation({ id, body }),
      'Kept. Every quiz follows it, papers under way too.',
    ))
  )
    return
  needing.value = false
  await execute()
}
async function makeLink() {
  const sure = await confirmed(
    'Create a password link?',
    'The student is signed out everywhere, and chooses a new password with the link. It works once, within two weeks.',
    'Create link',
    'Cancel',
  )
  if (!sure) return
  const made = await act(
    () => studentRoutes.link({ id }),
    (reply) => (reply.written ? 'A letter with the link is on its way to them.' : ''),
  )
  if (made) link.value = made.link
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-3xl px-5 py-8">
    <ProblemNote v-if="error" :words="sentenceOf(error)"
      ><button class="link" @click="execute()">Try again</button></ProblemNote
    >
    <template v-if="student">
      <h1 class="text-3xl break-words">{{ student.name }}</h1>
      <p class="text-soft">
        {{ student.email ?? 'without an address' }}<template v-if="student.waiting">, has not come in yet</template>
      </p>
      <p class="mt-3 text-lg">
        <template v-if="student.classes.length"
          >In
          <template v-for="(each, i) in student.classes" :key="each.id"
            ><template v-if="i">{{ i === student.classes.length - 1 ? ' and ' : ', ' }}</template
            ><NuxtLink v-if="each.mine" :to="`/classes/${each.id}`" class="link">{{ each.name }}</NuxtLink
            ><span v-else>{{ each.name }}</span
            ><template v-if="each.since"> since {{ when(each.since) }}</template></template
          >.</template
        >
        <template v-for="each in student.left" :key="each.id"> Left {{ each.name }} {{ when(each.leftAt) }}.</template>
      </p>
      <section class="mt-7">
        <h2 class="border-b border-ink pb-1 text-xl">What they need</h2>
        <p v-if="needWords(student.accommodation, languageName).length" class="mt-2">
          <span class="text-petrol">{{ needWords(student.accommodation, languageName).join(', ') }}</span>, in every
          quiz.
          <span v-if="student.reason" class="block text-soft">{{ student.reason }}</span>
        </p>
        <p v-else class="mt-2 text-soft">Nothing that differs from the rest.</p>
        <p v-for="group in student.groups" :key="group.className + group.name" class="mt-1">
          In the group “{{ group.name }}” of {{ group.className
          }}<template v-if="needWords(group.accommodation).length"
            >: <span class="text-petrol">{{ needWords(group.accommodation, languageName).join(', ') }}</span></template
          >.
        </p>
        <button class="btn mt-3" @click="needing = true">Change it…</button>
      </section>
      <section v-if="student.fields.length" class="mt-7">
        <h2 class="border-b border-ink pb-1 text-xl">What the school keeps of them</h2>
        <OwnValues :student="id" :fields="student.fields" :values="student.values" @kept="student.values = $event" />
      </section>
      <section v-for="group in groups" :key="group.title" class="mt-7">
        <h2 class="border-b border-ink pb-1 text-xl">{{ group.title }}</h2>
        <ul>
          <li
            v-for="quiz in group.of"
            :key="quiz.id"
            class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2"
          >
            <NuxtLink :to="`/quizzes/${quiz.id}/marks`" class="min-w-56 font-semibold hover:underline">{{
              quiz.title
            }}</NuxtLink>
            <span class="grow text-soft">“{{ quiz.sentence }}”</span>
            <span v-if="quiz.grade?.percent" class="tabular-nums"
              >{{ quiz.grade.text
              }}<template v-if="quiz.grade.passed !== null && !quiz.grade.text?.endsWith('passed')"
                >, {{ quiz.grade.passed ? 'passed' : 'not passed' }}</template
              ><span v-if="!quiz.shown" class="text-soft">, not shown to them yet</span></span
            >
          </li>
        </ul>
      </section>
      <p v-if="!student.quizzes.length" class="mt-7 text-soft">None of your quizzes is theirs yet.</p>
      <section class="mt-9">
        <h2 class="border-b border-ink pb-1 text-xl">Signing in</h2>
        <p v-if="student.noLink" class="mt-2 text-soft">{{ student.noLink }}</p>
        <template v-else>
          <p class="mt-2 text-soft">
            With a link from you the student chooses a password. With the join code of the class they can do it without
            you, too.
          </p>
          <button class="btn mt-3" :disabled="busy" @click="makeLink">Create password link…</button>
        </template>
        <p v-if="link" class="mt-3 border-y border-rule py-3 break-all select-all">
          <code>{{ link }}</code>
        </p>
        <ProblemNote v-if="!needing" class="mt-3" :words="problem" />
      </section>
      <NeedDialog
        v-if="needing"
        open
        :who="student.name"
        :need="student.accommodation"
        :reason="student.reason"
        :problem="problem"
        :busy="busy"
        @close="needing = false"
        @keep="keep"
      />
    </template>
  </main>
</template>
