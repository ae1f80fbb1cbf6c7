<script setup lang="ts">
import type { Control, Slot } from '~~/core/rules'

/** A number, in minutes or in the unit that the control names; or none, where that is a choice. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ set: [value: number | null]; close: [] }>()
const control = computed(() => place.control as Extract<Control, { sort: 'minutes' | 'number' }>)
const min = computed(() => control.value.min ?? 0)
const draft = ref(place.value as number | null | '')
const isNumber = computed(() => typeof draft.value === 'number' && Number.isFinite(draft.value))
const isWrong = computed(
  () => isNumber.value && (Number(draft.value) < min.value || Number(draft.value) > control.value.max),
)
const id = useId()
function keep(value: number | null) {
  emit('set', value)
  emit('close')
}
</script>

<template>
  <form class="flex flex-wrap items-center gap-2" @submit.prevent="keep(Number(draft))">
    <label class="sr-only" :for="id">{{ place.name }}</label>
    <input
      :id="id"
      v-model.number="draft"
      type="number"
      class="field w-24! py-1"
      :step="control.step ?? 1"
      :min="min"
      :max="control.max"
    />
    <span>{{ control.sort === 'minutes' ? 'minutes' : control.unit }}</span>
    <button class="btn btn-main py-1" :disabled="isWrong || !isNumber">Set</button>
    <button v-if="control.none" type="button" class="btn py-1" @click="keep(null)">{{ control.none }}</button>
    <p v-if="isWrong" class="w-full text-red">From {{ min }} to {{ control.max }}.</p>
  </form>
</template>
