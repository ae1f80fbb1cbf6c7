<script setup lang="ts">
import { questionRoutes } from '~/client/questions'
import type { Hit } from '~~/server/domain/bank/finding/hits'

useHead({ title: 'Near-duplicates · Thistle' })
const groups = shallowRef<Hit[][] | null>(null)
const { problem, act } = useAct()
function load() {
  return act(async () => {
    groups.value = await questionRoutes.near()
  })
}
onMounted(load)
function retire(hit: Hit) {
  return act(async () => {
    const { change } = await questionRoutes.changeMany({
      body: { questions: [hit.id], change: { do: 'state', retired: true } },
    })
    announce('Retired.', () => {
      void questionRoutes.undoChange({ id: change }).then(load)
    })
    await load()
  })
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <h1 class="mt-1 text-3xl">Near-duplicates</h1>
    <p class="mt-2 text-soft">
      Questions whose stems differ in numbers, spacing or punctuation alone. Keep the better one and retire the other:
      its record and its quizzes stay.
    </p>
    <ProblemNote class="mt-3" :words="problem" />
    <p v-if="!groups && !problem" class="mt-4 text-soft" role="status">Looking …</p>
    <EmptyNote v-if="groups && !groups.length" class="mt-4" title="None found"
      >No two questions in use have the same words.</EmptyNote
    >
    <section
      v-for="group in groups ?? []"
      :key="group[0]!.id"
      class="mt-6 border-t border-ink"
      :aria-label="group[0]!.title"
    >
      <div v-for="hit in group" :key="hit.id" class="flex items-start gap-4 border-b border-rule py-3">
        <div class="min-w-0 grow">
          <NuxtLink :to="`/bank/${hit.id}`" class="font-serif text-lg hover:underline">{{ hit.title }}</NuxtLink>
          <p class="text-label text-green"><span class="text-soft">Key</span> {{ hit.key || 'not set' }}</p>
          <QuestionMeta :hit="hit" />
        </div>
        <button type="button" class="btn" :aria-label="`Retire: ${hit.title}`" @click="retire(hit)">Retire</button>
      </div>
    </section>
  </main>
</template>
