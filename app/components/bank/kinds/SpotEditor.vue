<script setup lang="ts">
import type { KindName } from '~~/core/question'
import { mediaRoutes } from '~/client/media'
import { middle, type Point, type Shape } from '~~/core/kit/shapes'
import type { SpotBody } from '~~/core/question/kinds/spot'
import { numbersWanted, shapeFrom, shapeNumbers } from './region-numbers'

/** Regions drawn on a picture: a circle or rectangle by dragging, a polygon corner by corner. Numbers can be typed as well. */
const { body } = defineProps<{ kind?: KindName; body: SpotBody }>()
const emit = defineEmits<{ 'update:body': [SpotBody] }>()
type Region = SpotBody['regions'][number]

const tool = ref<Shape['is']>('circle')
const corners = ref<Point[]>([])
const drawn = ref<Shape | null>(null)
const { problem, act } = useAct()
const drawing = useTemplateRef<SVGSVGElement>('drawing')
let from: Point | null = null

const set = (values: Partial<SpotBody>) => emit('update:body', { ...body, ...values })
const setRegion = (id: string, values: Partial<Region>) =>
  set({ regions: body.regions.map((region) => (region.id === id ? { ...region, ...values } : region)) })
/** Left empty, a region earns everything or is a miss; rings and graded places say what they earn. */
function setCredit({ id }: Region, percent: string) {
  const { credit: _credit, ...rest } = body.regions.find((region) => region.id === id)!
  const typed = Math.max(-100, Math.min(100, Math.round(Number(percent))))
  const next: Region = percent.trim() === '' || Number.isNaN(typed) ? rest : { ...rest, credit: typed / 100 }
  set({ regions: body.regions.map((region) => (region.id === id ? next : region)) })
}
function addRegion(shape: Shape) {
  const id = Array.from({ length: 60 }, (_, i) => `r${i + 1}`).find(
    (each) => !body.regions.some((region) => region.id === each),
  )!
  set({ regions: [...body.regions, { id, shape, right: true, label: '', comment: '' }] })
}

async function choose(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  await act(async () => {
    const { src, kind } = await mediaRoutes.add({ body: file })
    if (kind !== 'picture') {
      problem.value = 'This is not a picture.'
      return
    }
    const image = new Image()
    image.src = src
    await image.decode()
    set({ picture: src, width: image.naturalWidth, height: image.naturalHeight })
  })
}

function place(event: PointerEvent): Point {
  const { left, top, width, height } = drawing.value!.getBoundingClientRect()
  const within = (share: number, most: number) => Math.round(Math.min(1, Math.max(0, share)) * most)
  return {
    x: within((event.clientX - left) / width, body.width),
    y: within((event.clientY - top) / height, body.height),
  }
}
function between(a: Point, b: Point): Shape {
  if (tool.value === 'circle')
    return { is: 'circle', x: a.x, y: a.y, r: Math.max(1, Math.round(Math.hypot(b.x - a.x, b.y - a.y))) }
  return {
    is: 'rectangle',
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.max(1, Math.abs(b.x - a.x)),
    height: Math.max(1, Math.abs(b.y - a.y)),
  }
}
function down(event: PointerEvent) {
  event.preventDefault()
  const at = place(event)
  if (tool.value === 'polygon') {
    corners.value = [...corners.value, at]
    return
  }
  from = at
  drawing.value!.setPointerCapture(event.pointerId)
}
function move(event: PointerEvent) {
  if (from) drawn.value = between(from, place(event))
}
function up(event: PointerEvent) {
  if (!from) return
  const to = place(event)
  if (Math.hypot(to.x - from.x, to.y - from.y) > 3) addRegion(between(from, to))
  from = null
  drawn.value = null
}
function closePolygon() {
  if (corners.value.length >= 3) addRegion({ is: 'polygon', points: corners.value })
  corners.value = []
}
const line = (points: Point[]) => points.map(({ x, y }) => `${x},${y}`).join(' ')
/** Where the number of a shape stands: above it, within the picture. */
function above(shape: Shape): Point {
  const { x, y } = middle(shape)
  const top =
    shape.is === 'circle'
      ? y - shape.r
      : shape.is === 'rectangle'
        ? shape.y
        : Math.min(...shape.points.map((corner) => corner.y))
  return { x, y: Math.max(body.width / 26, top - 4) }
}
const shapes = computed(() => [
  ...body.regions.map((region, index) => ({ shape: region.shape, right: region.right, number: index + 1 })),
  ...(drawn.value ? [{ shape: drawn.value, right: true, number: 0 }] : []),
])

function typed(region: Region, event: Event) {
  const shape = shapeFrom(region.shape.is, (event.target as HTMLInputElement).value)
  problem.value = shape ? '' : `Write ${numbersWanted[region.shape.is]}, as numbers of pixels.`
  if (shape) setRegion(region.id, { shape })
}
function draw(is: Shape['is']) {
  tool.value = is
  corners.value = []
}
const rules = [
  ['share', 'a share for every place'],
  ['all', 'everything when all are right, else nothing'],
] as const
</script>

<template>
  <fieldset class="space-y-3">
    <legend class="small-head">Picture and regions</legend>
    <div class="flex flex-wrap items-end gap-3">
      <label class="btn cursor-pointer"
        >{{ body.picture ? 'Another picture' : 'Choose a picture'
        }}<input type="file" accept="image/png,image/jpeg,image/gif,image/webp" class="sr-only" @change="choose"
      /></label>
      <LabelledField label="What it shows, without giving the answer away" class="grow"
        ><input
          class="field py-1"
          maxlength="1000"
          :value="body.alt"
          @input="set({ alt: ($event.target as HTMLInputElement).value })"
      /></LabelledField>
    </div>
    <ProblemNote :words="problem" />
    <template v-if="body.picture">
      <div class="flex flex-wrap items-center gap-2" role="group" aria-label="What to draw">
        <button
          v-for="(words, is) in { circle: 'Circle', rectangle: 'Rectangle', polygon: 'Polygon' } as const"
          :key="is"
          type="button"
          class="tag"
          :aria-pressed="tool === is"
          @click="draw(is)"
        >
          {{ words }}
        </button>
        <template v-if="tool === 'polygon'"
          ><button type="button" class="btn py-0.5" :disabled="corners.length < 3" @click="closePolygon">
            Close the polygon</button
          ><span class="text-small text-soft">{{ corners.length }} corners</span></template
        >
        <span v-else class="text-small text-soft">drag on the picture</span>
        <button
          type="button"
          class="btn btn-quiet"
          @click="
            addRegion(
              tool === 'rectangle'
                ? {
                    is: 'rectangle',
                    x: Math.round(body.width * 0.4),
                    y: Math.round(body.height * 0.4),
                    width: Math.round(body.width * 0.2),
                    height: Math.round(body.height * 0.2),
                  }
                : {
                    is: 'circle',
                    x: Math.round(body.width / 2),
                    y: Math.round(body.height / 2),
                    r: Math.max(4, Math.round(body.width * 0.08)),
                  },
            )
          "
        >
          put one in the middle
        </button>
      </div>
      <div class="relative inline-block max-w-full touch-none border border-rule">
        <img
          :src="body.picture"
          :alt="body.alt"
          :width="body.width"
          :height="body.height"
          class="block h-auto max-w-full select-none"
          draggable="false"
        />
        <svg
          ref="drawing"
          class="absolute inset-0 size-full cursor-crosshair"
          :viewBox="`0 0 ${body.width} ${body.height}`"
          aria-hidden="true"
          @pointerdown="down"
          @pointermove="move"
          @pointerup="up"
        >
          <g
            v-for="(each, index) in shapes"
            :key="index"
            :class="each.right ? 'fill-green/25 stroke-green' : 'fill-amber/25 stroke-amber'"
            :stroke-dasharray="each.right ? undefined : '6 4'"
            stroke-width="2"
          >
            <circle
              v-if="each.shape.is === 'circle'"
              :cx="each.shape.x"
              :cy="each.shape.y"
              :r="each.shape.r"
              vector-effect="non-scaling-stroke"
            />
            <rect
              v-else-if="each.shape.is === 'rectangle'"
              :x="each.shape.x"
              :y="each.shape.y"
              :width="each.shape.width"
              :height="each.shape.height"
              vector-effect="non-scaling-stroke"
            />
            <polygon v-else :points="line(each.shape.points)" vector-effect="non-scaling-stroke" />
            <text
              v-if="each.number"
              :x="above(each.shape).x"
              :y="above(each.shape).y"
              :font-size="body.width / 26"
              text-anchor="middle"
              class="fill-white stroke-ink font-sans font-semibold [paint-order:stroke]"
              stroke-width="3"
              stroke-dasharray="0"
            >
              {{ each.number }}{{ each.right ? ' ✓' : '' }}
            </text>
          </g>
          <polyline
            v-if="corners.length"
            :points="line(corners)"
            class="fill-none stroke-bloom"
            stroke-width="2"
            vector-effect="non-scaling-stroke"
          />
        </svg>
      </div>
      <ol class="space-y-2">
        <li v-for="(region, index) in body.regions" :key="region.id" class="flex flex-wrap items-end gap-2">
          <TickBox
            class="pb-1.5"
            :model-value="region.right"
            @update:model-value="setRegion(region.id, { right: !region.right })"
            >{{ index + 1 }} is right</TickBox
          >
          <label class="text-note text-soft"
            >Earns %<input
              class="field block w-20! py-1"
              type="number"
              min="-100"
              max="100"
              :placeholder="region.right ? '100' : 'a miss'"
              :value="region.credit === undefined ? '' : Math.round(region.credit * 100)"
              @change="setCredit(region, ($event.target as HTMLInputElement).value)"
          /></label>
          <label class="text-note text-soft"
            >Name<input
              class="field block w-40! py-1"
              maxlength="80"
              :value="region.label"
              @input="setRegion(region.id, { label: ($event.target as HTMLInputElement).value })"
          /></label>
          <label class="text-note text-soft"
            >{{ region.shape.is }}: {{ numbersWanted[region.shape.is]
            }}<input class="field block py-1" :value="shapeNumbers(region.shape)" @change="typed(region, $event)"
          /></label>
          <button
            type="button"
            class="btn"
            @click="set({ regions: body.regions.filter((each) => each.id !== region.id) })"
          >
            Take out
          </button>
          <CommentField
            class="basis-full"
            :label="`Comment for who marks region ${index + 1}`"
            words="comment for who marks it"
            :model-value="region.comment"
            @update:model-value="setRegion(region.id, { comment: $event })"
          />
        </li>
      </ol>
      <div class="flex flex-wrap gap-4">
        <label class="text-note text-soft"
          >Students<select
            class="field block py-1"
            :value="body.by"
            @change="set({ by: ($event.target as HTMLSelectElement).value as SpotBody['by'] })"
          >
            <option value="point">mark a place of their own</option>
            <option value="place">choose among the regions, by name</option>
          </select></label
        >
        <label class="text-note text-soft"
          >Places asked for<input
            class="field block w-20! py-1"
            type="number"
            min="1"
            max="20"
            :value="body.spots"
            @input="set({ spots: Number(($event.target as HTMLInputElement).value) || 1 })"
        /></label>
        <EarnsSelect v-if="body.spots > 1" :rule="body.rule" :rules="rules" @update:rule="set({ rule: $event })" />
        <WrongCostSelect
          v-if="body.rule === 'share' || body.spots === 1"
          thing="place"
          :cost="body.wrongCost"
          @update:cost="set({ wrongCost: $event })"
        />
      </div>
    </template>
  </fieldset>
</template>
