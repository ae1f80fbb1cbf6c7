<script setup lang="ts">
import { count, duration } from '~~/core/kit/phrases'
import { pointsText } from '~~/core/kit/exact'
import type { Sheet } from '~~/core/paper/schema'

/** A section with a clock of its own, before it is entered: how much waits in it, and that its clock begins. */
defineProps<{ section: Sheet['sections'][number]; minutes: number | null; busy: boolean; problem: string }>()
const emit = defineEmits<{ enter: [] }>()
</script>

<template>
  <div class="border-y border-ink py-6">
    <p class="text-lg">
      {{ count(section.waits!.questions, 'question') }}, {{ pointsText(section.waits!.points) }}
      {{ section.waits!.points === 1 ? 'point' : 'points' }}. This section has a clock of its own:
      <strong v-if="minutes">{{ duration(minutes) }}</strong> from when you enter, whatever happens.
    </p>
    <p class="mt-2 text-soft">When you leave the section, or its time is up, it is closed for good.</p>
    <ProblemNote class="mt-3" :words="problem" />
    <button class="btn btn-main mt-4 px-5 py-2 text-lg" :disabled="busy" @click="emit('enter')">
      Enter “{{ section.title }}”
    </button>
  </div>
</template>
