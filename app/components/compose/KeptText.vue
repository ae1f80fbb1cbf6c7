<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'

/** Rich text that becomes an edit of the quiz after a pause or when it is left, not at every letter. */
const { modelValue, label, slim = false } = defineProps<{ modelValue: string; label: string; slim?: boolean }>()
const emit = defineEmits<{ keep: [html: string] }>()
const pause = 900
const draft = ref(modelValue)
watch(
  () => modelValue,
  (html) => {
    draft.value = html
  },
)
function keep() {
  if (draft.value !== modelValue) emit('keep', draft.value)
}
const soon = useDebounceFn(keep, pause)
function write(html: string) {
  draft.value = html
  void soon()
}
onBeforeUnmount(keep)
</script>

<template>
  <RichText :slim="slim" :label="label" :model-value="draft" @focusout="keep" @update:model-value="write" />
</template>
