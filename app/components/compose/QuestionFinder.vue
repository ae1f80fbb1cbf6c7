<script setup lang="ts">
import { questionRoutes } from '~/client/questions'
import { onKeyStroke, useInfiniteScroll } from '@vueuse/core'
import { questionsUsed } from '~~/core/quiz/walk'
import type { Hit } from '~~/server/domain/bank/finding/hits'

/** Finds questions while a quiz is composed; several are picked and go in at a place that the button names. */
const { place } = defineProps<{ place: string }>()
const emit = defineEmits<{ add: [Hit[]]; pool: [Hit[]] }>()
const store = useQuiz()
const search = useQuestionSearch('usable')
const { words, result, problem, labelled, hits, isNarrowed } = search
const { problem: refused, act } = useAct()
const picked = ref<Hit[]>([])
const field = useTemplateRef<HTMLInputElement>('field')
const used = computed(() => new Set(store.quiz ? questionsUsed(store.quiz.content) : []))
const isPicked = (hit: Hit) => picked.value.some((each) => each.id === hit.id)
const toggle = (hit: Hit) => {
  picked.value = isPicked(hit) ? picked.value.filter((each) => each.id !== hit.id) : [...picked.value, hit]
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

/** What is picked, questions of others as copies of our own. */
async function taken(): Promise<Hit[]> {
  return Promise.all(
    picked.value.map(async (hit) =>
      hit.origin ? { ...hit, id: (await questionRoutes.take({ id: hit.id })).id, origin: null } : hit,
    ),
  )
}
async function give(kind: 'add' | 'pool') {
  await act(async () => {
    const hits = await taken()
    if (kind === 'add') emit('add', hits)
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
      </p>
      <ProblemNote class="text-small" :words="refused || problem" />
    </div>
    <ul ref="box" class="min-h-40 grow overflow-y-auto border-t border-rule">
      <li v-for="hit in hits" :key="hit.id">
        <label
          class="block cursor-pointer border-b border-rule px-3.5 py-2.5"
          :class="isPicked(hit) ? 'bg-bloom-tint shadow-[inset_3px_0_0_var(--bloom)]' : 'hover:bg-sheet'"
        >
          <input type="checkbox" class="peer sr-only" :checked="isPicked(hit)" @change="toggle(hit)" />
          <span
            class="line-clamp-3 font-serif text-label leading-snug peer-focus-visible:outline-2 peer-focus-visible:outline-bloom"
            >{{ hit.title }}</span
          >
          <span class="mt-1 flex flex-wrap justify-between gap-x-2"
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
        </label>
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
      <button v-if="picked.length" class="btn btn-quiet" @click="picked = []">Choose none</button>
    </div>
  </section>
</template>
