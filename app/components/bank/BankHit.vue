<script setup lang="ts">
import { kindLabels } from '~~/core/question/kinds'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** One question in the list of the bank; opened, the whole of it with its key. */
defineProps<{ hit: Hit; objectives: ReadonlyMap<string, Objective>; chosen: boolean; open: boolean }>()
const emit = defineEmits<{ choose: [MouseEvent]; open: []; take: [] }>()
const stateWords: Record<Hit['state'], string> = { usable: '', work: 'in work', retired: 'retired' }
</script>

<template>
  <div>
    <div class="flex items-start gap-3">
      <input
        type="checkbox"
        class="mt-1.5 size-4 shrink-0 accent-petrol"
        :checked="chosen"
        :aria-label="`Choose: ${hit.title.slice(0, 80)}`"
        @click="emit('choose', $event)"
      />
      <div class="min-w-0 grow">
        <p v-if="hit.internalName" class="text-note font-semibold text-soft">{{ hit.internalName }}</p>
        <NuxtLink :to="`/bank/${hit.id}`" class="line-clamp-2 font-serif text-lg hover:underline">{{
          hit.title
        }}</NuxtLink>
        <p class="mt-0.5 line-clamp-1 text-label text-green">
          <span class="text-soft">Key</span> {{ hit.key || 'not set' }}
        </p>
        <p class="mt-1 flex flex-wrap gap-x-3">
          <QuestionMeta :hit="hit" /><span class="text-note text-soft">difficulty {{ hit.difficulty }}</span>
          <span v-for="id in hit.objectives" :key="id" class="text-note text-soft"
            >{{ objectives.get(id)?.code }} {{ objectives.get(id)?.title }}</span
          >
          <span v-for="tag in hit.tags" :key="tag" class="tag py-0">{{ tag }}</span>
          <span v-if="hit.origin" class="text-note font-semibold text-petrol"
            >{{ hit.origin.bank }} · chosen by {{ hit.origin.chosen }}
            {{ hit.origin.chosen === 1 ? 'school' : 'schools' }}</span
          >
          <span v-else-if="hit.sharing !== 'school'" class="text-note text-soft">{{
            hit.sharing === 'private' ? 'private' : 'shared with some'
          }}</span>
          <span v-if="stateWords[hit.state]" class="sr-only">{{ stateWords[hit.state] }}</span>
          <span v-if="hit.doubts" class="text-note font-semibold text-red">! a colleague says something is wrong</span>
        </p>
      </div>
      <NuxtLink v-if="hit.origin?.copy" class="link mt-1 shrink-0 text-small" :to="`/bank/${hit.origin.copy}`"
        >our copy</NuxtLink
      >
      <button
        v-else-if="hit.origin"
        type="button"
        class="btn shrink-0 py-0.5 text-small"
        :aria-label="`Take it: ${hit.title.slice(0, 60)}`"
        @click="emit('take')"
      >
        Take it
      </button>
      <button
        type="button"
        class="btn btn-quiet shrink-0 text-small"
        :aria-expanded="open"
        :aria-label="`${open ? 'Close' : 'Read'}: ${hit.title.slice(0, 60)}, ${kindLabels[hit.kind]}`"
        @click="emit('open')"
      >
        {{ open ? 'close' : 'read' }}
      </button>
      <span class="mt-1 shrink-0 font-semibold">{{ hit.points }}<span class="sr-only"> points</span></span>
    </div>
    <WholeQuestion v-if="open" :id="hit.id" class="ml-7 mt-3" />
  </div>
</template>
