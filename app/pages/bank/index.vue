<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { kindLabels } from '~~/core/question/kinds/labels'
import type { Objective } from '~~/server/domain/bank/objectives'
import type { Hit } from '~~/server/domain/bank/hits'
import type { SavedSearch } from '~~/server/domain/bank/saved-searches'

useHead({ title: 'Bank · Thistle' })
const search = useQuestionSearch('all')
const { words, result, problem, labelled, isNarrowed, hits, narrowing, folders } = search
if (useRoute().query.from === 'outside') narrowing.origin = 'outside'
const saved = shallowRef<SavedSearch[]>([])
const naming = ref<string | null>(null)
const open = ref(new Set<string>())
const chosen = ref(new Set<string>())
let lastChosen = -1
const objectiveOf = (id: string): Objective | undefined =>
  search.objectives.value.find((objective) => objective.id === id)
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
    saved.value = await api<SavedSearch[]>('searches')
  } catch {
    /* The list of saved searches is a convenience; the bank works without it. */
  }
}
onMounted(loadSaved)
async function saveSearch() {
  if (!naming.value?.trim()) return
  try {
    await api('searches', { method: 'POST', body: { name: naming.value, query: search.query.value } })
    naming.value = null
    await loadSaved()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
async function dropSearch(search: SavedSearch) {
  await api(`searches/${search.id}`, { method: 'DELETE' })
  announce(`“${search.name}” is no longer kept.`, () => {
    void api('searches', { method: 'POST', body: { name: search.name, query: search.query } }).then(loadSaved)
  })
  await loadSaved()
}
async function take(hit: Hit) {
  try {
    await api(`questions/${hit.id}/take`, { method: 'POST' })
    announce('Taken: a copy of your own is in the bank, with its source.')
    await changed()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
async function changed() {
  chosen.value = new Set()
  await Promise.all([search.run(), search.loadTrees()])
}
const unusedSince = computed({
  get: () => narrowing.unusedSince.slice(0, 10),
  set: (day: string) => {
    narrowing.unusedSince = day ? `${day}T00:00:00.000Z` : ''
  },
})
const stateWords: Record<Hit['state'], string> = { usable: '', work: 'in work', retired: 'retired' }
</script>

<template>
  <main id="main" class="mx-auto grid w-full max-w-7xl grow gap-x-8 px-5 py-6 lg:grid-cols-[15rem_1fr]">
    <aside class="mb-4 space-y-5 lg:sticky lg:top-4 lg:self-start">
      <details class="lg:hidden">
        <summary class="text-soft">Folders and saved searches</summary>
        <FolderTree
          class="mt-2"
          :folders="folders"
          :chosen="folder"
          @choose="search.filters.folder = $event ? [$event] : []"
          @changed="changed"
        />
      </details>
      <FolderTree
        class="hidden lg:block"
        :folders="folders"
        :chosen="folder"
        @choose="search.filters.folder = $event ? [$event] : []"
        @changed="changed"
      />
      <section v-if="saved.length">
        <h2 class="small-head">Saved searches</h2>
        <ul>
          <li v-for="each in saved" :key="each.id" class="flex items-center">
            <button
              type="button"
              class="min-w-0 grow truncate rounded px-2 py-1 text-left hover:bg-petrol-tint"
              @click="search.take(each.query)"
            >
              {{ each.name }}</button><button
              type="button"
              class="btn btn-quiet px-1.5"
              :aria-label="`Do not keep the search ${each.name}`"
              @click="dropSearch(each)"
            >
              ×
            </button>
          </li>
        </ul>
      </section>
      <p class="flex flex-col gap-1 text-[0.9375rem]">
        <NuxtLink class="link" to="/bank/import">Bring questions in</NuxtLink
        ><NuxtLink class="link" to="/bank/paste">Write in plain text</NuxtLink
        ><NuxtLink class="link" to="/bank/stimuli">Stimuli</NuxtLink
        ><NuxtLink class="link" to="/bank/objectives">Objectives</NuxtLink
        ><NuxtLink class="link" to="/bank/words">Levels and fields</NuxtLink
        ><NuxtLink class="link" to="/bank/outside">Banks of others</NuxtLink
        ><NuxtLink class="link" to="/bank/near">Near-duplicates</NuxtLink>
      </p>
    </aside>
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
        <details class="relative">
          <summary class="text-[0.9375rem] text-soft">more</summary>
          <div class="absolute right-0 z-20 mt-1 w-72 space-y-2 border border-rule bg-sheet p-3 shadow-lg">
            <label class="label"
              >Not used since<input v-model="unusedSince" type="date" class="field py-1 font-normal"
            /></label>
            <label class="flex items-center gap-2"
              ><input
                type="checkbox"
                class="accent-petrol"
                :checked="narrowing.doubted === 'yes'"
                @change="narrowing.doubted = narrowing.doubted ? '' : 'yes'"
              />
              a colleague says something is wrong</label
            >
            <label class="label"
              >From<select v-model="narrowing.origin" class="field py-1 font-normal">
                <option value="">everywhere</option>
                <option value="own">our own bank</option>
                <option value="outside">banks of others</option>
              </select></label
            >
            <label class="flex items-center gap-2"
              ><input
                type="checkbox"
                class="accent-petrol"
                :checked="narrowing.owner === 'me'"
                @change="narrowing.owner = narrowing.owner ? '' : 'me'"
              />
              my own</label
            >
          </div>
        </details>
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
      <p class="mt-3 text-[0.9375rem] text-soft" role="status">
        {{ result ? search.totalWords.value : 'Searching …' }}
      </p>
      <p v-if="problem" role="alert" class="note-stop mt-2">{{ problem }}</p>
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
          <template v-for="hit in [hits[row.index]!]" :key="hit.id">
            <div class="flex items-start gap-3">
              <input
                type="checkbox"
                class="mt-1.5 size-4 shrink-0 accent-petrol"
                :checked="chosen.has(hit.id)"
                :aria-label="`Choose: ${hit.title.slice(0, 80)}`"
                @click="choose(row.index, $event)"
              />
              <div class="min-w-0 grow">
                <p v-if="hit.internalName" class="text-[0.8125rem] font-semibold text-soft">{{ hit.internalName }}</p>
                <NuxtLink :to="`/bank/${hit.id}`" class="line-clamp-2 font-serif text-lg hover:underline">{{
                  hit.title
                }}</NuxtLink>
                <p class="mt-0.5 line-clamp-1 text-[0.9375rem] text-green">
                  <span class="text-soft">Key</span> {{ hit.key || 'not set' }}
                </p>
                <p class="mt-1 flex flex-wrap gap-x-3">
                  <QuestionMeta :hit="hit" /><span class="text-[0.8125rem] text-soft"
                    >difficulty {{ hit.difficulty }}</span
                  >
                  <span v-for="id in hit.objectives" :key="id" class="text-[0.8125rem] text-soft"
                    >{{ objectiveOf(id)?.code }} {{ objectiveOf(id)?.title }}</span
                  >
                  <span v-for="tag in hit.tags" :key="tag" class="tag py-0">{{ tag }}</span>
                  <span v-if="hit.origin" class="text-[0.8125rem] font-semibold text-petrol"
                    >{{ hit.origin.bank }} · chosen by {{ hit.origin.chosen }}
                    {{ hit.origin.chosen === 1 ? 'school' : 'schools' }}</span
                  >
                  <span v-else-if="hit.sharing !== 'school'" class="text-[0.8125rem] text-soft">{{
                    hit.sharing === 'private' ? 'private' : 'shared with some'
                  }}</span>
                  <span v-if="stateWords[hit.state]" class="sr-only">{{ stateWords[hit.state] }}</span>
                  <span v-if="hit.doubts" class="text-[0.8125rem] font-semibold text-red"
                    >! a colleague says something is wrong</span
                  >
                </p>
              </div>
              <NuxtLink
                v-if="hit.origin?.copy"
                class="link mt-1 shrink-0 text-[0.875rem]"
                :to="`/bank/${hit.origin.copy}`"
                >our copy</NuxtLink
              >
              <button
                v-else-if="hit.origin"
                type="button"
                class="btn shrink-0 py-0.5 text-[0.875rem]"
                :aria-label="`Take it: ${hit.title.slice(0, 60)}`"
                @click="take(hit)"
              >
                Take it
              </button>
              <button
                type="button"
                class="btn btn-quiet shrink-0 text-[0.875rem]"
                :aria-expanded="open.has(hit.id)"
                :aria-label="`${open.has(hit.id) ? 'Close' : 'Read'}: ${hit.title.slice(0, 60)}, ${kindLabels[hit.kind]}`"
                @click="toggleOpen(hit.id)"
              >
                {{ open.has(hit.id) ? 'close' : 'read' }}
              </button>
              <span class="shrink-0 font-semibold">{{ hit.points }}<span class="sr-only"> points</span></span>
            </div>
            <WholeQuestion v-if="open.has(hit.id)" :id="hit.id" class="ml-7 mt-3" />
          </template>
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
