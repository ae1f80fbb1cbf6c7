<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { clockTime, count, sentenceTime } from '~~/core/kit/phrases'
import { minute, type Instant } from '~~/core/kit/time'
import { facetLabels, momentLabels, type FacetName, type FacetRule } from '~~/core/release/schema'
import { dayLine, type ReleaseLane, type SittingLane, type SittingSpan } from '~~/core/day-line/day-line'
import { eventsOf } from '~~/core/day-line/events'
import { atInstant } from '~~/core/day-line/instant'
import { assignedTo, stillToCome, studentOfClass } from '~~/core/schedule/assigned'
import { scheduleFor } from '~~/core/schedule/schedule'
import { setAt } from '~~/core/quiz/edits'

/**
 * The drawing of all that happens over time, worked out of the rules by core at every change. Times of windows are moved on
 * it; whatever instant is pointed at tells who can start, who may be at work and who sees what.
 */
const store = useQuiz()
const session = useSession()
const now = useNow(30_000)
const when = (at: string) => sentenceTime(at, session.zone)

/** A time that is being moved: what the line shows until it is let go. */
type WindowTime = 'opens' | 'closes' | 'due' | 'latestStart'
type Moved = { at: Instant } & ({ window: string; name: WindowTime } | { facet: FacetName })
const moved = shallowRef<Moved | null>(null)
const rules = computed(() => {
  const known = store.quiz!.rules
  const move = moved.value
  if (!move) return known
  if ('facet' in move) return { ...known, release: { ...known.release, [move.facet]: releasedAt(move.facet, move.at) } }
  const windows = known.windows.map((each) => (each.id === move.window ? { ...each, [move.name]: move.at } : each))
  return { ...known, windows }
})
/** A facet shown from a set instant on. */
const releasedAt = (facet: FacetName, instant: Instant): FacetRule => ({
  ...store.quiz!.rules.release[facet],
  from: { at: 'instant', instant },
})
const assigned = computed(() =>
  store.quiz && store.view ? assignedTo([...store.view.students, ...stillToCome(rules.value)], rules.value) : [],
)
const line = computed(() => {
  if (!store.quiz || !store.view) return null
  const ofClass = (id: string) => scheduleFor(rules.value, studentOfClass(id))
  return dayLine(rules.value, store.view.classes, assigned.value, ofClass, now.value)
})

/** The instant that is pointed at. */
const cursor = ref<Instant | null>(null)
const { view, whole, zoom, pan, scale, hold, letLoose, room, left, width, inSight } = useDayView(line, now, cursor)

/** On a narrow page the line is a list. */
const narrow = useMediaQuery('(max-width: 50rem)')
const area = useTemplateRef<HTMLElement>('area')
function instantAt(x: number): Instant {
  const { left: start, width: whole } = area.value!.getBoundingClientRect()
  return scale.value!.from((x - start) / whole / (room / 100))
}
function move(next: Moved) {
  hold()
  moved.value = next
  cursor.value = next.at
}
function letGo() {
  moved.value = null
  letLoose()
}
function set(next: Moved) {
  letGo()
  store.make(
    'facet' in next
      ? setAt(store.quiz!, ['rules', 'release', next.facet, 'from'], releasedAt(next.facet, next.at).from)
      : setAt(store.quiz!, ['rules', 'windows', next.window, next.name], next.at),
  )
}
/** Times of a class's window that are moved on its lane. */
function handles(lane: SittingLane, span: SittingSpan): { name: WindowTime; title: string; at: Instant }[] {
  const window = rules.value.windows.find(({ id }) => id === span.window)
  if (!lane.isClass || !window || window.closedAt !== null) return []
  const titles = { opens: 'opens', latestStart: 'latest start', due: 'due', closes: 'closes' } as const
  return (['opens', 'latestStart', 'due', 'closes'] as const).flatMap((name) => {
    const at = window[name]
    return at === null || !inSight(at, at) ? [] : [{ name, title: `${lane.name}, ${titles[name]}`, at }]
  })
}

/** Whether a facet is shown from a set instant on: only that is moved, other moments follow what they wait for. */
function setInstant(facet: FacetName): Instant | null {
  const { from } = rules.value.release[facet]
  return from.at === 'instant' && inSight(from.instant, from.instant) ? from.instant : null
}

const told = computed(() =>
  cursor.value && line.value && store.view
    ? atInstant(line.value, assigned.value, store.view.classes, cursor.value)
    : null,
)
function point(event: PointerEvent) {
  if (!moved.value) cursor.value = instantAt(event.clientX)
}
const stops = computed(() => (line.value ? [...new Set(eventsOf(line.value).map(({ at }) => at))] : []))
function keyOnLine(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const here = cursor.value ?? now.value
  const to =
    event.key === 'PageUp'
      ? stops.value.find((at) => at > here)
      : event.key === 'PageDown'
        ? stops.value.findLast((at) => at < here)
        : event.key === 'ArrowRight' || event.key === 'ArrowLeft'
          ? scale.value!.from(scale.value!.at(here) + (event.key === 'ArrowRight' ? 0.01 : -0.01))
          : event.key === 'Home'
            ? now.value
            : undefined
  if (to === undefined) return
  event.preventDefault()
  cursor.value = to
}

const hours = (span: { opens: string; closes: string | null }) =>
  `${clockTime(span.opens, session.zone)}–${span.closes ? clockTime(span.closes, session.zone) : ''}`

function spanWords(lane: ReleaseLane, span: ReleaseLane['spans'][number]): string {
  const moment = momentLabels[store.quiz!.rules.release[lane.facet].from.at]
  if (span.leak) {
    const until = span.leak.until ? `until ${when(span.leak.until)}` : 'without an end'
    return `${when(span.from!)} → ${span.leak.sitters.length ? `${count(span.leak.sitters.length, 'student')} can still sit` : 'a further attempt is still open'} ${until}`
  }
  if (lane.spans.length === 1) return moment
  // The moment is said once; later spans of the lane say for whom it comes then.
  return lane.spans[0] === span ? `${span.groups.join(', ')}: ${moment}` : span.groups.join(', ')
}
</script>

<template>
  <section v-if="line && scale" aria-label="Day line" class="rounded border border-rule bg-sheet px-3.5 py-2">
    <p v-if="!store.quiz?.rules.windows.length" class="py-6 text-center text-soft">
      The day line is drawn as soon as a class has a window.
    </p>
    <DayEvents v-else-if="narrow" :events="eventsOf(line)" :now="now" />
    <div v-else class="text-note">
      <div class="grid grid-cols-[12rem_1fr]">
        <span class="flex flex-wrap items-center gap-1">
          <button
            class="rounded border border-rule px-1.5 hover:bg-petrol-tint"
            :title="view ? 'Days in which nothing happens are drawn narrow' : 'Every minute as wide as another'"
            @click="view ? (view = null) : whole()"
          >
            {{ view ? 'to scale' : 'folded' }}
          </button>
          <template v-if="view">
            <button class="zoom" aria-label="Earlier" @click="pan(-0.4)">←</button>
            <button class="zoom" aria-label="Wider" @click="zoom(2)">−</button>
            <button class="zoom" aria-label="Nearer" @click="zoom(0.5)">+</button>
            <button class="zoom" aria-label="Later" @click="pan(0.4)">→</button>
          </template>
        </span>
        <div class="relative h-6 border-b border-rule" @pointermove="point" @pointerdown="point">
          <span
            role="slider"
            tabindex="0"
            aria-label="An instant of the day line"
            :aria-valuenow="Math.round(Date.parse(cursor ?? now) / minute)"
            :aria-valuetext="told ? `${when(cursor!)}. ${told.start} ${told.work} ${told.see}` : when(now)"
            @keydown="keyOnLine"
            class="absolute inset-0"
          />
          <DayTicks :ticks="scale.ticks" :room="room" />
        </div>
      </div>
      <div class="relative" @pointermove="point" @pointerdown="point">
        <div ref="area" class="pointer-events-none absolute inset-y-0 left-48 right-0" aria-hidden="true">
          <span
            v-if="cursor && inSight(cursor, cursor)"
            class="absolute inset-y-0 border-l border-bloom/60"
            :style="{ left: left(cursor) }"
          />
          <span v-if="inSight(now, now)" class="absolute inset-y-0 border-l-2 border-bloom" :style="{ left: left(now) }"
            ><span class="absolute left-1 top-0 font-semibold text-bloom">now</span></span
          >
          <span
            v-for="due in line.dues.filter((at) => inSight(at, at))"
            :key="due"
            class="absolute inset-y-0 border-l border-dashed border-amber"
            :style="{ left: left(due) }"
            ><span class="absolute left-1 top-0 whitespace-nowrap font-semibold text-amber">due</span></span
          >
        </div>
        <h2 class="small-head pb-0.5 pt-4 text-note!">Who may sit, and when</h2>
        <ul>
          <li
            v-for="lane in line.sitting"
            :key="lane.key"
            class="grid grid-cols-[12rem_1fr] items-center border-b border-rule/60 py-0.5"
          >
            <span
              class="min-w-0 pr-2"
              :title="[lane.students.join(', '), lane.causes.join('; ')].filter(Boolean).join(': ')"
              ><span class="block truncate text-small"
                >{{ lane.name }} <span class="text-soft">{{ lane.note }}</span></span
              ><span v-if="lane.causes.length" class="block text-caption leading-4 text-soft">{{
                lane.causes.join('; ')
              }}</span></span
            >
            <div class="relative h-4">
              <template v-for="span in lane.spans" :key="span.window">
                <span
                  v-if="inSight(span.opens, span.closes)"
                  class="drawn absolute inset-y-0 rounded-l bg-petrol"
                  :style="{ left: left(span.opens), width: width(span.opens, span.closes) }"
                  ><span class="sr-only"
                    >from {{ when(span.opens) }} {{ span.closes ? `to ${when(span.closes)}` : 'without an end' }}</span
                  ><span
                    class="drawn block overflow-hidden whitespace-nowrap px-1.5 text-caption font-semibold leading-4 text-petrol-ink"
                    aria-hidden="true"
                    >{{ hours(span) }}</span
                  ></span
                >
                <span
                  v-if="span.closes && span.reach && span.reach > span.closes && inSight(span.closes, span.reach)"
                  class="hatched drawn-rest absolute inset-y-0 rounded-r"
                  :style="{ left: left(span.closes), width: width(span.closes, span.reach) }"
                  :title="`A clock may run until ${when(span.reach)}`"
                  ><span class="sr-only">a running clock may reach {{ when(span.reach) }}</span></span
                >
                <template v-for="mark in span.marks" :key="mark.sort">
                  <span
                    v-if="mark.sort === 'last' && inSight(mark.at, mark.at)"
                    class="absolute -inset-y-0.5 border-l-2 border-ink"
                    :style="{ left: left(mark.at) }"
                    :title="`${mark.words} ${when(mark.at)}`"
                    ><span
                      v-if="lane.isClass"
                      class="ml-1 block whitespace-nowrap bg-sheet/85 px-0.5 text-caption leading-4 text-ink"
                      aria-hidden="true"
                      >{{ mark.words }} {{ clockTime(mark.at, session.zone) }}</span
                    ></span
                  ><span class="sr-only">{{ mark.words }} {{ when(mark.at) }}</span>
                </template>
                <DayHandle
                  v-for="handle in handles(lane, span)"
                  :key="handle.name"
                  :at="handle.at"
                  :place="left(handle.at)"
                  :name="handle.title"
                  :words="when(handle.at)"
                  :place-to-instant="instantAt"
                  @move="move({ window: span.window, name: handle.name, at: $event })"
                  @set="set({ window: span.window, name: handle.name, at: $event })"
                  @leave="letGo"
                />
              </template>
            </div>
          </li>
        </ul>
        <h2 class="small-head pb-0.5 pt-3 text-note!">What students see afterwards</h2>
        <ul>
          <li
            v-for="lane in line.release"
            :key="lane.facet"
            class="grid grid-cols-[12rem_1fr] items-center border-b border-rule/60 py-0.5"
          >
            <span class="truncate pr-2 text-small">{{ facetLabels[lane.facet] }}</span>
            <div class="relative h-5">
              <template v-for="(span, index) in lane.spans" :key="index">
                <span
                  v-if="span.from && inSight(span.from, lane.spans[index + 1]?.from ?? null)"
                  class="drawn-span absolute inset-y-0 overflow-hidden whitespace-nowrap border-l-4 pl-1.5 font-semibold leading-5"
                  :class="
                    span.leak ? 'is-leak border-red bg-red-tint text-red' : 'border-petrol bg-petrol-tint text-petrol'
                  "
                  :style="{ left: left(span.from), width: width(span.from, lane.spans[index + 1]?.from ?? null) }"
                  :title="`${span.groups.join(', ')}: ${when(span.from)}`"
                  >{{ spanWords(lane, span) }}</span
                >
                <span v-else-if="!span.from" class="absolute inset-y-0 left-0 text-soft"
                  >{{ spanWords(lane, span) }}: not foreseen</span
                >
                <DayHandle
                  v-if="index === 0 && setInstant(lane.facet)"
                  :at="setInstant(lane.facet)!"
                  :place="left(setInstant(lane.facet)!)"
                  :name="`${facetLabels[lane.facet]}, shown from`"
                  :words="when(setInstant(lane.facet)!)"
                  :place-to-instant="instantAt"
                  @move="move({ facet: lane.facet, at: $event })"
                  @set="set({ facet: lane.facet, at: $event })"
                  @leave="letGo"
                />
              </template>
            </div>
          </li>
          <li v-if="!line.release.length" class="text-soft">Nothing is shown at any time.</li>
        </ul>
      </div>
      <p class="mt-1.5 min-h-10 border-t border-rule pt-1.5 text-small">
        <template v-if="told && cursor"
          ><span class="font-semibold text-bloom">{{ when(cursor) }}</span> {{ told.start }} {{ told.work }}
          {{ told.see }}</template
        ><span v-else class="text-soft"
          >Point at the line, or use arrow and page keys on it: what holds at that instant is told here. Ends of
          windows, due times and releases at a set time are dragged, or moved by arrow keys.</span
        >
      </p>
    </div>
  </section>
</template>

<style scoped>
.zoom {
  min-width: 1.5rem;
  border: 1px solid var(--rule);
  border-radius: 0.25rem;
}
.hatched {
  background: repeating-linear-gradient(-45deg, var(--petrol) 0 5px, var(--petrol-mid) 5px 9px);
}
</style>
