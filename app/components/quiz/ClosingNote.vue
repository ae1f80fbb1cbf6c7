<script setup lang="ts">
import { count, list } from '~~/core/kit/phrases'
import type { Closing } from '~~/core/schedule/closing'

/** What becomes of whom when a quiz is closed at once. */
const { closing } = defineProps<{ closing: Closing }>()
const named = 12
const names = (of: readonly string[]) =>
  of.length > named ? `${of.slice(0, named).join(', ')} and ${of.length - named} more` : list(of)
const over = (minutes: number) => (minutes ? ` (${minutes} min over)` : '')
const lines = computed(() =>
  [
    {
      what: `${count(closing.handedIn.length, 'paper')} handed in at this moment`,
      who: closing.handedIn.map(({ name, minutesOver }) => name + over(minutesOver)),
    },
    { what: 'Not started, and cannot any more', who: closing.shutOut },
    { what: 'No further attempt', who: closing.noFurther },
  ].filter(({ who }) => who.length),
)
</script>

<template>
  <dl v-if="lines.length" class="space-y-2">
    <div v-for="line in lines" :key="line.what">
      <dt class="font-semibold">{{ line.what }}</dt>
      <dd class="text-soft">{{ names(line.who) }}</dd>
    </div>
  </dl>
  <p v-else class="text-soft">Nobody is at work, and nobody is waiting to start.</p>
</template>
