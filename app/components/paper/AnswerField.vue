<script setup lang="ts">
import type { SealedBody } from '~~/core/question/kinds/sealed'
import { fields } from './fields'
import type { Response } from './response'

/** Where a student answers, for every way of asking. The same field serves sitting, preview and review. */
const {
  body,
  modelValue,
  name,
  labelledby,
  readonly = false,
  right = [],
  struck = [],
  language = undefined,
} = defineProps<{
  body: SealedBody
  modelValue: Response | null
  /** Unique on the page: groups the radio buttons, names the fields. */
  name: string
  labelledby: string
  readonly?: boolean
  /** Options shown as right, where the key may be seen. */
  right?: string[]
  struck?: string[]
  language?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [Response | null] }>()
const field = computed(() => fields[body.asks])
const takes = computed(() =>
  field.value.takes({ answer: modelValue, name, labelledby, readonly, right, struck, language }),
)
const says = computed(() => {
  const { says: event, answer } = field.value
  if (!event || !answer) return {}
  return {
    [event]: (said: never) => {
      if (!readonly) emit('update:modelValue', answer(said))
    },
  }
})
</script>

<template>
  <component :is="field.is" :body="body" v-bind="takes" v-on="says">
    <template #beside="beside"><slot name="beside" v-bind="beside" /></template>
  </component>
</template>
