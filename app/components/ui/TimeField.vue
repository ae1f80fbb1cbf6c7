<script setup lang="ts">
import { fromLocal, toLocal } from '~~/core/kit/local-time'

/** A date and time as the school reads it, kept as an instant. A time that the day does not have says so. */
const { modelValue, zone, name } = defineProps<{ modelValue: string; zone: string; name?: string }>()
const emit = defineEmits<{ 'update:modelValue': [string] }>()
const problem = ref('')
function take(event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (!text) return
  problem.value = ''
  try {
    emit('update:modelValue', fromLocal(text, zone))
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <input
    class="field py-1"
    type="datetime-local"
    :aria-label="name"
    :value="modelValue ? toLocal(modelValue, zone) : ''"
    @change="take"
  /><span v-if="problem" role="alert" class="block text-red">{{ problem }}</span>
</template>
