<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { RotateCcw, RotateCw, X } from '@lucide/vue'

/** A ruler or a protractor that lies over the page: moved by dragging or with the arrow keys, turned with [ and ] or its buttons. */
const { kind } = defineProps<{ kind: 'ruler' | 'protractor' }>()
const emit = defineEmits<{ close: [] }>()

/** CSS pixels of a centimetre. */
const centimetre = 96 / 2.54
const length = 16
const radius = 170
const place = reactive({ x: Math.min(120, window.innerWidth / 30), y: 220, turn: 0 })
const root = useTemplateRef<HTMLElement>('root')
const inside = (value: number, most: number) => Math.min(Math.max(value, -100), most)
function move(x: number, y: number) {
  place.x = inside(place.x + x, window.innerWidth - 60)
  place.y = inside(place.y + y, window.innerHeight - 40)
}
const turn = (by: number) => {
  place.turn = (((place.turn + by) % 360) + 360) % 360
}
function drag(event: PointerEvent) {
  const target = event.currentTarget as HTMLElement
  target.setPointerCapture(event.pointerId)
  target.focus()
  const on = (next: PointerEvent) => move(next.movementX, next.movementY)
  target.addEventListener('pointermove', on)
  for (const end of ['pointerup', 'pointercancel'] as const)
    target.addEventListener(end, () => target.removeEventListener('pointermove', on), { once: true })
}
onKeyStroke(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', '[', ']', 'Escape'], (event) => {
  if (!root.value?.contains(event.target as Node)) return
  event.preventDefault()
  const by = event.shiftKey ? 20 : 2
  if (event.key === 'Escape') emit('close')
  else if (event.key === '[' || event.key === ']') turn(event.key === ']' ? 1 : -1)
  else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') move(event.key === 'ArrowRight' ? by : -by, 0)
  else move(0, event.key === 'ArrowDown' ? by : -by)
})
const marks = computed(() =>
  kind === 'ruler'
    ? Array.from({ length: length * 10 + 1 }, (_, i) => ({
        at: (i / 10) * centimetre,
        long: i % 10 === 0,
        half: i % 5 === 0,
        n: i / 10,
      }))
    : [],
)
const rays = computed(() =>
  kind === 'protractor'
    ? Array.from({ length: 181 }, (_, degree) => {
        const angle = (degree * Math.PI) / 180
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
        const inner = degree % 10 === 0 ? 18 : degree % 5 === 0 ? 12 : 7
        const at = (distance: number) => ({ x: radius + cos * distance, y: radius - sin * distance })
        return { degree, from: at(radius), to: at(radius - inner), words: at(radius - 28) }
      })
    : [],
)
const size = computed(() =>
  kind === 'ruler' ? { width: length * centimetre + 20, height: 56 } : { width: radius * 2, height: radius + 14 },
)
onMounted(() => root.value?.querySelector<HTMLElement>('[data-body]')?.focus())
</script>

<template>
  <div
    ref="root"
    class="fixed z-30 touch-none"
    :style="{ left: `${place.x}px`, top: `${place.y}px`, transform: `rotate(${place.turn}deg)` }"
  >
    <div
      data-body
      role="application"
      tabindex="0"
      class="cursor-move outline-offset-2"
      :aria-label="`${kind === 'ruler' ? 'Ruler' : 'Protractor'}, turned by ${place.turn} degrees. Arrow keys move it, [ and ] turn it, Escape puts it away.`"
      @pointerdown="drag"
    >
      <svg :width="size.width" :height="size.height" aria-hidden="true" class="select-none">
        <template v-if="kind === 'ruler'">
          <rect width="100%" height="100%" class="fill-sheet stroke-ink" fill-opacity="0.4" stroke-width="2" rx="3" />
          <g transform="translate(10 0)">
            <template v-for="mark in marks" :key="mark.at">
              <line :x1="mark.at" :x2="mark.at" y1="0" :y2="mark.long ? 20 : mark.half ? 14 : 8" class="stroke-ink" />
              <text v-if="mark.long" :x="mark.at" y="36" text-anchor="middle" class="fill-ink text-[12px]">
                {{ mark.n }}
              </text>
            </template>
          </g>
        </template>
        <template v-else>
          <path
            :d="`M 0 ${radius} A ${radius} ${radius} 0 0 1 ${radius * 2} ${radius} v 12 h -${radius * 2} z`"
            class="fill-sheet stroke-ink"
            fill-opacity="0.4"
            stroke-width="2"
          />
          <template v-for="ray in rays" :key="ray.degree">
            <line :x1="ray.from.x" :y1="ray.from.y" :x2="ray.to.x" :y2="ray.to.y" class="stroke-ink" />
            <text
              v-if="ray.degree % 10 === 0"
              :x="ray.words.x"
              :y="ray.words.y + 3"
              text-anchor="middle"
              class="fill-ink text-[10px]"
            >
              {{ ray.degree }}
            </text>
          </template>
          <path
            :d="`M ${radius - 8} ${radius} h 16 M ${radius} ${radius - 8} v 16`"
            class="stroke-bloom"
            stroke-width="2"
          />
        </template>
      </svg>
    </div>
    <div class="mt-1 flex gap-1">
      <button type="button" class="btn px-2 py-1" aria-label="Turn to the left" @click="turn(-5)">
        <RotateCcw class="size-4" aria-hidden="true" />
      </button>
      <button type="button" class="btn px-2 py-1" aria-label="Turn to the right" @click="turn(5)">
        <RotateCw class="size-4" aria-hidden="true" />
      </button>
      <span class="tag">{{ place.turn }}°</span>
      <button type="button" class="btn px-2 py-1" aria-label="Put it away" @click="emit('close')">
        <X class="size-4" aria-hidden="true" />
      </button>
    </div>
  </div>
</template>
