<script setup lang="ts">
import { useInfiniteScroll } from '@vueuse/core'
import { count } from '~~/core/kit/words'
import type { Objective } from '~~/server/domain/bank/search'

useHead({ title: 'Bank · Thistle' })
const search = useQuestionSearch('all')
const { words, result, problem, labelled, isNarrowed, hits } = search
const objectiveOf = (id: string): Objective | undefined => search.objectives.value.find((objective) => objective.id === id)
useInfiniteScroll(() => document, () => search.more(), { distance: 600, canLoadMore: () => (result.value ? hits.value.length < result.value.total : false) })
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-5xl px-5 py-8">
    <div class="flex flex-wrap items-center justify-between gap-3">
      <h1 class="text-3xl">Bank</h1>
      <div class="flex flex-wrap gap-2">
        <WriteMenu />
      </div>
    </div>
    <div class="mt-6 flex flex-wrap items-center gap-x-4 gap-y-2">
      <label class="sr-only" for="words">Search words</label>
      <input id="words" v-model="words" class="field max-w-md" type="search" placeholder="Words in stem, options, key or tags">
      <FilterMenu :values="labelled" @toggle="search.toggle" />
      <button v-if="isNarrowed" class="btn btn-quiet" @click="search.clear()">Clear</button>
    </div>
    <p class="mt-3 text-[0.9375rem] text-soft" role="status">{{ result ? count(result.total, 'question') : 'Searching …' }}</p>
    <p v-if="problem" role="alert" class="note-stop mt-2">{{ problem }}</p>
    <EmptyNote v-if="result && !result.total" :title="isNarrowed ? 'Nothing found' : 'The bank is empty'" class="mt-4">
      <template v-if="isNarrowed">Try fewer words, or <button class="link" @click="search.clear()">clear the filters</button>.</template>
      <template v-else>Write the first question with the button above.</template>
    </EmptyNote>
    <ul v-else class="mt-2 border-t border-ink">
      <li v-for="hit in hits" :key="hit.id" class="border-b border-rule py-3">
        <div class="flex items-start gap-4">
          <div class="min-w-0 grow">
            <p v-if="hit.internalName" class="text-[0.8125rem] font-semibold text-soft">{{ hit.internalName }}</p>
            <NuxtLink :to="`/bank/${hit.id}`" class="line-clamp-2 font-serif text-lg hover:underline">{{ hit.title }}</NuxtLink>
            <p class="mt-0.5 line-clamp-1 text-[0.9375rem] text-green"><span class="text-soft">Key</span> {{ hit.key || 'not set' }}</p>
            <p class="mt-1 flex flex-wrap gap-x-3"><QuestionMeta :hit="hit" /><span class="text-[0.8125rem] text-soft">difficulty {{ hit.difficulty }}</span>
              <span v-for="id in hit.objectives" :key="id" class="text-[0.8125rem] text-soft">{{ objectiveOf(id)?.code }} {{ objectiveOf(id)?.title }}</span></p>
          </div>
          <span class="shrink-0 font-semibold">{{ hit.points }}<span class="sr-only"> points</span></span>
        </div>
      </li>
    </ul>
  </main>
</template>
