<script setup lang="ts">
import { middle } from '~~/core/kit/shapes'
import type { SealedBody } from '~~/core/question/kinds/sealed'
import { letter } from '~~/core/question/kinds/letter'

/** Named places on a picture, chosen on it or in the list beside it. */
const { body, chosen, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'places' }>
  chosen: string[]
  name: string
  labelledby: string
  readonly: boolean
  right: string[]
}>()
const emit = defineEmits<{ choose: [chosen: string[]] }>()
function toggle(id: string) {
  if (readonly) return
  const rest = chosen.filter((each) => each !== id)
  emit('choose', chosen.includes(id) ? rest : [...(rest.length >= body.spots ? rest.slice(1) : rest), id])
}
const at = (shape: (typeof body.places)[number]['shape']) => {
  const { x, y } = middle(shape)
  return { left: `${(x / body.width) * 100}%`, top: `${(y / body.height) * 100}%` }
}
</script>

<template>
  <div role="group" :aria-labelledby="labelledby">
    <p v-if="!readonly" class="mb-2 text-label text-soft">
      {{ body.spots === 1 ? 'Choose one place.' : `Choose ${body.spots} places.` }}
    </p>
    <div class="relative inline-block max-w-full border border-rule">
      <img
        :src="body.picture"
        :alt="body.alt"
        :width="body.width"
        :height="body.height"
        class="block h-auto max-w-full select-none"
        draggable="false"
      />
      <!-- The list below is what a keyboard and a screen reader use; these are the same choices on the picture. -->
      <span
        v-for="(place, index) in body.places"
        :key="place.id"
        class="absolute grid size-9 -translate-x-1/2 -translate-y-1/2 cursor-pointer place-items-center rounded-full border-2 font-bold shadow"
        :style="at(place.shape)"
        aria-hidden="true"
        :class="chosen.includes(place.id) ? 'border-white bg-bloom text-white' : 'border-petrol bg-sheet text-petrol'"
        @click="toggle(place.id)"
        >{{ letter(index) }}</span
      >
    </div>
    <div class="mt-2 flex flex-wrap gap-x-5 gap-y-1.5">
      <label v-for="(place, index) in body.places" :key="place.id" class="flex items-center gap-2 text-lg"
        ><input
          type="checkbox"
          class="size-4 accent-petrol"
          :name="name"
          :checked="chosen.includes(place.id)"
          :disabled="readonly"
          @change="toggle(place.id)"
        />
        {{ letter(index) }}: {{ place.label
        }}<span v-if="right.includes(place.id)" class="text-small font-semibold text-green">✓ right answer</span></label
      >
    </div>
  </div>
</template>
