<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import { useAsyncState } from '@vueuse/core'
import { count, sentenceTime } from '~~/core/kit/phrases'
import { byName } from '~~/core/people'
import { noAccommodation, type Accommodation } from '~~/core/quiz'

/** A class as a register: who is in it, what differs from the rest, how each stands with its quizzes. */
const id = String(useRoute('classes-id').params.id)
const session = useSession()
const {
  state: register,
  error,
  execute,
} = useAsyncState(() => classRoutes.register({ id }), null, { resetOnExecute: false })
const { state: classes } = useAsyncState(() => classRoutes.list(), [])
useHead({ title: () => `${register.value?.name ?? 'Class'} · Thistle` })
const load = () => execute()

const may = computed(() => register.value?.may === 'teach')
const others = computed(() => classes.value.filter((each) => each.mine && each.id !== id && !each.filed))
const adding = ref(false)
const settings = ref(false)
const needing = ref(false)
const grouping = ref(false)
const groupName = ref('')
const words = ref('')
const { problem, busy, act } = useAct()

const students = computed(() => {
  const wanted = words.value.trim().toLowerCase()
  return (register.value?.students ?? [])
    .filter(({ name, email }) => !wanted || `${name} ${email ?? ''}`.toLowerCase().includes(wanted))
    .sort(byName)
})
const chosen = ref(new Set<string>())
const picked = computed(() => (register.value?.students ?? []).filter((student) => chosen.value.has(student.id)))
const chosenWords = computed(() =>
  picked.value.length === 1 ? picked.value[0]!.name : `${picked.value.length} students`,
)

async function changed<T>(
  work: () => Promise<T>,
  said: string | ((reply: T) => string),
  back: (() => void) | null = null,
) {
  const reply = await act(work, said, back)
  if (reply === undefined) return
  chosen.value = new Set()
  await load()
}
const ids = () => picked.value.map((student) => student.id)
function takeOut() {
  const students = ids()
  const back = () =>
    void changed(() => classRoutes.bringBack({ id, body: { students } }), 'They are back, with all that they have sat.')
  void changed(
    () => classRoutes.takeOut({ id, body: { students } }),
    `${chosenWords.value} left the class. Their papers stay theirs.`,
    back,
  )
}
function move(to: string) {
  const students = ids()
  const name = others.value.find((each) => each.id === to)!.name
  const back = () => void changed(() => classRoutes.move({ id: to, body: { students, to: id } }), 'They are back.')
  void changed(() => classRoutes.move({ id, body: { students, to } }), `${chosenWords.value} moved to ${name}.`, back)
}
async function giveNeed(need: Accommodation, reason: string | undefined) {
  await changed(
    () =>
      classRoutes.setNeed({
        id,
        body: { students: ids(), need: { ...need, ...(reason === undefined ? {} : { reason }) } },
      }),
    `${chosenWords.value}: kept. Every quiz follows it, papers under way too.`,
  )
  if (!problem.value) needing.value = false
}
async function makeGroup() {
  await changed(
    () => classRoutes.makeGroup({ id, body: { name: groupName.value, members: ids() } }),
    `“${groupName.value}” is a group.`,
  )
  if (problem.value) return
  grouping.value = false
  groupName.value = ''
}
function intoGroup(group: string) {
  const found = register.value!.groups.find((each) => each.id === group)!
  const members = [...new Set([...found.members, ...ids()])]
  void changed(
    () => classRoutes.keepGroup({ id, group, body: { name: found.name, members } }),
    `They are in “${found.name}”.`,
  )
}
function bringBack(student: { id: string; name: string }) {
  void changed(() => classRoutes.bringBack({ id, body: { students: [student.id] } }), `${student.name} is back.`)
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-7xl px-5 py-7">
    <ProblemNote v-if="error" :words="sentenceOf(error)"
      ><button class="link" @click="load()">Try again</button></ProblemNote
    >
    <template v-if="register">
      <header class="flex flex-wrap items-end gap-x-4 gap-y-2">
        <h1 class="text-3xl break-words">{{ register.name }}</h1>
        <p class="grow pb-1 text-label text-soft">
          <template v-if="register.term">{{ register.term.name }} · </template
          >{{ count(register.students.length, 'student') }} ·
          {{ register.teachers.map((teacher) => teacher.name).join(', ') }}
          <span v-if="register.filed" class="state">filed away</span>
          <span v-if="register.held" class="state">quizzes held back</span>
        </p>
        <div class="flex flex-wrap gap-2">
          <NuxtLink to="/classes" class="btn">All classes</NuxtLink>
          <template v-if="may">
            <button class="btn" @click="settings = true">About this class…</button>
            <button class="btn btn-main" @click="adding = true">Add students…</button>
          </template>
        </div>
      </header>
      <ClassDays class="mt-3" :quizzes="register.quizzes" />
      <div class="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-7 gap-y-8 lg:grid-cols-[minmax(0,1fr)_15.5rem]">
        <section class="min-w-0">
          <EmptyNote v-if="!register.students.length" title="Nobody is in this class yet"
            >Add students by their names or addresses, or make a code that they type in themselves.</EmptyNote
          >
          <template v-else>
            <input
              v-if="register.students.length > 20"
              v-model="words"
              class="field mb-3 max-w-72"
              type="search"
              aria-label="Find a student of the class"
              placeholder="Find a student"
            />
            <RegisterTable
              :register="register"
              :students="students"
              :chosen="chosen"
              :may="may"
              @choose="chosen = new Set($event)"
            />
          </template>
          <ClaimedPlaces v-if="may" :register="register" @changed="load" />
          <details v-if="register.left.length" class="mt-5">
            <summary class="text-soft">{{ count(register.left.length, 'student') }} left this class</summary>
            <ul class="mt-1">
              <li
                v-for="student in register.left"
                :key="student.id"
                class="flex flex-wrap gap-x-3 border-b border-rule py-1"
              >
                {{ student.name }}<span class="grow text-soft">{{ sentenceTime(student.leftAt, session.zone) }}</span>
                <button v-if="may" class="btn btn-quiet py-0" :disabled="busy" @click="bringBack(student)">
                  Bring back
                </button>
              </li>
            </ul>
          </details>
        </section>
        <aside class="space-y-8">
          <section v-if="picked.length">
            <h2 class="border-b border-ink pb-1 text-xl">{{ picked.length }} chosen</h2>
            <div class="flex flex-col items-start gap-2 pt-2">
              <button class="btn" @click="needing = true">More time, language…</button>
              <PickMenu
                v-if="register.groups.length"
                words="Into a group"
                :options="[
                  ...register.groups.map((group) => ({ value: group.id, label: group.name })),
                  { value: '', label: 'a new group…' },
                ]"
                @pick="$event ? intoGroup($event) : (grouping = true)"
              />
              <button v-else class="btn" @click="grouping = true">Into a group…</button>
              <PickMenu
                v-if="others.length"
                words="Move to"
                :options="others.map((each) => ({ value: each.id, label: each.name }))"
                @pick="move"
              />
              <button class="btn" :disabled="busy" @click="takeOut">Take out of the class</button>
            </div>
          </section>
          <ProblemNote v-if="!needing && !grouping" :words="problem" />
          <ClassGroups :register="register" :may="may" @changed="load" @choose="chosen = new Set($event)" />
          <JoinCode :register="register" :may="may" @changed="load" />
        </aside>
      </div>
      <AddStudents :open="adding" :class-id="id" :name="register.name" @close="adding = false" @added="load" />
      <ClassSettings v-if="settings" open :register="register" @close="settings = false" @changed="load" />
      <NeedDialog
        v-if="needing"
        open
        :who="chosenWords"
        :need="picked.length === 1 ? picked[0]!.accommodation : noAccommodation"
        :reason="picked.length === 1 ? picked[0]!.reason : null"
        :problem="problem"
        :busy="busy"
        @close="needing = false"
        @keep="giveNeed"
      />
      <ModalDialog :open="grouping" title="A new group" @close="grouping = false">
        <form class="space-y-4" @submit.prevent="makeGroup">
          <LabelledField label="Name of the group"
            ><input v-model="groupName" class="field" maxlength="80" required
          /></LabelledField>
          <p class="text-soft">{{ chosenWords }} will be in it.</p>
          <ProblemNote :words="problem" />
          <div class="flex justify-end gap-2">
            <button type="button" class="btn" @click="grouping = false">Leave it</button
            ><button class="btn btn-main" :disabled="busy">Make it</button>
          </div>
        </form>
      </ModalDialog>
    </template>
  </main>
</template>
