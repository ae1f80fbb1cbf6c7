<script setup lang="ts">
import { isBlank } from '~~/core/question/allowed-html'

/** A comment on one part of a question: a quiet line until somebody writes one, then rich text with links. */
const { modelValue, label, words } = defineProps<{
  modelValue: string
  /** Names the field on the whole page. */
  label: string
  /** What the quiet line says. */
  words: string
}>()
const emit = defineEmits<{ 'update:modelValue': [string] }>()
const isOpen = ref(!isBlank(modelValue))
watch(
  () => modelValue,
  (html) => {
    if (!isBlank(html)) isOpen.value = true
  },
)
</script>

<template>
  <RichText
    v-if="isOpen"
    slim
    aside
    :label="label"
    :model-value="modelValue"
    :autofocus="isBlank(modelValue)"
    @update:model-value="emit('update:modelValue', $event)"
  />
  <button
    v-else
    type="button"
    class="rounded px-1 text-left text-small text-soft underline decoration-rule underline-offset-2 hover:decoration-current"
    @click="isOpen = true"
  >
    <span aria-hidden="true">+ </span>{{ words }}<span class="sr-only">: {{ label }}</span>
  </button>
</template>
