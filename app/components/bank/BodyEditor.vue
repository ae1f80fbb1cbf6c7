<script setup lang="ts">
import type { Question } from '~~/core/question'
import type { ChoicesBody } from '~~/core/question/kinds/choices'
import type { EditedOption } from './kinds/OptionsEditor.vue'

/** What the kind of a question adds to its stem: options, keys, gaps, regions, rubrics. */
const { question } = defineProps<{ question: Question }>()
const emit = defineEmits<{ 'update:body': [object] }>()
const setBody = (values: object) => emit('update:body', { ...question.body, ...values })
const preset = computed(() => question.kind === 'trueFalse' || question.kind === 'yesNo')
const choosing = computed(() =>
  question.kind === 'choice' || question.kind === 'choices' || preset.value ? (question.body as ChoicesBody) : null,
)
const options = computed(() => choosing.value?.options as EditedOption[] | undefined)
const mode = computed(() =>
  question.kind !== 'choices' ? 'one' : (question.body as ChoicesBody).rule === 'credits' ? 'credits' : 'several',
)
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <div v-if="choosing && options" class="space-y-4">
    <div v-if="question.kind === 'choices'" class="flex flex-wrap items-end gap-4">
      <label class="text-note text-soft"
        >How it is scored
        <select
          class="field block py-1"
          :value="choosing.rule"
          @change="setBody({ rule: ($event.target as HTMLSelectElement).value })"
        >
          <option value="all">all or nothing</option>
          <option value="share">right less wrong share</option>
          <option value="credits">credits per option</option>
        </select>
      </label>
      <template v-if="choosing.rule === 'credits'">
        <label class="text-note text-soft"
          >at least<input
            class="field block w-20! py-1"
            type="number"
            max="0"
            step="0.5"
            :value="choosing.lower"
            @input="setBody({ lower: number($event) })"
        /></label>
        <label class="text-note text-soft"
          >at most<input
            class="field block w-20! py-1"
            type="number"
            min="0"
            step="0.5"
            :value="choosing.upper ?? ''"
            placeholder="all"
            @input="setBody({ upper: ($event.target as HTMLInputElement).value === '' ? null : number($event) })"
        /></label>
      </template>
      <label class="flex items-center gap-1.5 pb-1.5"
        ><input
          type="checkbox"
          class="accent-petrol"
          :checked="choosing.tellHowMany"
          @change="setBody({ tellHowMany: !choosing.tellHowMany })"
        />
        tell how many are right</label
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
      <label class="flex items-center gap-1.5 text-label"
        ><input
          type="checkbox"
          class="accent-petrol"
          :checked="choosing.inOrder"
          @change="setBody({ inOrder: !choosing.inOrder })"
        />
        options keep this order on every paper</label
      >
      <label class="text-label"
        >Options stand
        <select
          class="field inline-block w-auto! py-0.5!"
          :value="choosing.layout"
          @change="setBody({ layout: ($event.target as HTMLSelectElement).value })"
        >
          <option value="list">one under another</option>
          <option value="columns">in two columns</option>
          <option value="row">in a row</option>
        </select></label
      >
    </div>
  </div>
  <NumberEditor v-else-if="question.kind === 'number'" :body="question.body" @update:body="setBody" />
  <TextEditor v-else-if="question.kind === 'text'" :body="question.body" @update:body="setBody" />
  <GapsEditor v-else-if="question.kind === 'gaps'" :body="question.body" @update:body="setBody" />
  <PairsEditor
    v-else-if="question.kind === 'matching' || question.kind === 'sorting'"
    :body="question.body"
    :sorting="question.kind === 'sorting'"
    @update:body="setBody"
  />
  <OrderingEditor v-else-if="question.kind === 'ordering'" :body="question.body" @update:body="setBody" />
  <SpotEditor v-else-if="question.kind === 'spot'" :body="question.body" @update:body="setBody" />
  <ByHandEditor
    v-else-if="question.kind === 'written' || question.kind === 'short' || question.kind === 'recording'"
    :body="question.body"
    @update:body="setBody"
  />
</template>
