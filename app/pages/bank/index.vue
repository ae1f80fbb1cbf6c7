<script setup lang="ts">
import { questionRoutes } from '~/client/questions'
import { searchRoutes } from '~/client/searches'
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { SavedSearch } from '~~/server/domain/bank/finding/saved-searches'

useHead({ title: 'Bank · Thistle' })
const search = useQuestionSearch('all')
const { words, result, problem, labelled, isNarrowed, hits, narrowing, folders } = search
const { problem: refused, act } = useAct()
if (useRoute().query.from === 'outside') narrowing.origin = 'outside'
const saved = shallowRef<SavedSearch[]>([])
const naming = ref<string | null>(null)
const open = ref(new Set<string>())
const chosen = ref(new Set<string>())
let lastChosen = -1
const objectivesById = computed(() => new Map(search.objectives.value.map((objective) => [objective.id, objective])))
const folder = computed(() => search.filters.folder[0] ?? null)
const facetValues = computed(() => labelled.value.filter((each) => each.name !== 'folder'))

const list = useTemplateRef<HTMLElement>('list')
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: hits.value.length,
    estimateSize: () => 118,
    overscan: 6,
    scrollMargin: list.value?.offsetTop ?? 0,
    getItemKey: (index: number) => hits.value[index]?.id ?? index,
  })),
)
const rows = computed(() => virtual.value.getVirtualItems())
watch(rows, (visible) => {
  if ((visible.at(-1)?.index ?? -1) >= hits.value.length - 20 && search.hasMore.value && !search.loading.value)
    void search.more()
})
watch(
  () => search.query.value,
  () => {
    chosen.value = new Set()
    open.value = new Set()
  },
)

function toggleOpen(id: string) {
  const next = new Set(open.value)
  if (!next.delete(id)) next.add(id)
  open.value = next
}
/** With Shift, all from the last one chosen to this one. */
function choose(index: number, event: MouseEvent) {
  const next = new Set(chosen.value)
  const on = !next.has(hits.value[index]!.id)
  const [from, to] =
    event.shiftKey && lastChosen >= 0 ? [Math.min(lastChosen, index), Math.max(lastChosen, index)] : [index, index]
  for (const hit of hits.value.slice(from, to + 1)) {
    if (on) next.add(hit.id)
    else next.delete(hit.id)
  }
  lastChosen = index
  chosen.value = next
}
async function loadSaved() {
  try {
    saved.value = await searchRoutes.list()
  } catch {
    /* The list of saved searches is a convenience; the bank works without it. */
  }
}
onMounted(loadSaved)
async function saveSearch() {
  const name = naming.value?.trim()
  if (!name) return
  await act(async () => {
    await searchRoutes.add({ body: { name, query: search.query.value } })
    naming.value = null
    await loadSaved()
  })
}
async function dropSearch(search: SavedSearch) {
  await act(
    async () => {
      await searchRoutes.remove({ id: search.id })
      await loadSaved()
    },
    `“${search.name}” is no longer kept.`,
    () => {
      void act(async () => {
        await searchRoutes.add({ body: { name: search.name, query: search.query } })
        await loadSaved()
      })
    },
  )
}
async function take(hit: Hit) {
  await act(async () => {
    await questionRoutes.take({ id: hit.id })
    announce('Taken: a copy of your own is in the bank, with its source.')
    await changed()
  })
}
async function changed() {
  chosen.value = new Set()
  await Promise.all([search.run(), search.loadTrees()])
}
const side = computed(() => ({ folders: folders.value, chosen: folder.value, saved: saved.value }))
const fromSide = {
  choose: (id: string | null) => {
    search.filters.folder = id ? [id] : []
  },
  changed,
  take: search.take,
  drop: dropSearch,
}
</script>

<template>
  <main id="main" class="mx-auto grid w-full max-w-7xl grow gap-x-8 px-5 py-6 lg:grid-cols-[15rem_1fr]">
    <details class="mb-4 lg:hidden">
      <summary class="text-soft">Folders, saved searches and more</summary>
      <BankSide class="mt-2" v-bind="side" v-on="fromSide" />
    </details>
    <aside class="hidden lg:sticky lg:top-4 lg:block lg:self-start"><BankSide v-bind="side" v-on="fromSide" /></aside>
    <div class="min-w-0">
      <div class="flex flex-wrap items-center justify-between gap-3">
        <h1 class="text-3xl">Bank</h1>
        <WriteMenu />
      </div>
      <div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <label class="sr-only" for="words">Search words</label>
        <input
          id="words"
          v-model="words"
          class="field max-w-md"
          type="search"
          placeholder="Words in stem, options, key or tags"
        />
        <FilterMenu :values="facetValues" :at-least="result?.sampled" @toggle="search.toggle" />
        <select v-model="narrowing.state" class="field w-auto! py-1" aria-label="State">
          <option value="all">in use</option>
          <option value="usable">usable</option>
          <option value="work">in work</option>
          <option value="retired">retired</option>
        </select>
        <NarrowMenu v-model="narrowing" />
        <button v-if="isNarrowed" class="btn btn-quiet" @click="search.clear()">Clear</button>
        <button v-if="isNarrowed && naming === null" class="btn btn-quiet" @click="naming = words || 'My search'">
          Save this search
        </button>
        <form v-if="naming !== null" class="flex gap-1" @submit.prevent="saveSearch">
          <input v-model="naming" class="field w-44! py-1" aria-label="Name of the search" maxlength="80" /><button
            class="btn py-1"
          >
            Keep
          </button>
        </form>
      </div>
      <p class="mt-3 text-label text-soft" role="status">
        {{ result ? search.totalWords.value : 'Searching …' }}
      </p>
      <ProblemNote class="mt-2" :words="refused || problem" />
      <EmptyNote
        v-if="result && !result.total"
        :title="isNarrowed ? 'Nothing found' : 'The bank is empty'"
        class="mt-4"
      >
        <template v-if="isNarrowed"
          >Try fewer words, or <button class="link" @click="search.clear()">clear the filters</button>.</template
        >
        <template v-else
          >Write the first question with the button above, or
          <NuxtLink class="link" to="/bank/import">bring some in from a file</NuxtLink>.</template
        >
      </EmptyNote>
      <ul
        v-else
        ref="list"
        class="relative mt-2 border-t border-ink"
        :style="{ height: `${virtual.getTotalSize()}px` }"
      >
        <li
          v-for="row in rows"
          :key="String(row.key)"
          :ref="(element) => virtual.measureElement(element as Element | null)"
          :data-index="row.index"
          class="absolute inset-x-0 top-0 border-b border-rule py-3"
          :style="{ transform: `translateY(${row.start - virtual.options.scrollMargin}px)` }"
          :aria-setsize="hits.length"
          :aria-posinset="row.index + 1"
        >
          <BankHit
            v-for="hit in [hits[row.index]!]"
            :key="hit.id"
            :hit="hit"
            :objectives="objectivesById"
            :chosen="chosen.has(hit.id)"
            :open="open.has(hit.id)"
            @choose="choose(row.index, $event)"
            @open="toggleOpen(hit.id)"
            @take="take(hit)"
          />
        </li>
      </ul>
      <BulkBar
        v-if="chosen.size"
        :chosen="[...chosen]"
        :folders="folders"
        :objectives="search.objectives.value"
        @done="changed"
        @none="chosen = new Set()"
      />
    </div>
  </main>
</template>
