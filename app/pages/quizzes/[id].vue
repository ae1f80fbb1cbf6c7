<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { sentenceTime } from '~~/core/kit/phrases'
import { same } from '~~/core/quiz/edits/paths'
import { stateLabels } from '~~/core/quiz/state'
import { quizRoutes } from '~/client/quizzes'

/**
 * What all pages of one quiz stand in: title, state, what is saved, and the path through the work on it. It opens the
 * quiz once; the pages within find it in the store, with its undo.
 */
const route = useRoute()
const store = useQuiz()
const session = useSession()
const id = computed(() => String(route.params.id))
const { problem, act } = useAct()
const opening = ref(false)
const timing = ref(false)
const now = useNow(1000)

/** The pages of a quiz, in the order of the work. */
const steps = [
  { name: 'Compose', path: 'compose', also: ['fill', 'pass-mark'] },
  { name: 'Rules', path: 'rules', also: [] },
  { name: 'Rehearse', path: 'rehearse', also: ['trial'] },
  { name: 'Marks', path: 'marks', also: [] },
]
const here = ({ path, also }: (typeof steps)[number]) =>
  [path, ...also].some((each) => route.path.startsWith(`/quizzes/${id.value}/${each}`))

const load = () => act(() => store.open(id.value))
watch(id, load, { immediate: true })
onBeforeUnmount(() => {
  store.close()
})
const live = useQuizLive(() => id.value)
provide(quizHere, live)
/** Colleagues who are here; without live news, those who were at work on it. */
const others = computed(() => {
  const names = live.here.value.filter(({ person }) => person !== session.person?.id).map(({ name }) => name)
  return names.length ? [...new Set(names)] : live.hears.value ? [] : store.others
})
const history = ref(false)
/** Pages that stand beside the path through the work. */
const otherPages: Record<string, string> = {
  fill: 'Blueprint',
  'pass-mark': 'Pass mark',
  trial: 'Trial run',
  record: 'Record',
}
const pageName = computed(() => {
  const [, , , part = '', attempt] = route.path.split('/')
  if (part === 'marks' && attempt) return 'One paper'
  return otherPages[part] ?? steps.find(({ path }) => path === part)?.name ?? ''
})
useHead({
  title: () => [pageName.value, store.quiz?.content.title ?? 'Quiz', 'Thistle'].filter(Boolean).join(' · '),
})

const state = computed(() => store.view?.state)
const contentAhead = computed(() =>
  Boolean(
    store.view?.ahead ||
    (state.value !== 'draft' && store.quiz && store.view && !same(store.quiz.content, store.view.quiz.content)),
  ),
)
const saved = computed(() => {
  if (store.offline) return 'not saved yet: the server cannot be reached, trying again'
  if (store.waiting.length) return 'saving …'
  if (store.savedAt === null) return ''
  const seconds = Math.max(
    0,
    Math.floor((Date.parse(now.value) - Date.parse(serverTime()) + Date.now() - store.savedAt) / 1000),
  )
  return seconds < 60 ? `saved ${seconds} s ago` : `saved ${Math.floor(seconds / 60)} min ago`
})

onKeyStroke(['z', 'y'], (event) => {
  const field = (event.target as HTMLElement).closest('input, textarea, [contenteditable=true]')
  if (field || !(event.ctrlKey || event.metaKey)) return
  event.preventDefault()
  if (event.key === 'y' || event.shiftKey) store.redo()
  else store.undo()
})

async function become(to: 'withdrawn' | 'published', words: string) {
  try {
    await quizRoutes.setState({ id: id.value, body: { state: to } })
    await store.reload()
    announce(
      words,
      to === 'withdrawn'
        ? () => {
            void become('published', 'The quiz is open again.')
          }
        : null,
    )
  } catch (error) {
    store.say(sentenceOf(error))
  }
}
</script>

<template>
  <main id="main" class="flex grow flex-col">
    <div v-if="problem" class="p-8">
      <ProblemNote :words="problem"><button class="link" @click="load">Try again</button></ProblemNote>
    </div>
    <template v-if="store.quiz && store.view?.id === id">
      <div class="border-b border-rule px-5 pt-3 max-sm:pt-1.5">
        <div class="flex flex-wrap items-center gap-x-4 gap-y-2 max-sm:gap-y-1">
          <h1
            dir="auto"
            class="min-w-0 text-2xl [overflow-wrap:anywhere] max-sm:line-clamp-1 max-sm:text-xl"
            :title="store.quiz.content.title"
          >
            {{ store.quiz.content.title }}
          </h1>
          <span v-if="state" class="state"
            >{{ stateLabels[state]
            }}<template v-if="store.view.edition && store.view.edition > 1">
              · edition {{ store.view.edition }}</template
            ></span
          >
          <span v-if="store.view.opensAt" class="text-label font-semibold text-amber"
            >opens by itself {{ sentenceTime(store.view.opensAt, session.zone) }}</span
          >
          <span class="text-label text-soft" role="status"
            >{{ saved
            }}<template v-if="others.length">{{ saved ? ' · ' : '' }}also here: {{ others.join(', ') }}</template></span
          >
          <div
            class="ml-auto flex flex-wrap gap-2 max-sm:ml-0 max-sm:max-w-full max-sm:flex-nowrap max-sm:overflow-x-auto max-sm:p-0.5 max-sm:[&_*]:whitespace-nowrap print:hidden"
          >
            <button class="btn" :disabled="!store.undos.length" title="Ctrl Z" @click="store.undo()">Undo</button>
            <button class="btn" :disabled="!store.redos.length" title="Ctrl Shift Z" @click="store.redo()">Redo</button>
            <button class="btn" @click="history = true">History</button>
            <NuxtLink v-if="state !== 'draft'" class="btn" :to="`/quizzes/${id}/record`">Record</NuxtLink>
            <span id="quiz-actions" class="contents" />
            <button
              v-if="state === 'open' || state === 'scheduled' || state === 'closed'"
              class="btn"
              @click="timing = true"
            >
              Time…
            </button>
            <button v-if="state === 'draft' || contentAhead" class="btn btn-main" @click="opening = true">
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
        <nav aria-label="Work on this quiz" class="mt-2 flex gap-6 max-sm:mt-1 print:hidden">
          <NuxtLink
            v-for="step in steps"
            :key="step.path"
            :to="`/quizzes/${id}/${step.path}`"
            class="border-b-2 pb-2 pt-1"
            :class="here(step) ? 'border-bloom font-semibold' : 'border-transparent text-soft hover:text-ink'"
            :aria-current="here(step) ? 'page' : undefined"
            >{{ step.name }}</NuxtLink
          >
        </nav>
      </div>
      <AskedNote />
      <p v-if="contentAhead" class="note-look px-5">
        What you changed in this quiz goes to later starts only once you give it to them. Papers under way stay as they
        are.
      </p>
      <div class="grow" :class="route.meta.wide ? '' : 'px-5 py-4'"><NuxtPage /></div>
      <HistoryDialog :open="history" @close="history = false" />
      <OpeningDialog :open="opening" @close="opening = false" />
      <TimesDialog :open="timing" @close="timing = false" />
      <EffectsDialog @some="timing = true" />
    </template>
    <p v-else-if="!problem" class="p-8 text-soft" role="status">Loading …</p>
  </main>
</template>
