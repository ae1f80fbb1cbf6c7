<script setup lang="ts">
import { stimulusRoutes } from '~/client/stimuli'
import { count } from '~~/core/kit/phrases'
import type { StimulusLine } from '~~/server/domain/bank/material/stimuli'

useHead({ title: 'Stimuli · Thistle' })
const lines = shallowRef<StimulusLine[] | null>(null)
const words = ref('')
const { problem, act } = useAct()
const shown = computed(() =>
  (lines.value ?? []).filter((line) =>
    `${line.name} ${line.beginning}`.toLowerCase().includes(words.value.trim().toLowerCase()),
  ),
)
onMounted(async () => {
  await act(async () => {
    lines.value = await stimulusRoutes.list()
  })
})
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <div class="mt-1 flex flex-wrap items-center justify-between gap-3">
      <h1 class="text-3xl">Stimuli</h1>
      <NuxtLink class="btn btn-main" to="/bank/stimuli/new">Write a stimulus</NuxtLink>
    </div>
    <p class="mt-2 text-soft">
      A passage, table, picture or sound that several questions share. On a paper they stand beside it, together.
    </p>
    <ProblemNote class="mt-3" :words="problem" />
    <input
      v-if="lines?.length"
      v-model="words"
      type="search"
      class="field mt-4 max-w-md"
      aria-label="Find a stimulus"
      placeholder="Words in its name or text"
    />
    <EmptyNote v-if="lines && !shown.length" class="mt-4" :title="lines.length ? 'Nothing found' : 'None yet'">{{
      lines.length ? 'Try fewer words.' : 'Write the first with the button above, then write questions on it.'
    }}</EmptyNote>
    <ul v-else class="mt-4 border-t border-ink">
      <li v-for="line in shown" :key="line.id" class="border-b border-rule py-3">
        <NuxtLink :to="`/bank/stimuli/${line.id}`" class="text-lg font-semibold hover:underline">{{
          line.name
        }}</NuxtLink>
        <span class="text-small text-soft">· {{ count(line.questions, 'question') }}</span>
        <p class="line-clamp-2 font-serif">{{ line.beginning || 'A picture' }}</p>
      </li>
    </ul>
  </main>
</template>
