<script setup lang="ts">
import { count } from '~~/core/kit/phrases'
import type { Hit } from '~~/server/domain/bank/finding/hits'

/** Makes a pool of chosen questions, or of what a condition finds: "draw 4 of 11, 1 point each". */
const { hits, open } = defineProps<{ open: boolean; hits: Hit[] }>()
const emit = defineEmits<{ close: []; make: [pool: { title: string; draw: number; points: number }] }>()
const draw = ref(1)
const points = ref(1)
const title = ref('')
watch(
  () => open,
  () => {
    draw.value = Math.max(1, Math.ceil(hits.length / 2))
    points.value = hits[0]?.points ?? 1
    title.value = ''
  },
)
</script>

<template>
  <ModalDialog :open="open" title="Make a pool" @close="emit('close')">
    <form class="space-y-4" @submit.prevent="emit('make', { title, draw, points })">
      <p class="font-serif text-lg">
        Draw
        <input
          v-model.number="draw"
          aria-label="Questions drawn"
          class="field mx-1 inline-block w-18! py-0.5 font-sans"
          type="number"
          min="1"
          :max="hits.length || 200"
          required
        />
        of {{ hits.length ? count(hits.length, 'question') : 'what the search finds when the quiz is opened' }},
        <input
          v-model.number="points"
          aria-label="Points each"
          class="field mx-1 inline-block w-18! py-0.5 font-sans"
          type="number"
          min="0"
          max="1000"
          step="0.5"
          required
        />
        {{ points === 1 ? 'point' : 'points' }} each.
      </p>
      <LabelledField label="Name, for teachers"
        ><input v-model="title" class="field" maxlength="160" placeholder="Levels and datums"
      /></LabelledField>
      <div class="flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button
        ><button class="btn btn-main">Make the pool</button>
      </div>
    </form>
  </ModalDialog>
</template>
