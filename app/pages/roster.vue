<script setup lang="ts">
import { count, sentenceTime } from '~~/core/kit/phrases'
import { decideNew, decideOut } from '~~/core/roster'
import { fieldLabels, rosterFields, type RosterField } from '~~/formats/roster/plain-csv'

/** A roster before it comes in: what is new, changed, the same, gone and doubtful; then taken in, and taken back. */
useHead({ title: 'Roster · Thistle' })
const session = useSession()
const flow = useRosterImport()
const { look, doing, problem, decisions, takeOut, taken } = flow
void flow.load()
const over = ref(false)
function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  void flow.choose([...(field.files ?? [])])
  field.value = ''
}
function dropped(event: DragEvent) {
  over.value = false
  void flow.choose([...(event.dataTransfer?.files ?? [])])
}
function setColumn(i: number, field: string) {
  const columns = [...look.value!.columns!.taken].map((each) => (each === field ? null : each))
  columns[i] = (field || null) as RosterField | null
  flow.columns.value = columns
  void flow.see()
}
function decide(key: string, what: string) {
  decisions.value = { ...decisions.value, [key]: what }
  void flow.see()
}
const counts = computed(() => look.value?.counts)
const sums = computed(() =>
  counts.value
    ? [
        { words: 'new', n: counts.value.new },
        { words: 'changed', n: counts.value.changed },
        { words: 'the same', n: counts.value.same },
        { words: 'in doubt', n: counts.value.doubtful, look: true },
        { words: 'rows that cannot be read', n: counts.value.faults, look: true },
      ]
    : [],
)
const nothing = computed(
  () =>
    counts.value &&
    !counts.value.new &&
    !counts.value.changed &&
    !counts.value.enrolments &&
    !counts.value.classesMade &&
    !counts.value.termsMade &&
    !(takeOut.value && counts.value.left),
)
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/school">School</NuxtLink></p>
    <h1 class="mt-1 text-3xl">Bring a roster in</h1>
    <p class="mt-2 text-soft">
      OneRoster 1.1 or 1.2 as one archive or file by file, or one plain CSV. What would happen is shown first; it goes
      in whole or not at all, and can be taken back.
    </p>
    <label
      class="mt-4 flex cursor-pointer flex-col items-center gap-2 border border-dashed px-6 py-8 text-center focus-within:outline-2 focus-within:outline-bloom"
      :class="over ? 'border-bloom bg-bloom-tint' : 'border-rule bg-sheet'"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped"
    >
      <span class="btn btn-main" aria-hidden="true">{{ look ? 'Choose other files' : 'Choose files' }}</span>
      <span class="text-soft">or drop them here</span>
      <input type="file" multiple class="sr-only" aria-label="Choose files" accept=".csv,.zip,.txt" @change="chosen" />
    </label>
    <p class="mt-2 text-label">
      <a class="link" href="/api/roster/template">Template for CSV</a> · The school as it is:
      <a class="link" href="/api/roster/file?as=csv">CSV</a>,
      <a class="link" href="/api/roster/file?as=oneroster-1.1">OneRoster 1.1</a>,
      <a class="link" href="/api/roster/file?as=oneroster-1.2">OneRoster 1.2</a>
    </p>
    <div v-if="doing" role="status" class="mt-4 flex items-center gap-4 border-y border-rule py-3">
      <progress class="h-1.5 grow accent-petrol" />
      <span>{{
        { looking: 'Reading and comparing …', taking: 'Taking it in …', undoing: 'Taking it back …' }[doing]
      }}</span>
      <button v-if="doing !== 'undoing'" class="btn" @click="flow.stop()">Stop</button>
    </div>
    <ProblemNote class="mt-4" :words="problem" />
    <section v-if="look" class="mt-6" aria-label="What would happen">
      <div v-if="look.columns" class="mb-6">
        <h2 class="border-b border-ink pb-1 text-xl">Columns</h2>
        <p v-if="look.columns.fault" class="note-look mt-2">{{ look.columns.fault }}</p>
        <div class="overflow-x-auto" tabindex="0" role="region" aria-label="Columns of the file">
          <table class="mt-2 text-label">
            <thead>
              <tr>
                <th
                  v-for="(heading, i) in look.columns.header"
                  :key="i"
                  class="pr-4 text-left align-bottom font-normal"
                >
                  <LabelledField :label="heading || `column ${i + 1}`"
                    ><select
                      class="field w-auto! py-0.5"
                      :value="look.columns.taken[i] ?? ''"
                      @change="setColumn(i, ($event.target as HTMLSelectElement).value)"
                    >
                      <option value="">left out</option>
                      <option v-for="field in rosterFields" :key="field" :value="field">
                        {{ fieldLabels[field] }}
                      </option>
                    </select></LabelledField
                  >
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, r) in look.columns.sample" :key="r" class="border-b border-rule/60 text-soft">
                <td v-for="(_h, i) in look.columns.header" :key="i" class="max-w-56 truncate pr-4">{{ row[i] }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </div>
      <h2 class="border-b border-ink pb-1 text-xl">What would happen</h2>
      <ul class="flex flex-wrap gap-x-8 gap-y-1 py-3 text-lg">
        <li v-for="sum in sums" :key="sum.words" :class="sum.look && sum.n > 0 && 'text-amber'">
          <strong class="tabular-nums">{{ sum.n }}</strong> {{ sum.words }}
        </li>
      </ul>
      <p>
        {{ count(counts!.enrolments, 'enrolment') }} would be added to {{ counts!.enrolled }} that are there already.
        <template v-if="counts!.classesMade"
          >{{ count(counts!.classesMade, 'class', 'classes') }} would be made: {{ look.classes.slice(0, 12).join(', ')
          }}{{ counts!.classesMade > 12 ? ' …' : '' }}.</template
        >
        <template v-if="counts!.termsMade"> {{ count(counts!.termsMade, 'term') }} would be made.</template>
      </p>
      <p v-for="note in look.notes" :key="note" class="text-soft">{{ note }}</p>
      <template v-if="look.doubtful.length">
        <h3 class="mt-6 border-b border-rule pb-1 text-lg text-amber">In doubt: left out until you decide</h3>
        <ul>
          <li
            v-for="doubt in look.doubtful"
            :key="doubt.key"
            class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2"
          >
            <div class="min-w-64 grow">
              <strong>{{ doubt.name }}</strong> <span class="text-soft">{{ doubt.email }} {{ doubt.place }}</span>
              <p class="text-label">{{ doubt.why }}</p>
            </div>
            <select
              class="field w-auto!"
              :aria-label="`Who is ${doubt.name}?`"
              :value="decisions[doubt.key] ?? ''"
              @change="decide(doubt.key, ($event.target as HTMLSelectElement).value)"
            >
              <option value="" disabled>{{ decisions[doubt.key] ? 'cannot be: choose again' : 'who is this?' }}</option>
              <option v-for="one in doubt.could" :key="one.id" :value="one.id">
                {{ one.name }}, {{ one.email ?? 'without an address' }}
              </option>
              <option :value="decideNew">somebody new</option>
              <option :value="decideOut">leave out</option>
            </select>
          </li>
        </ul>
      </template>
      <details v-if="look.faults.length" class="mt-4" open>
        <summary class="text-amber">Rows that cannot be read, and are left out</summary>
        <ul class="mt-1 max-h-60 overflow-y-auto" tabindex="0" aria-label="Rows that cannot be read">
          <li v-for="(fault, i) in look.faults" :key="i" class="border-b border-rule/60 py-0.5">
            <span class="text-soft">{{ fault.place }}:</span> {{ fault.sentence }}
          </li>
        </ul>
      </details>
      <details v-if="look.changed.length" class="mt-4">
        <summary>{{ count(counts!.changed, 'person', 'people') }} would change</summary>
        <ul class="mt-1">
          <li v-for="(one, i) in look.changed" :key="i" class="border-b border-rule/60 py-0.5">
            <span class="text-soft">{{ one.was.name }}, {{ one.was.email ?? 'without an address' }} → </span>
            {{ one.name }}<template v-if="one.email">, {{ one.email }}</template>
          </li>
        </ul>
      </details>
      <details v-if="look.made.length" class="mt-4">
        <summary>{{ count(counts!.new, 'person', 'people') }} would be new</summary>
        <ul class="mt-1 columns-2 gap-8 text-label">
          <li v-for="(one, i) in look.made" :key="i" class="truncate">
            {{ one.name }} <span class="text-soft">{{ one.email }}</span>
          </li>
        </ul>
        <p v-if="counts!.new > look.made.length" class="text-soft">and {{ counts!.new - look.made.length }} more</p>
      </details>
      <div v-if="look.left.length" class="mt-4 border-y border-rule py-3">
        <TickBox v-model="takeOut">
          take {{ count(counts!.left, 'student') }} out of classes in which the file does not have them; their papers
          stay
        </TickBox>
        <details>
          <summary class="text-label text-soft">who they are</summary>
          <p class="text-label">
            <template v-for="(one, i) in look.left.slice(0, 200)" :key="i"
              >{{ i ? ', ' : '' }}{{ one.name }} ({{ one.className }})</template
            >
          </p>
        </details>
      </div>
      <div class="mt-5 flex items-center justify-end gap-3">
        <span v-if="nothing" class="grow text-soft">Nothing would change.</span>
        <button class="btn" @click="flow.leave()">Leave it</button>
        <button
          class="btn btn-main"
          :disabled="Boolean(doing) || nothing || Boolean(look.columns?.fault)"
          @click="flow.take()"
        >
          Take it in
        </button>
      </div>
    </section>
    <section v-if="taken.length" class="mt-10">
      <h2 class="border-b border-ink pb-1 text-xl">Taken in before</h2>
      <ul>
        <li
          v-for="each in taken"
          :key="each.id"
          class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5"
        >
          <span class="min-w-48 font-semibold break-all">{{ each.name }}</span>
          <span class="grow text-soft">{{ sentenceTime(each.at, session.zone) }}, {{ each.by }}</span>
          <span v-if="each.undoneAt" class="text-soft">taken back</span>
          <button v-else class="btn btn-quiet py-0" :disabled="Boolean(doing)" @click="flow.undo(each.id)">
            Take back
          </button>
        </li>
      </ul>
    </section>
  </main>
</template>
