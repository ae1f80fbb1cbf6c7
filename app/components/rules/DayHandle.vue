<script setup lang="ts">
import { minute, plus, type Instant } from '~~/core/kit/time'

/**
 * A time on the day line that is moved: by dragging it, with a finger or a mouse, or by arrow keys (five minutes; an hour
 * with Shift, a day with Page). While it moves the line shows what would be.
 */
const { at, place, placeToInstant } = defineProps<{
  at: Instant
  /** Where it stands, as a share of the drawing's width in percent. */
  place: string
  name: string
  words: string
  /** The instant under a place of the screen. */
  placeToInstant: (x: number) => Instant
}>()
const emit = defineEmits<{ move: [Instant]; set: [Instant]; leave: [] }>()
const snap = 5 * minute
const snapped = (instant: Instant): Instant => new Date(Math.round(Date.parse(instant) / snap) * snap).toISOString()
/** Where it is while it is moved, and where it was: the line shows it moved already. */
const moving = ref<Instant | null>(null)
let began: Instant | null = null
function down(event: PointerEvent) {
  if (event.button !== 0) return
  ;(event.target as HTMLElement).setPointerCapture(event.pointerId)
  moving.value = began = at
}
function move(event: PointerEvent) {
  if (moving.value === null) return
  const next = snapped(placeToInstant(event.clientX))
  if (next === moving.value) return
  moving.value = next
  emit('move', next)
}
function up() {
  const to = moving.value
  moving.value = null
  if (to !== null && to !== began) emit('set', to)
  else emit('leave')
}
function cancel() {
  moving.value = null
  emit('leave')
}
const steps: Record<string, number> = {
  ArrowLeft: -5,
  ArrowDown: -5,
  ArrowRight: 5,
  ArrowUp: 5,
  PageDown: -1440,
  PageUp: 1440,
}
function key(event: KeyboardEvent) {
  if (event.key === 'Escape' && moving.value !== null) return cancel()
  const step = steps[event.key]
  if (step === undefined || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  emit('set', plus(at, (event.shiftKey && Math.abs(step) === 5 ? step * 12 : step) * minute))
}
</script>

<template>
  <span
    role="slider"
    tabindex="0"
    :aria-label="name"
    :aria-valuenow="Math.round(Date.parse(at) / minute)"
    :aria-valuetext="words"
    :title="`${name}: ${words}`"
    class="handle absolute inset-y-0 z-10 -ml-3 w-6 cursor-ew-resize touch-none"
    :style="{ left: place }"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="cancel"
    @keydown="key"
  />
</template>

<style scoped>
.handle::after {
  content: '';
  position: absolute;
  inset-block: -2px;
  left: calc(50% - 2px);
  width: 4px;
  border-radius: 2px;
  background: transparent;
}
.handle:hover::after,
.handle:focus-visible::after {
  background: var(--bloom);
}
</style>
