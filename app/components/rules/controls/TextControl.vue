<script setup lang="ts">
import type { Control, Slot } from '~~/core/rules'

/** A short text, or none. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ set: [value: string | null]; close: [] }>()
const control = computed(() => place.control as Extract<Control, { sort: 'text' }>)
const draft = ref((place.value as string | null) ?? '')
function keep(value: string | null) {
  emit('set', value)
  emit('close')
}
</script>

<template>
  <form class="flex flex-wrap gap-2" @submit.prevent="keep(draft.trim() || null)">
    <input v-model="draft" class="field w-40! py-1" :aria-label="place.name" :maxlength="control.longest" /><button
      class="btn btn-main py-1"
      :disabled="!draft.trim()"
    >
      Set</button
    ><button type="button" class="btn py-1" @click="keep(null)">{{ control.none }}</button>
  </form>
</template>
