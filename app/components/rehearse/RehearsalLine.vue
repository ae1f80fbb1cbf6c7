<script setup lang="ts">
import { sentenceTime } from '~~/core/kit/phrases'
import { minute, plus, type Instant } from '~~/core/kit/time'
import { dayScale } from '~~/core/day-line/day-scale'
import type { SittingSpan } from '~~/core/day-line/day-line'
import type { StudentMoment } from '~~/core/day-line/student-days'

/** The day line of one student, with the instant at which the rehearsal is: dragged, clicked at, or moved by keys. */
const { spans, moments, here, now } = defineProps<{
  spans: SittingSpan[]
  moments: StudentMoment[]
  here: Instant
  now: Instant
}>()
const emit = defineEmits<{ move: [at: Instant] }>()
const session = useSession()
const when = (at: Instant) => sentenceTime(at, session.zone)
/** Percent of the width that the scale takes: the rest is for words that begin at its end. */
const room = 86

const seen = computed(() =>
  moments.flatMap((each) => (each.at !== null && each.words.startsWith('sees ') ? [{ ...each, at: each.at }] : [])),
)
const stops = computed(() =>
  [...new Set(moments.flatMap(({ at }) => at ?? []))].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0)),
)
/** What is drawn stands still while the clock moves on it. */
const scale = computed(() =>
  dayScale(
    [
      now,
      ...spans.flatMap((span) => [span.opens, span.closes, span.reach].filter((at) => at !== null)),
      ...stops.value,
      ...(stops.value.length ? [plus(stops.value.at(-1)!, 60 * minute)] : [plus(now, 60 * minute)]),
    ],
    session.zone,
  ),
)
const left = (at: Instant) => `${scale.value.at(at) * room}%`
const width = (from: Instant, to: Instant | null) =>
  `${Math.max(0.4, ((to === null ? 1 : scale.value.at(to)) - scale.value.at(from)) * room)}%`

/** Words of one line stand below each other, as many rows as there are. */
const rows = computed(() => {
  const ends: number[] = []
  return seen.value.map((each) => {
    const from = scale.value.at(each.at)
    const row = ends.findIndex((end) => end <= from)
    const place = row === -1 ? ends.length : row
    ends[place] = from + Math.min(0.6, each.words.length * 0.0075)
    return { ...each, row: place }
  })
})
const depth = computed(() => Math.max(0, ...rows.value.map(({ row }) => row + 1)))

const area = useTemplateRef<HTMLElement>('area')
const dragged = ref<Instant | null>(null)
function at(event: PointerEvent): Instant {
  const { left: start, width: whole } = area.value!.getBoundingClientRect()
  return scale.value.from((event.clientX - start) / whole / (room / 100))
}
function grab(event: PointerEvent) {
  area.value?.setPointerCapture(event.pointerId)
  dragged.value = at(event)
}
function drag(event: PointerEvent) {
  if (dragged.value !== null) dragged.value = at(event)
}
function drop() {
  if (dragged.value !== null) emit('move', dragged.value)
  dragged.value = null
}
function key(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const to = {
    ArrowRight: stops.value.find((stop) => stop > here),
    ArrowLeft: stops.value.findLast((stop) => stop < here),
    PageUp: plus(here, 10 * minute),
    PageDown: plus(here, -10 * minute),
    Home: now,
  }[event.key]
  if (to === undefined) return
  event.preventDefault()
  emit('move', to)
}
const shown = computed(() => dragged.value ?? here)
</script>

<template>
  <div class="overflow-hidden rounded border border-rule bg-sheet px-3.5 pb-2 text-note">
    <div
      ref="area"
      class="relative cursor-pointer touch-none"
      @pointerdown="grab"
      @pointermove="drag"
      @pointerup="drop"
    >
      <div class="relative h-6 border-b border-rule" aria-hidden="true">
        <DayTicks class="pt-1" :ticks="scale.ticks" :room="room" />
      </div>
      <div class="relative mt-2 h-4">
        <template v-for="span in spans" :key="span.window">
          <span
            class="absolute inset-y-0 rounded-l bg-petrol"
            :style="{ left: left(span.opens), width: width(span.opens, span.closes) }"
            ><span
              class="block overflow-hidden whitespace-nowrap px-1.5 text-caption font-semibold leading-4 text-petrol-ink"
              >may start</span
            ></span
          >
          <span
            v-if="span.closes && span.reach && span.reach > span.closes"
            class="hatched absolute inset-y-0 rounded-r"
            :style="{ left: left(span.closes), width: width(span.closes, span.reach) }"
          />
        </template>
      </div>
      <div class="relative mt-1" :style="{ height: `${depth * 1.25}rem` }">
        <span
          v-for="each in rows"
          :key="`${each.at} ${each.words}`"
          class="absolute truncate border-l-4 border-petrol pl-1.5 font-semibold leading-5 text-petrol"
          :style="{ left: left(each.at), top: `${each.row * 1.25}rem`, maxWidth: `calc(100% - ${left(each.at)})` }"
          :title="`${when(each.at)}: ${each.words}`"
          ><span class="max-sm:sr-only">{{ each.words.slice(5) }}</span></span
        >
      </div>
      <span class="absolute inset-y-0 border-l border-ink/40" :style="{ left: left(now) }" aria-hidden="true"
        ><span class="absolute bottom-0 left-1 text-caption text-soft">now</span></span
      >
      <span
        role="slider"
        tabindex="0"
        aria-label="The time of the rehearsal"
        :aria-valuenow="Math.round(Date.parse(shown) / minute)"
        :aria-valuetext="when(shown)"
        class="absolute inset-y-0 w-5 -translate-x-1/2 outline-offset-2"
        :style="{ left: left(shown) }"
        @keydown="key"
        ><span class="absolute inset-y-0 left-1/2 border-l-2 border-bloom" aria-hidden="true" /><span
          class="absolute left-1/2 top-4 size-3 -translate-x-1/2 rounded-full bg-bloom"
          aria-hidden="true"
        /><span
          class="absolute left-4 top-0 whitespace-nowrap bg-sheet px-1 font-semibold text-bloom"
          aria-hidden="true"
          >here · {{ when(shown) }}</span
        ></span
      >
    </div>
  </div>
</template>

<style scoped>
.hatched {
  background: repeating-linear-gradient(-45deg, var(--petrol) 0 5px, var(--petrol-mid) 5px 9px);
}
</style>
