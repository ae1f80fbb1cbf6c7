<script setup lang="ts">
/** A number within a sentence, or "none" where that is a choice. */
const {
  modelValue,
  step = 1,
  min = 0,
  max = 100000,
  none,
} = defineProps<{
  modelValue: number | null
  name: string
  words: string
  unit: string
  step?: number
  min?: number
  max?: number
  none?: string
  start?: number
}>()
const emit = defineEmits<{ 'update:modelValue': [number | null] }>()
const draft = ref<number | null>(modelValue)
watch(
  () => modelValue,
  (value) => {
    draft.value = value
  },
)
const wrong = computed(
  () => draft.value !== null && (!Number.isFinite(draft.value) || draft.value < min || draft.value > max),
)
function keep(close: () => void) {
  if (wrong.value || draft.value === null) return
  emit('update:modelValue', draft.value)
  close()
}
const id = useId()
function keepNone(close: () => void) {
  emit('update:modelValue', null)
  close()
}
</script>

<template>
  <SentenceValue v-slot="{ close }" :words="words" :name="name">
    <form class="flex flex-wrap items-center gap-2" @submit.prevent="keep(close)">
      <label class="sr-only" :for="id">{{ name }}</label>
      <input
        :id="id"
        v-model.number="draft"
        type="number"
        class="field w-24! py-1"
        :step="step"
        :min="min"
        :max="max"
      />
      <span>{{ unit }}</span>
      <button class="btn btn-main py-1" :disabled="wrong || draft === null || !Number.isFinite(draft)">Set</button>
      <button v-if="none" type="button" class="btn py-1" @click="keepNone(close)">
        {{ none }}
      </button>
      <p v-if="wrong" class="w-full text-red">From {{ min }} to {{ max }}.</p>
    </form>
  </SentenceValue>
</template>
