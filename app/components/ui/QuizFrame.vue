<script setup lang="ts">
import { onKeyStroke, useIntervalFn } from '@vueuse/core'
import { stateLabels } from '~~/core/quiz/state'

/** Title, state and what is saved of one quiz, and the path through the work on it. Loads the quiz for the page within. */
const { wide = false } = defineProps<{ wide?: boolean }>()
const route = useRoute()
const store = useQuiz()
const id = computed(() => String(route.params.id))
const problem = ref('')
const opening = ref(false)
const openProblem = ref<{ sentence: string; checks: { title: string; sentence: string; where: string }[] } | null>(null)
const now = useNow(1000)

async function load() {
  problem.value = ''
  try {
    await store.load(id.value)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
watch(id, load, { immediate: true })
useIntervalFn(() => {
  if (!document.hidden) void store.poll()
}, 5000)
useHead({ title: () => `${store.quiz?.content.title ?? 'Quiz'} · Thistle` })

const steps = computed(() => [
  { name: 'Compose', to: `/quizzes/${id.value}/compose` },
  { name: 'Rules', to: `/quizzes/${id.value}/rules` },
  { name: 'Marks', to: `/quizzes/${id.value}/marks` },
])
const state = computed(() => store.view?.state)
const contentAhead = computed(() =>
  Boolean(
    store.view?.ahead ||
    (state.value !== 'draft' &&
      store.quiz &&
      store.view &&
      JSON.stringify(store.quiz.content) !== JSON.stringify(store.view.quiz.content)),
  ),
)
const saved = computed(() => {
  if (store.offline) return 'not saved yet: the server cannot be reached, trying again'
  if (store.waiting.length) return 'saving …'
  if (store.savedAt === null) return ''
  const seconds = Math.max(
    0,
    Math.round((Date.parse(now.value) - Date.parse(serverTime()) + Date.now() - store.savedAt) / 1000),
  )
  return seconds < 60 ? `saved ${seconds} s ago` : `saved ${Math.floor(seconds / 60)} min ago`
})
const stops = computed(() => store.checks.filter((check) => check.level === 'stop'))
const looks = computed(() => store.checks.filter((check) => check.level === 'look'))

onKeyStroke(['z', 'y'], (event) => {
  const field = (event.target as HTMLElement).closest('input, textarea, [contenteditable=true]')
  if (field || !(event.ctrlKey || event.metaKey)) return
  event.preventDefault()
  if (event.key === 'y' || event.shiftKey) store.redo()
  else store.undo()
})

async function open() {
  openProblem.value = null
  try {
    const { edition } = await api<{ edition: number }>(`quizzes/${id.value}/open`, { method: 'POST' })
    opening.value = false
    announce(
      edition === 1 ? 'The quiz is open to its classes by the rules.' : `Edition ${edition} goes to later starts.`,
    )
    await store.load(id.value)
  } catch (error) {
    openProblem.value = {
      sentence: sentenceOf(error),
      checks:
        error instanceof ApiProblem
          ? ((error.more.checks as { title: string; sentence: string; where: string }[] | undefined) ?? [])
          : [],
    }
  }
}

async function become(to: 'withdrawn' | 'published', words: string) {
  try {
    await api(`quizzes/${id.value}/state`, { method: 'PUT', body: { state: to } })
    await store.load(id.value)
    announce(
      words,
      to === 'withdrawn'
        ? () => {
            void become('published', 'The quiz is open again.')
          }
        : null,
    )
  } catch (error) {
    store.problem = sentenceOf(error)
  }
}
function askToOpen() {
  opening.value = true
  openProblem.value = null
}
</script>

<template>
  <main id="main" class="flex grow flex-col">
    <div v-if="problem" class="p-8">
      <p role="alert" class="note-stop">{{ problem }} <button class="link" @click="load">Try again</button></p>
    </div>
    <template v-if="store.quiz && store.view?.id === id">
      <div class="border-b border-rule px-5 pt-3">
        <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 class="min-w-0 text-2xl [overflow-wrap:anywhere]">{{ store.quiz.content.title }}</h1>
          <span v-if="state" class="state"
            >{{ stateLabels[state]
            }}<template v-if="store.view.edition && store.view.edition > 1">
              · edition {{ store.view.edition }}</template
            ></span
          >
          <span class="text-[0.9375rem] text-soft" role="status"
            >{{ saved
            }}<template v-if="store.others.length"> · also here: {{ store.others.join(', ') }}</template></span
          >
          <div class="ml-auto flex flex-wrap gap-2">
            <button class="btn" :disabled="!store.undos.length" title="Ctrl Z" @click="store.undo()">Undo</button>
            <button class="btn" :disabled="!store.redos.length" title="Ctrl Shift Z" @click="store.redo()">Redo</button>
            <slot name="actions" />
            <button v-if="state === 'draft' || contentAhead" class="btn btn-main" @click="askToOpen">
              {{ state === 'draft' ? 'Open to classes…' : 'Give to later starts…' }}
            </button>
            <button
              v-else-if="state === 'withdrawn'"
              class="btn btn-main"
              @click="become('published', 'The quiz is open again.')"
            >
              Open again
            </button>
            <button
              v-else-if="state === 'open' || state === 'scheduled'"
              class="btn"
              @click="become('withdrawn', 'Withdrawn: nobody can start it. Papers under way go on.')"
            >
              Withdraw
            </button>
          </div>
        </div>
        <nav aria-label="Work on this quiz" class="mt-2 flex gap-6">
          <NuxtLink
            v-for="step in steps"
            :key="step.to"
            :to="step.to"
            class="border-b-2 pb-2 pt-1"
            :class="
              route.path.startsWith(step.to)
                ? 'border-bloom font-semibold'
                : 'border-transparent text-soft hover:text-ink'
            "
            :aria-current="route.path.startsWith(step.to) ? 'page' : undefined"
            >{{ step.name }}</NuxtLink
          >
        </nav>
      </div>
      <p v-if="store.problem" role="alert" class="note-stop flex flex-wrap gap-3 px-5">
        {{ store.problem }} <button class="link" @click="store.problem = ''">Close</button>
      </p>
      <p v-if="contentAhead" class="note-look px-5">
        What you changed in this quiz goes to later starts only once you give it to them. Papers under way stay as they
        are.
      </p>
      <div class="grow" :class="wide ? '' : 'px-5 py-4'"><slot /></div>
      <ModalDialog
        :open="opening"
        :title="state === 'draft' ? 'Open this quiz' : 'Give the changes to later starts'"
        @close="opening = false"
      >
        <p v-if="stops.length" class="font-semibold">
          {{ stops.length === 1 ? 'One thing has' : `${stops.length} things have` }} to be mended first.
        </p>
        <p v-else>
          The questions, their points and their order are frozen as they stand now. The rules stay living: a change to
          them reaches everybody at once.
        </p>
        <ChecksList class="mt-4" :checks="[...stops, ...looks]" @gone="opening = false" />
        <div v-if="openProblem" role="alert" class="note-stop mt-4">
          <p>{{ openProblem.sentence }}</p>
          <p v-for="check in openProblem.checks" :key="check.title">{{ check.title }}: {{ check.sentence }}</p>
        </div>
        <div class="mt-5 flex justify-end gap-3">
          <button class="btn" @click="opening = false">Not yet</button>
          <button class="btn btn-main" :disabled="stops.length > 0" @click="open">
            {{ state === 'draft' ? 'Open to classes' : 'Give to later starts' }}
          </button>
        </div>
      </ModalDialog>
    </template>
    <p v-else-if="!problem" class="p-8 text-soft" role="status">Loading …</p>
  </main>
</template>
