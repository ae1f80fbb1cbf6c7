<script setup lang="ts">
import { sentenceTime } from '~~/core/kit/phrases'
import type { DayEvent } from '~~/core/day-line/events'

/** What happens when, as a list: the day line on a page too narrow for it, with the same marks. */
const { events, now } = defineProps<{ events: readonly DayEvent[]; now: string }>()
const session = useSession()
const days = computed(() => {
  const at = new Map<string, DayEvent[]>()
  for (const event of events) at.set(event.at, [...(at.get(event.at) ?? []), event])
  return [...at].map(([instant, each]) => ({ instant, each, past: instant < now }))
})
const next = computed(() => days.value.find(({ past }) => !past)?.instant)
const marks: Record<DayEvent['sort'], string> = {
  opens: 'bg-petrol',
  closes: 'bg-petrol',
  reach: 'hatched',
  due: 'bg-amber',
  last: 'bg-ink',
  shown: 'border-2 border-petrol bg-petrol-tint',
  leak: 'bg-red',
}
</script>

<template>
  <ol class="space-y-2">
    <li v-for="day in days" :key="day.instant" :class="day.past && 'text-soft'">
      <p v-if="day.instant === next" class="border-t-2 border-bloom pt-1 text-small font-semibold text-bloom">now</p>
      <p class="text-small font-semibold">{{ sentenceTime(day.instant, session.zone) }}</p>
      <ul>
        <li v-for="event in day.each" :key="event.who + event.words" class="flex gap-2 text-small">
          <span class="mt-1.5 size-2.5 shrink-0 rounded-sm" :class="marks[event.sort]" aria-hidden="true" /><span
            :class="event.sort === 'leak' && 'font-semibold text-red'"
            >{{ event.who }}: {{ event.words }}</span
          >
        </li>
      </ul>
    </li>
  </ol>
</template>

<style scoped>
.hatched {
  background: repeating-linear-gradient(-45deg, var(--petrol) 0 3px, var(--petrol-mid) 3px 5px);
}
</style>
