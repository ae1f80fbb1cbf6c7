<script setup lang="ts">
import type { Control, Slot } from '~~/core/rules'

/** A short text, or none. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ set: [value: string | null]; close: [] }>()
const control = computed(() => place.control as Extract<Control, { sort: 'text' }>)
const draft = ref((place.value as string | null) ?? '')
/** A password that can be read out: a word and four digits. */
function makeUp() {
  const words = [
    'anchor',
    'beacon',
    'cutter',
    'dinghy',
    'fender',
    'gannet',
    'harbour',
    'jetty',
    'lantern',
    'mooring',
    'rudder',
    'sextant',
  ]
  const [word = 0, digits = 0] = crypto.getRandomValues(new Uint32Array(2))
  keep(`${words[word % words.length]} ${1000 + (digits % 9000)}`)
}
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
    ><button v-if="control.fresh" type="button" class="btn py-1" @click="makeUp">Make a fresh one</button
    ><button v-if="control.none" type="button" class="btn py-1" @click="keep(null)">{{ control.none }}</button>
  </form>
</template>
