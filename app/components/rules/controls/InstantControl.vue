<script setup lang="ts">
import type { Control, Slot } from '~~/core/rules'

/** A time of the school's, or none where that is a choice. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ set: [value: string | null]; close: [] }>()
const session = useSession()
const none = computed(() => (place.control as Extract<Control, { sort: 'instant' }>).none)
function take(value: string | null) {
  emit('set', value)
  if (value === null) emit('close')
}
</script>

<template>
  <LabelledField :label="place.name"
    ><TimeField
      :model-value="(place.value as string | null) ?? ''"
      :zone="session.zone"
      @update:model-value="take" /></LabelledField
  ><button v-if="none" type="button" class="btn mt-2" @click="take(null)">{{ none }}</button>
</template>
