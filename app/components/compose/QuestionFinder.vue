<script setup lang="ts">
import { onKeyStroke, useInfiniteScroll, useLocalStorage } from '@vueuse/core'
import { condition, type Condition } from '~~/core/quiz/condition'
import { questionsUsed } from '~~/core/quiz/walk'
import type { Hit } from '~~/server/domain/bank/finding/hits'

/** Finds questions while a quiz is composed; several are picked and go in at a place that the button names. */
const { place, pool = '' } = defineProps<{
  place: string
  /** The pool that is selected in the running order: hits can go into it. */
  pool?: string
}>()
const emit = defineEmits<{ add: [Hit[]]; pool: [Hit[]]; into: [Hit[]]; condition: [Condition] }>()
const store = useQuiz()
const search = useQuestionSearch('usable')
const { words, result, problem, labelled, hits, isNarrowed } = search
const { problem: refused, act } = useAct()
/** A check leads here: to the questions on an objective. */
const route = useRoute()
watch(
  () => route.query.objective,
  (objective) => {
    if (objective) search.filters.objective = [String(objective)]
  },
  { immediate: true },
)
/** What is chosen stays so while search and filters change, and over a reload. */
const picked = useLocalStorage<Hit[]>(`thistle:chosen:${store.id ?? ''}`, [])
const reading = ref<string | null>(null)
const overlooking = ref(false)
let last: string | null = null
const field = useTemplateRef<HTMLInputElement>('field')
/** The same set while the same questions are in: a row that only moves draws nothing anew here. */
const used = computed((before?: ReadonlySet<string>) => {
  const now = new Set(store.met ? questionsUsed(store.met.content) : [])
  return before?.size === now.size && [...now].every((id) => before.has(id)) ? before : now
})
const isPicked = (hit: Hit) => picked.value.some((each) => each.id === hit.id)
/** @param stretch with Shift: all from the one before */
function toggle(hit: Hit, stretch = false) {
  const from = hits.value.findIndex((each) => each.id === last)
  const to = hits.value.indexOf(hit)
  if (stretch && from >= 0 && to >= 0) {
    const between = hits.value.slice(Math.min(from, to), Math.max(from, to) + 1)
    picked.value = [...picked.value, ...between.filter((each) => !isPicked(each))]
  } else picked.value = isPicked(hit) ? picked.value.filter((each) => each.id !== hit.id) : [...picked.value, hit]
  last = hit.id
}
const conditionFilters = ['kind', 'objective', 'tag', 'folder', 'level', 'grade'] as const
/** More than this are not chosen at once. */
const mostAtOnce = 300
const choosing = ref(false)
/** All that the search finds, page by page. */
async function chooseAll() {
  choosing.value = true
  while (search.hasMore.value && hits.value.length < mostAtOnce) {
    const before = hits.value.length
    await search.more()
    if (hits.value.length === before) break
  }
  const found = hits.value.slice(0, mostAtOnce)
  picked.value = [...picked.value, ...found.filter((hit) => !isPicked(hit))]
  choosing.value = false
}
function shift(from: number, by: number) {
  const next = [...picked.value]
  const [moved] = next.splice(from, 1)
  next.splice(from + by, 0, moved!)
  picked.value = next
}
const box = useTemplateRef<HTMLElement>('box')
useInfiniteScroll(box, () => search.more(), {
  distance: 300,
  canLoadMore: () => search.hasMore.value && !search.loading.value,
})

onKeyStroke('/', (event) => {
  if ((event.target as HTMLElement).closest('input, textarea, select, [contenteditable=true], [role=dialog]')) return
  event.preventDefault()
  field.value?.focus()
})

/** The search as it stands, as a condition; null where it asks for what a pool never holds. */
const asCondition = computed(() => {
  const { origin, owner, doubted, state, ...asked } = search.query.value
  if (origin === 'outside' || owner || doubted || state !== 'usable') return null
  const many = (value: unknown) =>
    String(value ?? '')
      .split(',')
      .filter(Boolean)
  const read = condition.safeParse({
    words: asked.words,
    unusedSince: asked.unusedSince || null,
    ...Object.fromEntries(conditionFilters.map((name) => [name, many(search.filters[name].join(','))])),
    difficulty: search.filters.difficulty.map(Number),
  })
  return read.success ? read.data : null
})
async function give(kind: 'add' | 'pool' | 'into') {
  await act(async () => {
    const hits = await ownCopies(picked.value)
    if (kind === 'add') emit('add', hits)
    else if (kind === 'into') emit('into', hits)
    else emit('pool', hits)
    picked.value = []
  })
}
</script>

<template>
  <section aria-label="Finder" class="flex min-h-0 flex-col">
    <div class="space-y-2.5 p-3.5">
      <div class="relative">
        <label class="sr-only" for="finder">Find questions</label>
        <input
          id="finder"
          ref="field"
          v-model="words"
          class="field pr-8"
          type="search"
          placeholder="Find questions"
          @keydown.enter.prevent="hits[0] && toggle(hits[0])"
        />
        <kbd class="pointer-events-none absolute right-3 top-2 text-soft" aria-hidden="true">/</kbd>
      </div>
      <FilterMenu :values="labelled" :at-least="result?.sampled" @toggle="search.toggle" />
      <p class="text-note text-soft" role="status">
        {{ result ? search.totalWords.value : 'Searching …' }}{{ picked.length ? ` · ${picked.length} chosen` : '' }}
        <button v-if="isNarrowed" class="link ml-2" @click="search.clear()">clear</button>
        <button
          v-if="isNarrowed && hits.length && result && result.total <= mostAtOnce"
          class="link ml-2"
          :disabled="choosing"
          @click="chooseAll"
        >
          choose all {{ result.total }}
        </button>
        <button v-if="picked.length" class="link ml-2" :aria-expanded="overlooking" @click="overlooking = !overlooking">
          {{ overlooking ? 'back to the search' : 'look them over' }}
        </button>
      </p>
      <ProblemNote class="text-small" :words="refused || problem" />
    </div>
    <ol
      v-if="overlooking && picked.length"
      class="min-h-40 grow overflow-y-auto border-t border-rule"
      aria-label="Chosen questions, in their order"
    >
      <li v-for="(hit, i) in picked" :key="hit.id" class="border-b border-rule px-3.5 py-2">
        <p class="line-clamp-2 font-serif text-label">{{ hit.title }}</p>
        <p class="mt-1 flex gap-3 text-note">
          <QuestionMeta :hit="hit" />
          <span class="ml-auto flex gap-2">
            <button
              class="link"
              :disabled="i === 0"
              :aria-label="`Up: ${hit.title.slice(0, 60)}`"
              @click="shift(i, -1)"
            >
              up
            </button>
            <button
              class="link"
              :disabled="i === picked.length - 1"
              :aria-label="`Down: ${hit.title.slice(0, 60)}`"
              @click="shift(i, 1)"
            >
              down
            </button>
            <button
              class="link"
              :aria-expanded="reading === hit.id"
              @click="reading = reading === hit.id ? null : hit.id"
            >
              {{ reading === hit.id ? 'close' : 'read' }}
            </button>
            <button class="link" :aria-label="`Choose no more: ${hit.title.slice(0, 60)}`" @click="toggle(hit)">
              drop
            </button>
          </span>
        </p>
        <WholeQuestion v-if="reading === hit.id" :id="hit.id" class="mt-2" />
      </li>
    </ol>
    <ul v-show="!overlooking || !picked.length" ref="box" class="min-h-40 grow overflow-y-auto border-t border-rule">
      <li v-for="hit in hits" :key="hit.id" class="border-b border-rule">
        <label
          class="block cursor-pointer px-3.5 pt-2.5 pb-1"
          :class="isPicked(hit) ? 'bg-bloom-tint shadow-[inset_3px_0_0_var(--bloom)]' : 'hover:bg-sheet'"
        >
          <span class="flex items-start gap-2"
            ><input
              type="checkbox"
              class="mt-0.5 size-4 shrink-0 accent-petrol"
              :checked="isPicked(hit)"
              @click="toggle(hit, $event.shiftKey)"
            /><span class="line-clamp-3 font-serif text-label leading-snug">{{ hit.title }}</span></span
          >
        </label>
        <div class="px-3.5 pb-1.5">
          <div class="flex items-baseline gap-3">
            <span class="flex grow flex-wrap justify-between gap-x-2"
              ><QuestionMeta :hit="hit" /><span v-if="hit.origin" class="text-note text-petrol"
                >{{ hit.origin.bank.split(':')[0] }} · {{ hit.origin.chosen }}
                {{ hit.origin.chosen === 1 ? 'school' : 'schools' }}</span
              ><span v-if="hit.doubts" class="text-note font-semibold text-red"
                >! a colleague says something is wrong</span
              ><span v-if="hit.stimulus" class="text-note text-soft">on a stimulus</span
              ><span
                v-if="used.has(hit.id) || (hit.origin?.copy && used.has(hit.origin.copy))"
                class="text-note font-semibold text-petrol"
                >in this quiz</span
              ></span
            >
            <button
              class="link text-note"
              :aria-expanded="reading === hit.id"
              :aria-label="`${reading === hit.id ? 'Close' : 'Read'}: ${hit.title.slice(0, 60)}`"
              @click="reading = reading === hit.id ? null : hit.id"
            >
              {{ reading === hit.id ? 'close' : 'read' }}
            </button>
          </div>
          <WholeQuestion v-if="reading === hit.id" :id="hit.id" class="mt-2" />
        </div>
      </li>
      <li v-if="result && !hits.length" class="p-4 text-soft">
        Nothing found. Try fewer words<template v-if="isNarrowed"
          >, or <button class="link" @click="search.clear()">clear the filters</button></template
        >.
      </li>
    </ul>
    <div class="flex flex-wrap gap-2 border-t border-rule p-3.5">
      <button class="btn btn-main" :disabled="!picked.length" @click="give('add')">
        {{ picked.length ? `Add ${picked.length} ${place}` : 'Choose questions to add' }}
      </button>
      <button v-if="picked.length > 1" class="btn" @click="give('pool')">Make a pool of {{ picked.length }}</button>
      <button v-if="picked.length && pool" class="btn" @click="give('into')">Into {{ pool }}</button>
      <button v-if="picked.length" class="btn btn-quiet" @click="picked = []">Choose none</button>
      <button
        v-else-if="isNarrowed && asCondition && hits.length"
        class="btn"
        title="The pool holds whatever this search finds when the quiz is opened"
        @click="emit('condition', asCondition)"
      >
        A pool of what this finds
      </button>
    </div>
  </section>
</template>
