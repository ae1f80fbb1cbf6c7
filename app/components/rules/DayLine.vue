<script setup lang="ts">
import { clockTime, count, sentenceTime } from '~~/core/kit/phrases'
import { facetLabels, momentLabels } from '~~/core/release/schema'
import { dayLine, type ReleaseLane } from '~~/core/day-line/day-line'
import { dayScale } from '~~/core/day-line/day-scale'
import { assignedTo } from '~~/core/schedule/assigned'
import { scheduleFor } from '~~/core/schedule/schedule'
import { noAccommodation } from '~~/core/quiz'

/** The drawing of all that happens over time, worked out of the rules by core at every change. */
const store = useQuiz()
const session = useSession()
const now = useNow(30_000)
const when = (at: string) => sentenceTime(at, session.zone)

const line = computed(() => {
  if (!store.quiz || !store.view) return null
  const { rules } = store.quiz
  const { classes, students } = store.view
  const ofClass = (id: string) =>
    scheduleFor(rules, { id: `class ${id}`, name: '', classes: [id], groups: [], accommodations: [noAccommodation] })
  return dayLine(rules, classes, assignedTo(students, rules), ofClass, now.value)
})
const scale = computed(() => {
  if (!line.value) return null
  const { starts, ends, sitting, release, dues } = line.value
  const known = [
    starts,
    ends,
    now.value,
    ...dues,
    ...sitting.flatMap((lane) =>
      lane.spans.flatMap((span) => [span.opens, span.closes, span.reach, ...span.marks.map((mark) => mark.at)]),
    ),
    ...release.flatMap((lane) => lane.spans.map((span) => span.from)),
  ]
  return dayScale(
    known.filter((at): at is string => Boolean(at)),
    session.zone,
  )
})
/** Percent of the width that the scale takes: the rest is for words that begin at its end. */
const room = 85
const left = (at: string) => `${scale.value!.at(at) * room}%`
const width = (from: string, to: string | null) =>
  to === null
    ? `${100 - scale.value!.at(from) * room}%`
    : `${Math.max(0.4, (scale.value!.at(to) - scale.value!.at(from)) * room)}%`

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
  <section
    v-if="line && scale"
    aria-label="Day line"
    tabindex="0"
    class="overflow-x-auto rounded border border-rule bg-sheet px-3.5 py-2"
  >
    <p v-if="!store.quiz?.rules.windows.length" class="py-6 text-center text-soft">
      The day line is drawn as soon as a class has a window.
    </p>
    <div v-else class="min-w-180 text-note">
      <div class="grid grid-cols-[12rem_1fr]">
        <span class="text-soft" title="Days in which nothing happens are drawn narrow">not to scale</span>
        <div class="relative h-6 border-b border-rule">
          <span
            v-for="tick in scale.ticks"
            :key="tick.at"
            class="absolute -translate-x-1/2 whitespace-nowrap text-soft"
            :style="{ left: `${tick.at * room}%` }"
            >{{ tick.label }}</span
          >
        </div>
      </div>
      <div class="relative">
        <div class="pointer-events-none absolute inset-y-0 left-48 right-0" aria-hidden="true">
          <span class="absolute inset-y-0 z-10 border-l-2 border-bloom" :style="{ left: left(now) }"
            ><span class="absolute left-1 top-0 font-semibold text-bloom">now</span></span
          >
          <span
            v-for="due in line.dues"
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
            <span class="min-w-0 pr-2" :title="lane.causes.join('; ')"
              ><span class="block truncate text-small"
                >{{ lane.name }} <span class="text-soft">{{ lane.note }}</span></span
              ><span v-if="lane.causes.length" class="block text-caption leading-4 text-soft">{{
                lane.causes.join('; ')
              }}</span></span
            >
            <div class="relative h-4">
              <template v-for="span in lane.spans" :key="span.window">
                <span
                  class="absolute inset-y-0 rounded-l bg-petrol"
                  :style="{ left: left(span.opens), width: width(span.opens, span.closes) }"
                  ><span class="sr-only"
                    >from {{ when(span.opens) }} {{ span.closes ? `to ${when(span.closes)}` : 'without an end' }}</span
                  ><span
                    class="block overflow-hidden whitespace-nowrap px-1.5 text-caption font-semibold leading-4 text-petrol-ink"
                    aria-hidden="true"
                    >{{ hours(span) }}</span
                  ></span
                >
                <span
                  v-if="span.closes && span.reach && span.reach > span.closes"
                  class="hatched absolute inset-y-0 rounded-r"
                  :style="{ left: left(span.closes), width: width(span.closes, span.reach) }"
                  :title="`A clock may run until ${when(span.reach)}`"
                  ><span class="sr-only">a running clock may reach {{ when(span.reach) }}</span></span
                >
                <template v-for="mark in span.marks" :key="mark.sort">
                  <span
                    v-if="mark.sort === 'last'"
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
                  v-if="span.from"
                  class="absolute inset-y-0 overflow-hidden whitespace-nowrap border-l-4 pl-1.5 font-semibold leading-5"
                  :class="span.leak ? 'border-red bg-red-tint text-red' : 'border-petrol bg-petrol-tint text-petrol'"
                  :style="{ left: left(span.from), width: width(span.from, lane.spans[index + 1]?.from ?? null) }"
                  :title="`${span.groups.join(', ')}: ${when(span.from)}`"
                  >{{ spanWords(lane, span) }}</span
                >
                <span v-else class="absolute inset-y-0 left-0 text-soft"
                  >{{ spanWords(lane, span) }}: not foreseen</span
                >
              </template>
            </div>
          </li>
          <li v-if="!line.release.length" class="text-soft">Nothing is shown at any time.</li>
        </ul>
      </div>
    </div>
  </section>
</template>

<style scoped>
.hatched {
  background: repeating-linear-gradient(-45deg, var(--petrol) 0 5px, var(--petrol-mid) 5px 9px);
}
</style>
