<script setup lang="ts">
import { onKeyStroke, useEventListener } from '@vueuse/core'
import { untilSignedIn } from '~/client/session-end'
import { clockTime } from '~~/core/kit/phrases'
import type { SheetEntry, SheetQuestion } from '~~/core/paper/schema'
import { lowestPage } from '~~/core/paper/turning'
import { pagesBySection } from '~/documents/put-off'
import { help, loadFields, marks, measure, tools } from '~/components/paper/fields'

definePageMeta({ layout: 'bare' })
const id = String(useRoute().params.id)
const sitting = useSitting()
const session = useSession()
const problem = ref('')
const asking = ref(false)
const handing = ref(false)
const handInProblem = ref('')
const startedWith = ref(1)
const { message } = useAnnouncement()
useHead({
  title: () => `${sitting.opened?.sheet.title ?? 'Paper'} · Thistle`,
  htmlAttrs: { class: () => (sitting.opened?.largerType ? 'larger-type' : '') },
})

async function signInHere() {
  if (await untilSignedIn({ why: 'ended' })) await sitting.ask()
}
async function open() {
  problem.value = ''
  try {
    await sitting.open(id)
    await loadFields(sitting.questions.map((question) => question.body.asks))
    beginNotes(sitting.opened!.notes)
    void back()
    const { calculator, notes, highlight, ruler } = sitting.opened!.tools
    if (calculator !== 'none' || sitting.questions.some((question) => question.tools.length)) await tools()
    if (notes || highlight) await marks()
    if (ruler) await measure()
    if (sitting.opened?.help) await help()
    const deadline = sitting.clock?.deadline
    startedWith.value = deadline ? Math.max(1, Date.parse(deadline) - Date.parse(sitting.opened!.startedAt)) : 1
    const at = sitting.questions.find((question) => question.id === sitting.here && question.page === sitting.page)
    if (at) await comeBackTo(at.id)
    else sitting.goes(sitting.questions.find((question) => question.page >= sitting.page)?.id ?? null)
  } catch (error) {
    if (error instanceof ApiProblem && error.code === 'ended') await navigateTo(`/review/${id}`)
    // On a break the paper stays covered.
    else if (!(error instanceof ApiProblem && error.code === 'break')) problem.value = sentenceOf(error)
  }
}
onMounted(open)
onBeforeUnmount(() => sitting.leave())
useEventListener(window, 'online', () => {
  void sitting.flush()
  void sitting.ask()
})
useEventListener(document, 'visibilitychange', () => {
  if (document.hidden) void sitting.flush()
  else void sitting.ask()
})
/** Leaving the page would lose a recording that is on its way: the browser asks. */
useEventListener(window, 'beforeunload', (event) => {
  if (sitting.sending) event.preventDefault()
})
watch(
  () => sitting.phase,
  (phase) => {
    if (phase === 'ended') navigateTo(`/review/${id}`)
  },
)

const answered = computed(
  () =>
    new Set(
      Object.entries(sitting.answers)
        .filter(([, entry]) => entry.response !== null)
        .map(([item]) => item),
    ),
)
const flagged = computed(
  () =>
    new Set(
      Object.entries(sitting.answers)
        .filter(([, entry]) => entry.flagged)
        .map(([item]) => item),
    ),
)
const isForward = computed(() => sitting.opened?.sheet.movement === 'forward')
/** Tools that lie over the page. */
const measuring = ref<'ruler' | 'protractor' | null>(null)
const MeasureTool = defineAsyncComponent(measure)
const beginNotes = provideOwnNotes(id)
const { back } = useAwayNotes(id, () => sitting.opened?.watched === true && sitting.phase === 'sitting')
const visibleSections = computed(
  () =>
    sitting.opened?.sheet.sections
      .map((section, place) => ({
        ...section,
        place,
        entries: section.entries.filter((entry) => entry.page === sitting.page),
      }))
      .filter((section) => section.entries.length || section.waits?.page === sitting.page) ?? [],
)
/** Sections whose clock has ended, or that were left: they are closed for changes. Grace is for what was written before. */
const now = useNow(1000)
const closedPlaces = computed(
  () =>
    new Set(sitting.sections.filter(({ left, deadline }) => left || deadline <= now.value).map(({ place }) => place)),
)
/** The section with a clock of its own that is under way here. */
const under = computed(() => {
  const here = visibleSections.value.find(({ clocked, waits }) => clocked && !waits)
  const clock = here && sitting.sections.find(({ place }) => place === here.place)
  return here && clock && !closedPlaces.value.has(here.place) ? { ...here, clock } : null
})
/** The whole of its time, in milliseconds. */
const sectionLength = computed(() =>
  under.value ? Math.max(1, Date.parse(under.value.clock.deadline) - Date.parse(under.value.clock.entered)) : 1,
)
const entering = ref(false)
const enterProblem = ref('')
async function enter(place: number) {
  entering.value = true
  enterProblem.value = ''
  try {
    await sitting.enter(place)
    await loadFields(sitting.questions.map((question) => question.body.asks))
  } catch (error) {
    enterProblem.value =
      error instanceof ApiProblem && error.isPassing
        ? 'There is no connection to the server. A section is entered with one: its clock begins there. Try again.'
        : sentenceOf(error)
  } finally {
    entering.value = false
  }
}
/** The page that somebody asks for who would leave a section for good with it. */
const leaving = ref<number | null>(null)
async function leaveFor(page: number) {
  leaving.value = null
  const to = sitting.opened!.sheet.sections.findIndex(
    (section) => section.waits?.page === page || section.entries.some((entry) => entry.page === page),
  )
  try {
    // What waits behind a door of its own is not entered by going there: only what was open is left.
    await sitting.enter(sitting.opened!.sheet.sections[to]?.waits ? null : to)
    await turnTo(page, true)
  } catch (error) {
    announce(sentenceOf(error))
  }
}
/** Neighbours that share a stimulus stand beside it together. */
function runsOf(entries: SheetEntry[]) {
  const runs: { stimulus: number | null; entries: SheetEntry[] }[] = []
  for (const entry of entries) {
    const stimulus = entry.type === 'question' ? entry.stimulus : null
    const last = runs.at(-1)
    if (last && last.stimulus === stimulus) last.entries.push(entry)
    else runs.push({ stimulus, entries: [entry] })
  }
  return runs.map((run) => {
    const numbers = run.entries.flatMap((entry) => (entry.type === 'question' ? entry.number : []))
    return {
      ...run,
      shared: run.stimulus === null ? undefined : sitting.opened!.sheet.stimuli[run.stimulus],
      label: numbers.length > 1 ? `For questions ${numbers[0]} to ${numbers.at(-1)}` : `For question ${numbers[0]}`,
    }
  })
}
const isWide = computed(() =>
  visibleSections.value.some((section) =>
    section.entries.some((entry) => entry.type === 'question' && entry.stimulus !== null),
  ),
)
const languages = computed(() => {
  const { languages = [], sideBySide = false } = sitting.opened?.sheet ?? {}
  const pairs = sideBySide
    ? languages.flatMap((one) => languages.filter((other) => other !== one).map((other) => `${one}+${other}`))
    : []
  return [...languages, ...pairs].map((value) => ({ value, words: value.split('+').map(languageName).join(' and ') }))
})
async function readIn(language: string) {
  try {
    await sitting.flush()
    await sitting.open(id, language || null)
  } catch (error) {
    announce(sentenceOf(error))
  }
}
const pages = computed(() => sitting.opened?.sheet.pages ?? 1)
/** Whether a question can still be gone to. */
const mayReturnTo = (item: string) =>
  sitting.questions.some((question) => question.id === item && question.page >= sitting.lowest)
/** Going on from here closes what is left for good. */
const closesHere = computed(() => {
  const sheet = sitting.opened?.sheet
  return sheet !== undefined && lowestPage(sheet.movement, pagesBySection(sheet), sitting.page + 1) > sitting.page
})
/** On the last page of the paper there is one more to come: of what is left empty. */
const putsOffHere = computed(
  () =>
    sitting.opened?.puts === true &&
    !sitting.opened.putOff.length &&
    sitting.page === pages.value - 1 &&
    sitting.questions.some((question) => question.page === sitting.page && !answered.value.has(question.id)),
)
const isPutOffPage = computed(() => (sitting.opened?.putOff.length ?? 0) > 0 && sitting.page === pages.value - 1)
/** Questions that nobody can answer any more: of closed sections. */
const closedItems = computed(
  () =>
    new Set(
      sitting.opened?.sheet.sections.flatMap(({ entries }, place) =>
        closedPlaces.value.has(place) ? entries.flatMap((entry) => (entry.type === 'question' ? entry.id : [])) : [],
      ),
    ),
)
const unanswered = computed(() =>
  sitting.questions
    .filter((question) => !answered.value.has(question.id))
    .map(({ id, number, required }) => ({ id, number, required: required && !closedItems.value.has(id) })),
)
const kept = computed(() => {
  if (sitting.signedOut) return { words: 'Signed out · your answers are kept on this device', tone: 'text-amber' }
  if (sitting.offline) return { words: 'Connection lost · your answers are kept on this device', tone: 'text-amber' }
  if (sitting.pending.size || sitting.sending) return { words: 'Keeping your answers …', tone: 'text-soft' }
  return sitting.keptAt
    ? { words: `All answers kept · ${clockTime(sitting.keptAt, session.zone, true)}`, tone: 'text-green' }
    : { words: 'Every answer is kept as you give it', tone: 'text-soft' }
})

async function turnTo(page: number, sure = false) {
  if (page < sitting.lowest) return
  const stays = sitting.opened?.sheet.sections[under.value?.place ?? -1]?.entries.some((entry) => entry.page === page)
  if (under.value && !stays && !sure) {
    leaving.value = page
    return
  }
  try {
    await sitting.goTo(page)
    sitting.goes(sitting.questions.find((question) => question.page === page)?.id ?? null)
    await nextTick()
    window.scrollTo({ top: 0 })
  } catch (error) {
    announce(sentenceOf(error))
  }
}

async function goTo(item: string) {
  asking.value = false
  const question = sitting.questions.find((each) => each.id === item)
  if (!question) return
  if (question.page !== sitting.page) await turnTo(question.page)
  if (question.page !== sitting.page) return
  sitting.goes(item)
  await nextTick()
  const element = document.getElementById(`q-${item}`)
  element?.scrollIntoView({
    block: 'start',
    behavior: matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth',
  })
  element?.focus({ preventScroll: true })
}

/** After a reload the page stands where it stood. */
async function comeBackTo(item: string) {
  await nextTick()
  document.getElementById(`q-${item}`)?.scrollIntoView({ block: 'start' })
}

function step(by: number) {
  const list = sitting.questions.filter((question) => question.page === sitting.page)
  const next = list[list.findIndex((question) => question.id === sitting.here) + by]
  if (next) void goTo(next.id)
  else if (by > 0 && sitting.page < pages.value - 1 && !closesHere.value) void turnTo(sitting.page + 1)
  else if (by < 0 && sitting.page > sitting.lowest) void turnTo(sitting.page - 1)
}

/** Digits or letters choose, J and K move: only where no field is being written in. */
onKeyStroke((event) => {
  const field = (event.target as HTMLElement).closest(
    'input:not([type=radio]):not([type=checkbox]), textarea, select, [role=dialog], [role=application]',
  )
  if (field || event.ctrlKey || event.metaKey || event.altKey || asking.value) return
  const key = event.key.toLowerCase()
  if (key === 'j' || key === 'k') {
    event.preventDefault()
    step(key === 'j' ? 1 : -1)
    return
  }
  const question = sitting.questions.find((each) => each.id === sitting.here)
  if (question) chooseByKey(question, key)
})

function chooseByKey(question: SheetQuestion, key: string) {
  if (question.body.asks !== 'one' && question.body.asks !== 'several') return
  const index = /^[1-9]$/.test(key) ? Number(key) - 1 : /^[a-i]$/.test(key) ? key.charCodeAt(0) - 97 : -1
  const option = question.body.options[index]
  if (!option) return
  const chosen = sitting.answers[question.id]?.response?.chosen ?? []
  const next =
    question.body.asks === 'one'
      ? [option.id]
      : chosen.includes(option.id)
        ? chosen.filter((each) => each !== option.id)
        : [...chosen, option.id]
  sitting.change(question.id, { response: next.length ? { chosen: next } : null })
}

async function handIn() {
  handing.value = true
  handInProblem.value = ''
  try {
    await sitting.handIn()
  } catch (error) {
    handInProblem.value = sentenceOf(error)
  } finally {
    handing.value = false
  }
}

const breakWords = computed(() => {
  const seconds = Math.floor((sitting.opened?.breakLeft ?? 0) / 1000)
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
})
async function takeBreak() {
  problem.value = ''
  try {
    await sitting.takeBreak()
  } catch (error) {
    announce(sentenceOf(error))
  }
}
const goingOn = ref(false)
async function goOn() {
  goingOn.value = true
  problem.value = ''
  try {
    await sitting.goOn()
    await nextTick()
    if (sitting.here) await comeBackTo(sitting.here)
  } catch (error) {
    if (error instanceof ApiProblem && error.code === 'ended') await navigateTo(`/review/${id}`)
    else problem.value = sentenceOf(error)
  } finally {
    goingOn.value = false
  }
}

/** Time is up: by the rule, the page hands in what is there, lets go on, or locks. The server does the same without it. */
async function timeIsUp() {
  await sitting.ask()
  const left = sitting.clock?.deadline ? Date.parse(sitting.clock.deadline) - Date.parse(serverTime()) : 1
  if (left > 0 || sitting.phase !== 'sitting') return
  if (sitting.clock?.atDeadline === 'handIn') {
    asking.value = true
    await handIn()
  }
}
</script>

<template>
  <BreakCover
    v-if="sitting.rest && sitting.phase !== 'ended'"
    :title="sitting.opened?.sheet.title ?? sitting.rest.title ?? ''"
    :until="sitting.rest.until"
    :busy="goingOn"
    :problem="problem"
    @go-on="goOn"
  />
  <div v-else-if="sitting.opened && sitting.phase === 'sitting'" class="flex min-h-dvh flex-col">
    <header class="sticky top-0 z-20 border-b border-rule bg-sheet">
      <div class="flex flex-wrap items-center gap-x-5 gap-y-1 px-5 py-2.5">
        <h1 class="text-lg">{{ sitting.opened.sheet.title }}</h1>
        <span class="hidden text-soft md:inline">{{ visibleSections[0]?.title }}</span>
        <div class="ml-auto flex flex-wrap items-center gap-x-4 gap-y-1">
          <span class="text-small" :class="kept.tone" role="status">{{ kept.words }}</span>
          <label v-if="languages.length > 1" class="text-small text-soft"
            >Read in
            <select
              class="field inline-block w-auto! py-0.5"
              :value="sitting.opened.sheet.language ?? ''"
              @change="readIn(($event.target as HTMLSelectElement).value)"
            >
              <option v-if="sitting.opened.sheet.mixed" value="">as written</option>
              <option v-for="each in languages" :key="each.value" :value="each.value">{{ each.words }}</option>
            </select></label
          >
          <SittingClock
            v-if="under"
            :key="under.place"
            :deadline="under.clock.deadline"
            :started-with="sectionLength"
            at-deadline="unsent"
            label="of this section"
            @over="sitting.ask()"
          />
          <SittingClock
            v-if="!under || sitting.clock?.deadline"
            :slim="under !== null"
            :label="under ? 'of the paper' : ''"
            :deadline="sitting.clock?.deadline ?? null"
            :started-with="startedWith"
            :at-deadline="sitting.clock?.atDeadline ?? 'handIn'"
            @over="timeIsUp"
          />
          <template v-if="sitting.opened.tools.ruler">
            <button
              v-for="kind in ['ruler', 'protractor'] as const"
              :key="kind"
              class="btn btn-quiet px-2"
              :aria-pressed="measuring === kind"
              @click="measuring = measuring === kind ? null : kind"
            >
              {{ kind === 'ruler' ? 'Ruler' : 'Protractor' }}
            </button>
          </template>
          <button v-if="sitting.opened.breakLeft >= 1000" class="btn" :disabled="!sitting.canWrite" @click="takeBreak">
            Take a break <span class="text-soft">({{ breakWords }} left)</span>
          </button>
          <button class="btn" :disabled="!sitting.canWrite" @click="asking = true">Hand in…</button>
        </div>
      </div>
      <p v-if="sitting.lease === 'lost'" role="alert" class="note-look flex flex-wrap items-center gap-3 px-5">
        This paper is now being written on another device. Here you can only read.
        <button class="btn" @click="open">Take it back to this device</button>
      </p>
      <p v-if="sitting.signedOut" role="alert" class="note-look px-5">
        You have been signed out. Go on writing: your answers are kept on this device and sent when you have signed in
        again.
        <button class="btn ml-2" @click="signInHere">Sign in again…</button>
      </p>
      <p v-if="sitting.setAside" role="status" class="note-look px-5">
        What was written here after another device took over was set aside for your teacher; the paper shows what
        counts.
      </p>
      <p v-if="message" role="alert" class="note-look px-5">{{ message }}</p>
    </header>
    <div class="grid grow" :class="sitting.opened.progress && 'md:grid-cols-[13rem_1fr]'">
      <aside v-if="sitting.opened.progress" class="hidden border-r border-rule px-4 py-5 md:block">
        <RowLine
          class="sticky top-20"
          :sheet="sitting.opened.sheet"
          :answered="answered"
          :flagged="flagged"
          :here="sitting.here"
          :closed-before="sitting.lowest"
          @go="goTo"
        />
      </aside>
      <main id="main" class="w-full px-5 py-6" :class="isWide ? 'max-w-7xl md:px-8' : 'max-w-4xl md:px-14'">
        <details v-if="sitting.opened.progress" class="mb-4 border-b border-rule pb-2 md:hidden">
          <summary class="text-soft">{{ answered.size }} of {{ sitting.questions.length }} answered</summary>
          <RowLine
            class="mt-3"
            :sheet="sitting.opened.sheet"
            :answered="answered"
            :flagged="flagged"
            :here="sitting.here"
            :closed-before="sitting.lowest"
            @go="goTo"
          />
        </details>
        <details v-if="sitting.opened.sheet.intro" class="mb-6 border-b border-rule pb-3" :open="sitting.page === 0">
          <summary class="text-soft">Instructions</summary>
          <WrittenText :html="sitting.opened.sheet.intro" class="mt-2 text-lg" />
        </details>
        <p v-if="isPutOffPage" class="note-look mb-5" role="status">What you left empty comes back here.</p>
        <section v-for="section in visibleSections" :key="section.title" class="mb-8">
          <h2 v-if="visibleSections.length > 1 || section.intro || section.clocked" class="mb-2 text-xl">
            {{ section.title }}
          </h2>
          <SectionDoor
            v-if="section.waits"
            :section="section"
            :minutes="sitting.opened.doors.find(({ place }) => place === section.place)?.minutes ?? null"
            :busy="entering || !sitting.canWrite"
            :problem="enterProblem"
            @enter="enter(section.place)"
          />
          <p v-if="closedPlaces.has(section.place)" class="note-look mb-4" role="status">
            This section is closed: its time is up, or you have left it. What you answered in it is kept.
          </p>
          <WrittenText v-if="section.intro" :html="section.intro" class="mb-5 text-soft" />
          <div
            v-for="(run, index) in runsOf(section.entries)"
            :key="index"
            :class="run.shared && 'lg:grid lg:grid-cols-2 lg:items-start lg:gap-10'"
          >
            <StimulusBox
              v-if="run.shared"
              :html="run.shared.html"
              :language="run.shared.language"
              :label="run.label"
              class="mb-6 lg:sticky lg:top-20 lg:max-h-[calc(100dvh-6.5rem)] lg:overflow-y-auto"
            />
            <div>
              <template v-for="(entry, place) in run.entries" :key="entry.type === 'question' ? entry.id : place">
                <WrittenText v-if="entry.type === 'text'" :html="entry.html" class="mb-6 text-lg" />
                <SittingQuestion
                  v-else
                  :entry="entry"
                  :here="sitting.here === entry.id"
                  :closed="closedPlaces.has(section.place)"
                  :paper="id"
                  @here="sitting.goes(entry.id)"
                />
              </template>
            </div>
          </div>
        </section>
        <nav
          v-if="pages > 1 || putsOffHere"
          aria-label="Pages"
          class="flex items-center justify-between border-t border-rule pt-4"
        >
          <button class="btn" :disabled="sitting.page <= sitting.lowest" @click="turnTo(sitting.page - 1)">
            Previous page
          </button>
          <span class="text-soft"
            ><template v-if="isPutOffPage">Put off</template
            ><template v-else
              >Page {{ sitting.page + 1 }} of {{ sitting.opened.putOff.length ? pages - 1 : pages }}</template
            ><template v-if="isForward"> · forward only</template></span
          >
          <button v-if="sitting.page < pages - 1" class="btn btn-main" @click="turnTo(sitting.page + 1)">
            {{ isForward ? 'Close this page and go on' : closesHere ? 'Close this section and go on' : 'Next page' }}
          </button>
          <button v-else-if="putsOffHere" class="btn btn-main" @click="turnTo(sitting.page + 1)">
            Close this page and go to what is empty
          </button>
          <button v-else class="btn btn-main" :disabled="!sitting.canWrite" @click="asking = true">Hand in…</button>
        </nav>
      </main>
    </div>
    <ModalDialog :open="leaving !== null" title="Leave this section?" @close="leaving = null">
      <p class="text-lg">“{{ under?.title }}” has a clock of its own. When you leave it, it is closed for good.</p>
      <div class="mt-5 flex justify-end gap-3">
        <button class="btn" @click="leaving = null">Stay in it</button>
        <button class="btn btn-main" @click="leaveFor(leaving!)">Leave and go on</button>
      </div>
    </ModalDialog>
    <MeasureTool v-if="measuring" :key="measuring" :kind="measuring" @close="measuring = null" />
    <HandInDialog
      :waiting="sitting.opened.sheet.sections.filter((section) => section.waits).map((section) => section.title)"
      :open="asking"
      :unanswered="unanswered"
      :flagged="sitting.questions.filter((question) => flagged.has(question.id))"
      :busy="handing"
      :problem="handInProblem"
      :may-return="mayReturnTo"
      :again="sitting.opened.again"
      @close="asking = false"
      @go="goTo"
      @hand-in="handIn"
    />
  </div>
  <main v-else id="main" class="mx-auto max-w-xl px-6 py-24">
    <template v-if="problem || sitting.refused">
      <h1 class="text-2xl">{{ sitting.refused ? 'You have been away' : 'The paper cannot be opened' }}</h1>
      <p class="mt-3 text-lg">{{ sitting.refused || problem }}</p>
      <div class="mt-6 flex gap-3">
        <button class="btn btn-main" @click="open">Try again</button
        ><NuxtLink class="btn" to="/my">My quizzes</NuxtLink>
      </div>
    </template>
    <p v-else class="text-soft" role="status">Loading the paper …</p>
  </main>
</template>
