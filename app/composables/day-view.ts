import type { Ref } from 'vue'
import type { DayLine } from '~~/core/day-line/day-line'
import { dayScale, trueScale, type DayScale } from '~~/core/day-line/day-scale'
import { iso, minute, ms, plus, type Instant } from '~~/core/kit/time'

/** Percent of the width that the scale takes: the rest is for words that begin at its end. */
const room = 85
const shortest = 20 * minute

/**
 * How a day line lies on the page: folded, so that days in which nothing happens are narrow; or to scale, in a stretch of
 * time that is made narrower, wider and moved along.
 * @param cursor the instant about which it is made narrower, where one is pointed at
 */
export function useDayView(line: Ref<DayLine | null>, now: Ref<Instant>, cursor: Ref<Instant | null>) {
  const session = useSession()
  /** Null while it is folded. */
  const view = shallowRef<{ from: Instant; to: Instant } | null>(null)

  /** All of the line, to scale. */
  function whole() {
    const { starts, ends } = line.value!
    const beside = Math.max(30 * minute, (ms(ends) - ms(starts)) * 0.03)
    view.value = { from: plus(starts, -beside), to: plus(ends, beside) }
  }
  /** @param by below 1 for nearer, above it for wider */
  function zoom(by: number) {
    const { from, to } = view.value!
    const [first, last] = [ms(from), ms(to)]
    const middle = cursor.value && cursor.value > from && cursor.value < to ? ms(cursor.value) : (first + last) / 2
    const length = Math.max(shortest, (last - first) * by)
    const start = middle - ((middle - first) / (last - first)) * length
    view.value = { from: iso(start), to: iso(start + length) }
  }
  /** @param by share of what is in sight; below 0 for earlier */
  function pan(by: number) {
    const { from, to } = view.value!
    const step = (ms(to) - ms(from)) * by
    view.value = { from: plus(from, step), to: plus(to, step) }
  }

  const fresh = computed(() => {
    if (!line.value) return null
    if (view.value) return trueScale(view.value.from, view.value.to, session.zone)
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
  const held = shallowRef<DayScale | null>(null)
  const scale = computed(() => held.value ?? fresh.value)
  const left = (at: Instant) => `${scale.value!.at(at) * room}%`
  const width = (from: Instant, to: Instant | null) =>
    to === null
      ? `${100 - scale.value!.at(from) * room}%`
      : `${Math.max(0.4, (scale.value!.at(to) - scale.value!.at(from)) * room)}%`
  /** Whether something between two instants is in sight. */
  const inSight = (from: Instant, to: Instant | null) =>
    !view.value || (from < view.value.to && (to === null || to > view.value.from))

  return {
    view,
    whole,
    zoom,
    pan,
    scale,
    /** The scale stands still from now on: something is moved on it. */
    hold() {
      held.value ??= fresh.value
    },
    letLoose() {
      held.value = null
    },
    room,
    left,
    width,
    inSight,
  }
}
