<script setup lang="ts">
import type { KindName } from '~~/core/question'
import type { ChoicesBody } from '~~/core/question/kinds/choices'
import type { EditedOption } from './OptionsEditor.vue'

/** Options of a choice, choices, true/false or yes/no: which are right, and how several are scored. */
const { body, kind } = defineProps<{ body: ChoicesBody; kind: KindName }>()
const emit = defineEmits<{ 'update:body': [object] }>()
const setBody = (values: object) => emit('update:body', values)
const preset = computed(() => kind === 'trueFalse' || kind === 'yesNo')
const options = computed(() => body.options as EditedOption[])
const mode = computed(() => (kind !== 'choices' ? 'one' : body.rule === 'credits' ? 'credits' : 'several'))
</script>

<template>
  <div class="space-y-4">
    <div v-if="kind === 'choices'" class="flex flex-wrap items-end gap-4">
      <label class="text-note text-soft"
        >How it is scored
        <select
          class="field block py-1"
          :value="body.rule"
          @change="setBody({ rule: ($event.target as HTMLSelectElement).value })"
        >
          <option value="all">all or nothing</option>
          <option value="share">right less wrong share</option>
          <option value="credits">credits per option</option>
        </select>
      </label>
      <BoundsFields v-if="body.rule === 'credits'" :bounds="body" @change="setBody" />
      <TickBox
        class="pb-1.5"
        :model-value="body.tellHowMany"
        @update:model-value="setBody({ tellHowMany: !body.tellHowMany })"
        >tell how many are right</TickBox
      >
    </div>
    <OptionsEditor
      :options="options"
      :mode="mode"
      :preset="preset"
      group="options"
      @update:options="setBody({ options: $event })"
    />
    <div v-if="!preset" class="flex flex-wrap items-end gap-x-6 gap-y-2">
      <TickBox class="text-label" :model-value="body.inOrder" @update:model-value="setBody({ inOrder: !body.inOrder })"
        >options keep this order on every paper</TickBox
      >
      <label class="text-label"
        >Options stand
        <select
          class="field inline-block w-auto! py-0.5!"
          :value="body.layout"
          @change="setBody({ layout: ($event.target as HTMLSelectElement).value })"
        >
          <option value="list">one under another</option>
          <option value="columns">in two columns</option>
          <option value="row">in a row</option>
        </select></label
      >
    </div>
  </div>
</template>
