<script setup lang="ts">
import type { SealedBody } from '~~/core/question/kinds/sealed'
import { fields } from './fields'
import type { Response } from './response'

/** Where a student answers, for every way of asking. The same field serves sitting, preview and review. */
const {
  body,
  readonly = false,
  right = [],
  struck = [],
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
const GapsField = defineAsyncComponent(fields.gaps)
const PairsField = defineAsyncComponent(fields.pairs)
const OrderField = defineAsyncComponent(fields.order)
const SpotField = defineAsyncComponent(fields.spot)
const PlacesField = defineAsyncComponent(fields.places)
const RecordingField = defineAsyncComponent(fields.recording)
const set = (value: Response | null) => {
  if (!readonly) emit('update:modelValue', value)
}
</script>

<template>
  <ChoiceField
    v-if="body.asks === 'one' || body.asks === 'several'"
    :body="body"
    :chosen="modelValue?.chosen ?? []"
    :name="name"
    :labelledby="labelledby"
    :readonly="readonly"
    :right="right"
    :struck="struck"
    @choose="set($event.length ? { chosen: $event } : null)"
  >
    <template #beside="beside"><slot name="beside" v-bind="beside" /></template>
  </ChoiceField>
  <LineField
    v-else-if="body.asks === 'number' || body.asks === 'text'"
    :body="body"
    :text="modelValue?.text ?? ''"
    :name="name"
    :readonly="readonly"
    :language="language"
    @write="set($event === '' ? null : { text: $event })"
  />
  <GapsField
    v-else-if="body.asks === 'gaps'"
    :body="body"
    :gaps="modelValue?.gaps ?? {}"
    :name="name"
    :labelledby="labelledby"
    :readonly="readonly"
    :language="language"
    @fill="set(Object.keys($event).length ? { gaps: $event } : null)"
  />
  <PairsField
    v-else-if="body.asks === 'pairs'"
    :body="body"
    :pairs="modelValue?.pairs ?? {}"
    :name="name"
    :labelledby="labelledby"
    :readonly="readonly"
    @pair="set(Object.keys($event).length ? { pairs: $event } : null)"
  />
  <OrderField
    v-else-if="body.asks === 'order'"
    :body="body"
    :order="modelValue?.order ?? null"
    :labelledby="labelledby"
    :readonly="readonly"
    @arrange="set($event && { order: $event })"
  />
  <SpotField
    v-else-if="body.asks === 'spot'"
    :body="body"
    :points="modelValue?.points ?? []"
    :labelledby="labelledby"
    :readonly="readonly"
    @mark="set($event.length ? { points: $event } : null)"
  />
  <PlacesField
    v-else-if="body.asks === 'places'"
    :body="body"
    :chosen="modelValue?.chosen ?? []"
    :name="name"
    :labelledby="labelledby"
    :readonly="readonly"
    :right="right"
    @choose="set($event.length ? { chosen: $event } : null)"
  />
  <WrittenField
    v-else-if="body.asks === 'written'"
    :body="body"
    :text="modelValue?.text ?? ''"
    :name="name"
    :labelledby="labelledby"
    :readonly="readonly"
    :language="language"
    @write="set($event === '' ? null : { text: $event })"
  />
  <RecordingField
    v-else
    :body="body"
    :answer="modelValue"
    :labelledby="labelledby"
    :readonly="readonly"
    @record="set($event)"
  />
</template>
