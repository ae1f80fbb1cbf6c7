<script setup lang="ts">
import { onKeyStroke, useDebounceFn } from '@vueuse/core'
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
  DialogTitle,
} from '@headlessui/vue'
import { findRoutes } from '~/client/find'
import { browserMemory } from '~/documents/device'
import { matching, ownLines, Recent, type Line } from '~/documents/find'

/** Any question, quiz, student, class, page or act, by typing; what was gone to lately comes first. */
const session = useSession()
const quiz = useQuiz()
const open = ref(false)
const typed = ref('')
const found = shallowRef<Line[]>([])
const searching = ref(false)
const problem = ref('')
let stop = new AbortController()

const recent = computed(
  () =>
    new Recent(
      browserMemory(() => localStorage),
      `thistle:find:${session.person?.id ?? ''}`,
    ),
)
const own = computed(() => {
  const here = quiz.id && quiz.quiz ? { id: quiz.id, title: quiz.quiz.content.title } : null
  return session.person ? ownLines(session.person, here) : []
})
const lately = shallowRef<Line[]>([])

const ask = useDebounceFn(async () => {
  stop.abort()
  stop = new AbortController()
  const { signal } = stop
  const words = typed.value.trim()
  if (!words) {
    found.value = []
    searching.value = false
    return
  }
  try {
    const things = await findRoutes.find({ query: { words }, signal })
    if (signal.aborted) return
    found.value = things.map(({ id, ...thing }) => ({ ...thing, key: `${thing.sort} ${id}` }))
    problem.value = ''
  } catch (error) {
    if (!signal.aborted) problem.value = sentenceOf(error)
  } finally {
    if (!signal.aborted) searching.value = false
  }
}, 120)
watch(typed, () => {
  searching.value = typed.value.trim() !== ''
  void ask()
})

const groups = computed(() => {
  const words = typed.value.trim()
  if (!words)
    return [
      { title: 'Lately', lines: lately.value },
      {
        title: 'Pages, and what to do',
        lines: own.value.filter(({ key }) => !lately.value.some((each) => each.key === key)),
      },
    ]
  const of = (sort: Line['sort']) => found.value.filter((line) => line.sort === sort)
  return [
    { title: 'Lately', lines: matching(lately.value, words).slice(0, 3) },
    { title: 'Pages, and what to do', lines: matching(own.value, words).slice(0, 6) },
    { title: 'Quizzes', lines: of('quiz') },
    { title: 'Students', lines: of('student') },
    { title: 'Classes', lines: of('class') },
    { title: 'Questions', lines: of('question') },
  ]
})
const shown = computed(() => {
  const seen = new Set<string>()
  return groups.value
    .map(({ title, lines }) => ({
      title,
      lines: lines.filter(({ key }) => !seen.has(key) && Boolean(seen.add(key))),
    }))
    .filter(({ lines }) => lines.length)
})

function begin() {
  lately.value = recent.value.lines
  typed.value = ''
  found.value = []
  open.value = true
}
async function go(line: Line | null) {
  if (!line) return
  recent.value.note(line)
  open.value = false
  await navigateTo(line.to)
}
onKeyStroke('k', (event) => {
  if (!(event.ctrlKey || event.metaKey)) return
  event.preventDefault()
  if (open.value) open.value = false
  else begin()
})
</script>

<template>
  <button
    class="rounded border border-bar-soft/50 px-3 py-1 text-label text-bar-soft hover:text-bar-ink"
    aria-keyshortcuts="Control+K"
    @click="begin"
  >
    Find or do <kbd class="ml-1 font-sans text-note max-sm:hidden">Ctrl K</kbd>
  </button>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 overflow-y-auto px-2 pb-8 pt-2 sm:pt-[10vh]">
      <DialogPanel class="mx-auto w-full max-w-2xl bg-sheet text-ink shadow-lg">
        <DialogTitle class="sr-only">Find or do</DialogTitle>
        <Combobox :model-value="null" nullable @update:model-value="go">
          <ComboboxInput
            class="w-full border-b border-ink bg-sheet px-4 py-3 text-lg outline-none"
            placeholder="A question, quiz, student, class, page …"
            aria-label="Find or do"
            autocomplete="off"
            :display-value="() => typed"
            @change="typed = $event.target.value"
          />
          <p v-if="problem" role="alert" class="px-4 py-2 text-red">{{ problem }}</p>
          <ComboboxOptions static class="max-h-[60vh] overflow-y-auto pb-2">
            <template v-for="group in shown" :key="group.title">
              <li class="small-head px-4 pb-0.5 pt-3 text-note" role="presentation">{{ group.title }}</li>
              <ComboboxOption v-for="line in group.lines" :key="line.key" v-slot="{ active }" :value="line">
                <div class="flex cursor-pointer items-baseline gap-3 px-4 py-1.5" :class="active && 'bg-petrol-tint'">
                  <span class="min-w-0 truncate" :class="line.sort === 'question' && 'font-serif'">{{
                    line.name
                  }}</span>
                  <span class="ml-auto min-w-0 max-w-[45%] shrink-0 truncate text-note text-soft">{{ line.note }}</span>
                </div>
              </ComboboxOption>
            </template>
            <li v-if="!shown.length" class="px-4 py-4 text-soft" role="presentation">
              {{ searching ? 'Looking …' : 'Nothing that you may see is called so.' }}
            </li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
