<script setup lang="ts">
import { until } from '@vueuse/core'
import { list, sentenceTime } from '~~/core/kit/phrases'
import { minute, plus } from '~~/core/kit/time'
import { timeLines } from '~~/core/notices/letters'
import { listTo } from '~~/core/quiz/edits'
import { noticeNames } from '~~/core/rules'
import { studentOfClass } from '~~/core/schedule/assigned'
import { scheduleFor } from '~~/core/schedule/schedule'
import { quizRoutes } from '~/client/quizzes'

/**
 * Before a quiz is given to its classes, or a new edition to later starts: who can sit it when, what has to be mended first,
 * what is worth a look. A draft opens at once or at a set time, for all of its classes or for one after another.
 */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const store = useQuiz()
const session = useSession()
const problem = ref<{ sentence: string; checks: { title: string; sentence: string }[] } | null>(null)
const busy = ref(false)
const isDraft = computed(() => store.view?.state === 'draft')
const stops = computed(() => store.checks.filter((check) => check.level === 'stop'))
const looks = computed(() => store.checks.filter((check) => check.level === 'look' && !check.aside))
const when = ref<'now' | 'later'>('now')
const at = ref('')
watch(
  () => open,
  () => {
    problem.value = null
    const set = store.view?.opensAt ?? null
    when.value = set ? 'later' : 'now'
    at.value = set ?? plus(serverTime(), 24 * 60 * minute).slice(0, 14) + '00:00.000Z'
  },
)

/** The classes of its windows, with the times that each has. */
const classes = computed(() => {
  const { quiz, view } = store
  if (!quiz || !view) return []
  const meant = new Set(quiz.rules.windows.flatMap((window) => window.classes))
  const all = { ...quiz.rules, heldBack: [] }
  return view.classes
    .filter((each) => meant.has(each.id))
    .map((each) => ({
      ...each,
      held: quiz.rules.heldBack.includes(each.id),
      times: timeLines(scheduleFor(all, studentOfClass(each.id)), session.zone),
    }))
})
function hold(id: string, held: boolean) {
  const others = store.quiz!.rules.heldBack.filter((each) => each !== id)
  store.make(listTo(store.quiz!, ['rules', 'heldBack'], held ? [...others, id] : others))
}
const letters = computed(() => {
  const on = noticeNames.filter((name) => store.quiz?.rules.notices[name].on)
  return on.includes('opening') ? 'A letter goes to everybody to whom it is given.' : 'No letter tells them.'
})

async function act(work: () => Promise<string>) {
  problem.value = null
  busy.value = true
  try {
    // What was set here is kept first: it opens by it.
    await until(() => store.waiting.length).toBe(0, { timeout: 10_000, throwOnTimeout: true })
    const said = await work()
    emit('close')
    announce(said)
    await store.reload()
  } catch (error) {
    problem.value = {
      sentence: sentenceOf(error),
      checks:
        error instanceof ApiProblem
          ? ((error.more.checks as { title: string; sentence: string }[] | undefined) ?? [])
          : [],
    }
  } finally {
    busy.value = false
  }
}
const give = () =>
  act(async () => {
    if (isDraft.value && when.value === 'later') {
      await quizRoutes.setOpening({ id: store.id!, body: { at: at.value } })
      return `It opens by itself ${sentenceTime(at.value, session.zone)}.`
    }
    if (store.view?.opensAt) await quizRoutes.setOpening({ id: store.id!, body: { at: null } })
    const { edition } = await quizRoutes.open({ id: store.id! })
    return edition === 1 ? 'The quiz is open to its classes by the rules.' : `Edition ${edition} goes to later starts.`
  })
const callOff = () =>
  act(async () => {
    await quizRoutes.setOpening({ id: store.id!, body: { at: null } })
    return 'It does not open by itself any more.'
  })
const heldNames = computed(() => list(classes.value.filter(({ held }) => held).map(({ name }) => name)))
</script>

<template>
  <ModalDialog
    wide
    :open="open"
    :title="isDraft ? 'Open this quiz' : 'Give the changes to later starts'"
    @close="emit('close')"
  >
    <p v-if="stops.length" class="font-semibold">
      {{ stops.length === 1 ? 'One thing has' : `${stops.length} things have` }} to be mended first.
    </p>
    <p v-else>
      The questions, their points and their order are frozen as they stand now. The rules stay living: a change to them
      reaches everybody at once.
    </p>
    <section v-if="isDraft && classes.length" class="mt-4">
      <h3 class="border-b border-rule pb-1 font-semibold">Who can sit it, and when</h3>
      <ul>
        <li v-for="each in classes" :key="each.id" class="flex flex-wrap gap-x-4 border-b border-rule/60 py-1.5">
          <TickBox
            class="w-56"
            :model-value="!each.held"
            :disabled="classes.length === 1 && !each.held"
            @update:model-value="hold(each.id, !$event)"
            >{{ each.name }} <span class="text-soft">{{ each.students }}</span></TickBox
          >
          <p class="min-w-0 grow basis-64" :class="each.held && 'text-soft'">
            <template v-if="each.held">held back: given later, on the page of the rules</template>
            <template v-else
              ><span v-for="line in each.times" :key="line" class="block">{{ line }}</span></template
            >
          </p>
        </li>
      </ul>
      <p class="mt-1.5 text-label text-soft">{{ letters }}</p>
    </section>
    <ChecksList class="mt-4" :checks="[...stops, ...looks]" @gone="emit('close')" />
    <fieldset v-if="isDraft && !stops.length" class="mt-4 flex flex-wrap items-center gap-x-6 gap-y-2">
      <legend class="sr-only">When it is opened</legend>
      <label class="flex items-center gap-2"
        ><input v-model="when" type="radio" class="accent-petrol" value="now" />at once</label
      >
      <label class="flex items-center gap-2"
        ><input v-model="when" type="radio" class="accent-petrol" value="later" />by itself, at a set time</label
      >
      <span v-if="when === 'later'" class="w-56"
        ><TimeField v-model="at" :zone="session.zone" name="When it opens by itself"
      /></span>
    </fieldset>
    <div v-if="problem" role="alert" class="note-stop mt-4">
      <p>{{ problem.sentence }}</p>
      <p v-for="check in problem.checks" :key="check.title">{{ check.title }}: {{ check.sentence }}</p>
    </div>
    <div class="mt-5 flex flex-wrap justify-end gap-3">
      <button v-if="store.view?.opensAt" class="btn btn-quiet mr-auto" :disabled="busy" @click="callOff">
        Call off that it opens by itself
      </button>
      <button class="btn" @click="emit('close')">Not yet</button>
      <button class="btn btn-main" :disabled="stops.length > 0 || busy" @click="give">
        {{
          !isDraft
            ? 'Give to later starts'
            : when === 'later'
              ? 'Set it'
              : heldNames
                ? `Open to all but ${heldNames}`
                : 'Open to classes'
        }}
      </button>
    </div>
  </ModalDialog>
</template>
