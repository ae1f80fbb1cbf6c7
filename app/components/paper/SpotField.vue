<script setup lang="ts">
import type { Point } from '~~/core/kit/shapes'
import type { SealedBody } from '~~/core/question/kinds/sealed'

/**
 * Marks on a picture: by tapping, or with the keyboard (arrow keys move the cross, with Shift further; Enter marks). A screen
 * reader hears where the cross is.
 */
const { body, points, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'spot' }>
  points: Point[]
  labelledby: string
  readonly: boolean
}>()
const emit = defineEmits<{ mark: [points: Point[]] }>()
const cross = ref<Point | null>(null)
const spoken = ref('')
const box = useTemplateRef<HTMLElement>('box')

const inWords = (at: Point) =>
  `${Math.round((at.x / body.width) * 100)} % across, ${Math.round((at.y / body.height) * 100)} % down`
const at = ({ x, y }: Point) => ({ left: `${(x / body.width) * 100}%`, top: `${(y / body.height) * 100}%` })
const inside = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value)))

/** One more mark; with all in use the last one moves. */
function add(point: Point) {
  if (readonly) return
  emit('mark', [...(points.length >= body.spots ? points.slice(0, body.spots - 1) : points), point])
  spoken.value = `Marked at ${inWords(point)}.`
}
function tap(event: MouseEvent) {
  const { left, top, width, height } = box.value!.getBoundingClientRect()
  add({
    x: inside(((event.clientX - left) / width) * body.width, body.width),
    y: inside(((event.clientY - top) / height) * body.height, body.height),
  })
}
function key(event: KeyboardEvent) {
  if (readonly) return
  const from = cross.value ?? { x: Math.round(body.width / 2), y: Math.round(body.height / 2) }
  const step = Math.max(1, Math.round(Math.max(body.width, body.height) * (event.shiftKey ? 0.1 : 0.02)))
  const moves: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, -step],
    ArrowDown: [0, step],
  }
  const by = moves[event.key]
  if (by) {
    cross.value = { x: inside(from.x + by[0], body.width), y: inside(from.y + by[1], body.height) }
    spoken.value = inWords(cross.value)
  } else if (event.key === 'Enter' || event.key === ' ') add((cross.value = from))
  else return
  event.preventDefault()
}
function take(index: number) {
  emit(
    'mark',
    points.filter((_, i) => i !== index),
  )
  spoken.value = `Mark ${index + 1} taken away.`
}
</script>

<template>
  <div role="group" :aria-labelledby="labelledby">
    <p v-if="!readonly" class="mb-2 text-label text-soft">
      {{ body.spots === 1 ? 'Mark one place' : `Mark ${body.spots} places` }} on the picture. With the keyboard: arrow
      keys move the cross, Enter marks.
    </p>
    <div
      ref="box"
      class="relative inline-block max-w-full border border-rule"
      :class="readonly ? '' : 'cursor-crosshair'"
      :tabindex="readonly ? undefined : 0"
      role="application"
      :aria-label="`${body.alt}. Picture to mark: arrow keys move the cross, Enter marks.`"
      @click="tap"
      @keydown="key"
      @blur="cross = null"
    >
      <img
        :src="body.picture"
        :alt="body.alt"
        :width="body.width"
        :height="body.height"
        class="block h-auto max-w-full select-none"
        draggable="false"
      />
      <span
        v-for="(point, index) in points"
        :key="index"
        class="pointer-events-none absolute grid size-7 -translate-x-1/2 -translate-y-1/2 place-items-center rounded-full border-2 border-white bg-bloom text-note font-bold text-white shadow"
        :style="at(point)"
        aria-hidden="true"
        >{{ index + 1 }}</span
      >
      <span
        v-if="cross && !readonly"
        class="pointer-events-none absolute size-8 -translate-x-1/2 -translate-y-1/2"
        :style="at(cross)"
        aria-hidden="true"
        ><span class="absolute inset-y-0 left-1/2 w-0.5 bg-bloom" /><span
          class="absolute inset-x-0 top-1/2 h-0.5 bg-bloom"
      /></span>
    </div>
    <p class="sr-only" role="status">{{ spoken }}</p>
    <ul v-if="points.length" class="mt-2 flex flex-wrap gap-2">
      <li v-for="(point, index) in points" :key="index" class="tag">
        {{ index + 1 }}: {{ inWords(point) }}
        <button
          v-if="!readonly"
          type="button"
          class="link"
          :aria-label="`Take mark ${index + 1} away`"
          @click="take(index)"
        >
          take away
        </button>
      </li>
    </ul>
  </div>
</template>
