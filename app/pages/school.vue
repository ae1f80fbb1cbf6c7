<script setup lang="ts">
import { schoolRoutes } from '~/client/school'
import type { Reply } from '~/client/route'
import { useAsyncState, watchDebounced } from '@vueuse/core'
import { count } from '~~/core/kit/phrases'

/** The school, for who runs it: its people, its terms, its name and zone. */
type Person = Reply<typeof schoolRoutes.people>['people'][number]
useHead({ title: 'School · Thistle' })
const session = useSession()
const zones = timeZones()
const words = ref('')
const role = ref<'' | 'teacher' | 'student'>('')
const state = ref<'here' | 'left'>('here')
const after = ref(0)
const found = shallowRef<Reply<typeof schoolRoutes.people> | null>(null)
const failed = ref('')
async function find() {
  failed.value = ''
  try {
    found.value = await schoolRoutes.people({
      query: { words: words.value, role: role.value, state: state.value, after: after.value },
    })
  } catch (error) {
    failed.value = sentenceOf(error)
  }
}
void find()
watchDebounced(
  [words, role, state],
  () => {
    after.value = 0
    void find()
  },
  { debounce: 200 },
)
const page = 200
function turn(by: number) {
  after.value += by * page
  void find()
}

const school = reactive({ name: session.school, zone: session.zone })
const teacher = reactive({ name: '', email: '' })
const { state: terms } = useAsyncState(() => schoolRoutes.terms(), [])
const term = reactive({ name: '', starts: '', ends: '' })
const editing = ref<(Person & { email: string }) | null>(null)
const link = ref<{ name: string; link: string } | null>(null)
const { problem, busy, act } = useAct()

async function keepSchool() {
  const kept = await act(() => schoolRoutes.change({ body: { ...school } }), 'Kept.')
  if (!kept) return
  session.school = kept.name
  session.zone = kept.zone
}
async function addTeacher() {
  if (
    !(await act(
      () => schoolRoutes.addTeacher({ body: { ...teacher } }),
      (made) => `${made.name} was written to, with a link to come in.`,
    ))
  )
    return
  teacher.name = teacher.email = ''
  await find()
}
async function makeTerm() {
  const made = await act(() => schoolRoutes.makeTerm({ body: { ...term } }), `“${term.name}” is a term.`)
  if (!made) return
  terms.value = made
  term.name = term.starts = term.ends = ''
}
async function dropTerm(id: string) {
  const left = await act(() => schoolRoutes.dropTerm({ id }), 'Taken out.')
  if (left) terms.value = left
}
async function change(
  person: Pick<Person, 'id' | 'name'>,
  body: Parameters<typeof schoolRoutes.changePerson>[0]['body'],
  said: string,
  back?: () => void,
) {
  if (!(await act(() => schoolRoutes.changePerson({ id: person.id, body }), said, back ?? null))) return
  editing.value = null
  await find()
}
const leave = (person: Person) =>
  change(
    person,
    { state: 'left' },
    `${person.name} cannot come in any more; all that they have sat stays.`,
    () => void change(person, { state: 'here' }, `${person.name} is back.`),
  )
async function makeNameless(person: Person) {
  const sure = await confirmed(
    'Take their name away?',
    'Papers and grades stay, as those of nobody; address, accommodations and password go. For 30 days it can be taken back, then the name is forgotten.',
    'Make nameless',
    'Leave it',
  )
  if (!sure) return
  const back = () => void giveNameBack(person)
  if (!(await act(() => schoolRoutes.makeNameless({ id: person.id }), `${person.name} is nameless.`, back))) return
  editing.value = null
  await find()
}
async function giveNameBack(person: Pick<Person, 'id'>) {
  if (
    !(await act(
      () => schoolRoutes.giveNameBack({ id: person.id }),
      (reply) => `${reply.name} has their name back.`,
    ))
  )
    return
  editing.value = null
  await find()
}
async function makeLink(person: Person) {
  const made = await act(() => schoolRoutes.link({ id: person.id }))
  if (!made) return
  if (made.written) announce(`A letter with the link is on its way to ${person.name}.`)
  link.value = made.link === null ? null : { name: person.name, link: made.link }
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-6xl px-5 py-8">
    <header class="flex flex-wrap items-end gap-3">
      <h1 class="grow text-3xl break-words">{{ session.school }}</h1>
      <NuxtLink to="/roster" class="btn btn-main">Bring a roster in…</NuxtLink>
      <NuxtLink to="/mail" class="btn">Letters that were sent</NuxtLink>
    </header>
    <ProblemNote v-if="!editing" class="mt-4" :words="problem" />
    <div class="mt-6 grid gap-x-10 gap-y-9 lg:grid-cols-[minmax(0,1fr)_19rem]">
      <section>
        <h2 class="border-b border-ink pb-1 text-xl">People</h2>
        <div class="flex flex-wrap items-center gap-2 py-3">
          <input
            v-model="words"
            type="search"
            class="field max-w-72"
            aria-label="Find people"
            placeholder="Name or address"
          />
          <select v-model="role" class="field w-auto!" aria-label="Of which role">
            <option value="">teachers and students</option>
            <option value="teacher">teachers</option>
            <option value="student">students</option>
          </select>
          <select v-model="state" class="field w-auto!" aria-label="Here or left">
            <option value="here">who are here</option>
            <option value="left">who have left</option>
          </select>
          <span v-if="found" class="text-label text-soft" role="status">{{
            count(found.total, 'person', 'people')
          }}</span>
        </div>
        <ProblemNote :words="failed" />
        <EmptyNote v-if="found && !found.people.length" title="Nobody is found"
          >Search for another name, or for all roles.</EmptyNote
        >
        <ul v-else-if="found">
          <li
            v-for="person in found.people"
            :key="person.id"
            class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5"
          >
            <span class="min-w-48 font-semibold break-words">{{ person.name }}</span>
            <span class="min-w-40 grow text-label text-soft"
              >{{ person.email ?? 'without an address'
              }}<template v-if="person.waiting">, has not come in yet</template></span
            >
            <span v-if="person.role === 'teacher'" class="state">{{
              person.admin ? 'runs the school' : 'teacher'
            }}</span>
            <span class="max-w-36 truncate text-label text-soft" :title="person.classes">{{ person.classes }}</span>
            <button
              class="btn btn-quiet py-0"
              :aria-label="`Change ${person.name}`"
              @click="editing = { ...person, email: person.email ?? '' }"
            >
              Change…
            </button>
          </li>
        </ul>
        <div v-if="found && (found.more || after)" class="flex gap-2 py-3">
          <button class="btn" :disabled="!after" @click="turn(-1)">Those before</button
          ><button class="btn" :disabled="!found.more" @click="turn(1)">Those after</button>
        </div>
      </section>
      <aside class="space-y-9">
        <form class="space-y-3" @submit.prevent="addTeacher">
          <h2 class="border-b border-ink pb-1 text-xl">A new teacher</h2>
          <LabelledField label="Name"
            ><input v-model="teacher.name" class="field" maxlength="160" required
          /></LabelledField>
          <LabelledField label="E-mail"
            ><input v-model="teacher.email" class="field" type="email" required
          /></LabelledField>
          <button class="btn" :disabled="busy">Let in</button>
        </form>
        <section>
          <h2 class="border-b border-ink pb-1 text-xl">Terms</h2>
          <ul>
            <li v-for="each in terms" :key="each.id" class="flex items-baseline gap-2 border-b border-rule py-1">
              <span class="grow"
                >{{ each.name }}
                <span class="text-label text-soft"
                  >{{ each.starts }} to {{ each.ends }}, {{ count(each.classes, 'class', 'classes') }}</span
                ></span
              >
              <button
                v-if="!each.classes"
                class="btn btn-quiet py-0"
                :aria-label="`Take out ${each.name}`"
                @click="dropTerm(each.id)"
              >
                Take out
              </button>
            </li>
          </ul>
          <form class="mt-3 space-y-2" @submit.prevent="makeTerm">
            <LabelledField label="Name of a term or year"
              ><input v-model="term.name" class="field" maxlength="80" required
            /></LabelledField>
            <div class="flex gap-2">
              <LabelledField label="from" class="min-w-0 grow"
                ><input v-model="term.starts" class="field" type="date" required
              /></LabelledField>
              <LabelledField label="to" class="min-w-0 grow"
                ><input v-model="term.ends" class="field" type="date" required
              /></LabelledField>
            </div>
            <button class="btn" :disabled="busy">Make the term</button>
          </form>
        </section>
        <SchoolScales />
        <SchoolFields />
        <form class="space-y-3" @submit.prevent="keepSchool">
          <h2 class="border-b border-ink pb-1 text-xl">Name and time</h2>
          <LabelledField label="Name of the school"
            ><input v-model="school.name" class="field" maxlength="160" required
          /></LabelledField>
          <LabelledField label="Time zone"
            ><select v-model="school.zone" class="field">
              <option v-for="zone in zones" :key="zone">{{ zone }}</option>
            </select></LabelledField
          >
          <p class="text-label text-soft">
            Windows that are set stay at their instants; in another zone they read as other hours.
          </p>
          <button class="btn" :disabled="busy">Keep</button>
        </form>
      </aside>
    </div>
    <ModalDialog :open="editing !== null" :title="editing?.name ?? ''" @close="editing = null">
      <form
        v-if="editing"
        class="space-y-4"
        @submit.prevent="
          change(
            editing,
            {
              name: editing.name,
              email: editing.email,
              ...(editing.role === 'teacher' ? { admin: editing.admin } : {}),
            },
            `${editing.name}: kept.`,
          )
        "
      >
        <LabelledField label="Name"
          ><input v-model="editing.name" class="field" maxlength="160" required
        /></LabelledField>
        <LabelledField label="E-mail"><input v-model="editing.email" class="field" /></LabelledField>
        <TickBox v-if="editing.role === 'teacher'" v-model="editing.admin">runs the school</TickBox>
        <p v-if="link && link.name === editing.name" class="border-y border-rule py-2 break-all select-all">
          <code>{{ link.link }}</code>
        </p>
        <ProblemNote :words="problem" />
        <div class="flex flex-wrap justify-end gap-2">
          <button v-if="editing.state === 'here'" type="button" class="btn" @click="makeLink(editing)">
            A link for a password
          </button>
          <button v-if="editing.state === 'here'" type="button" class="btn btn-warn" @click="leave(editing)">
            Has left the school
          </button>
          <button
            v-else
            type="button"
            class="btn"
            @click="change(editing, { state: 'here' }, `${editing.name} is back.`)"
          >
            Is back
          </button>
          <template v-if="editing.role === 'student'">
            <a class="btn" :href="`/api/people/${editing.id}/data`">All that is stored of them</a>
            <template v-if="editing.state === 'left'">
              <button v-if="editing.nameless" type="button" class="btn" :disabled="busy" @click="giveNameBack(editing)">
                Give the name back
              </button>
              <button v-else type="button" class="btn btn-warn" :disabled="busy" @click="makeNameless(editing)">
                Make nameless…
              </button>
            </template>
          </template>
          <button class="btn btn-main" :disabled="busy">Keep</button>
        </div>
      </form>
    </ModalDialog>
  </main>
</template>
