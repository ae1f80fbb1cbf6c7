<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import { studentRoutes } from '~/client/students'
import { useAsyncState } from '@vueuse/core'
import { count } from '~~/core/kit/phrases'
import type { RosterStudent } from '~~/server/domain/classes/classes'
import type { Reply } from '~/client/route'

useHead({ title: 'Classes · Thistle' })
const { state: classes, isReady, error } = useAsyncState(() => classRoutes.list(), [])
const open = ref<string | null>(null)
const roster = shallowRef<Reply<typeof classRoutes.roster> | null>(null)
const editing = ref<RosterStudent | null>(null)
const { problem, act } = useAct()
watch(classes, (found) => {
  const mine = found.find((each) => each.mine)
  if (mine && !open.value) void show(mine.id)
})

async function show(id: string) {
  problem.value = ''
  open.value = id
  await act(async () => {
    roster.value = await classRoutes.roster({ id })
  })
}
const words = ({ accommodation }: RosterStudent) => {
  const parts = [
    accommodation.factor > 1 ? `time × ${accommodation.factor}` : '',
    accommodation.extraMinutes ? `${accommodation.extraMinutes} min more` : '',
    accommodation.stretchWindow ? 'also past the window' : '',
  ].filter(Boolean)
  return parts.join(', ')
}
async function keep() {
  const student = editing.value
  if (!student) return
  await act(async () => {
    await studentRoutes.setAccommodation({ id: student.id, body: student.accommodation })
    announce(`${student.name}: kept. Every quiz follows it, papers under way too.`)
    editing.value = null
    await show(open.value!)
  })
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-8">
    <h1 class="text-3xl">Classes</h1>
    <ProblemNote v-if="error || (problem && !editing)" class="mt-4" :words="problem || sentenceOf(error)" />
    <EmptyNote v-if="isReady && !classes.length" title="No class yet" class="mt-6"
      >Classes come with the school’s roster.</EmptyNote
    >
    <div class="mt-5 flex flex-wrap gap-2">
      <button
        v-for="each in classes"
        :key="each.id"
        class="tag py-1 text-label"
        :aria-pressed="open === each.id"
        :disabled="!each.mine"
        @click="show(each.id)"
      >
        {{ each.name }} · {{ each.mine ? count(each.students, 'student') : 'not yours' }}
      </button>
    </div>
    <section v-if="roster" class="mt-6">
      <h2 class="border-b border-ink pb-1 text-xl">{{ roster.name }}</h2>
      <ul>
        <li
          v-for="student in roster.students"
          :key="student.id"
          class="flex flex-wrap items-center gap-x-4 border-b border-rule py-2"
        >
          <span class="min-w-48 font-semibold">{{ student.name }}</span><span class="min-w-52 grow text-soft">{{
            student.email
          }}</span>
          <span v-if="words(student)" class="max-w-60 text-label leading-snug text-petrol">{{ words(student) }}</span>
          <button
            class="btn btn-quiet"
            :aria-label="`Extra time for ${student.name}`"
            @click="editing = { ...student, accommodation: { ...student.accommodation } }"
          >
            Extra time…
          </button>
        </li>
      </ul>
    </section>
    <ModalDialog :open="editing !== null" :title="`Extra time for ${editing?.name ?? ''}`" @close="editing = null">
      <form v-if="editing" class="space-y-4" @submit.prevent="keep">
        <p class="text-soft">
          It belongs to the student: every quiz follows it, and a paper under way gets it at once.
        </p>
        <LabelledField label="Time factor"
          ><input
            v-model.number="editing.accommodation.factor"
            class="field w-32!"
            type="number"
            min="1"
            max="5"
            step="0.05"
        /></LabelledField>
        <LabelledField label="Extra minutes"
          ><input
            v-model.number="editing.accommodation.extraMinutes"
            class="field w-32!"
            type="number"
            min="0"
            max="600"
            step="0.5"
        /></LabelledField>
        <TickBox v-model="editing.accommodation.stretchWindow"
          >the extra time also goes past the end of a window</TickBox
        >
        <ProblemNote :words="problem" />
        <div class="flex justify-end gap-2">
          <button type="button" class="btn" @click="editing = null">Leave it</button
          ><button class="btn btn-main">Keep</button>
        </div>
      </form>
    </ModalDialog>
  </main>
</template>
