<script setup lang="ts">
import type { KindName } from '~~/core/question'
import type { RecordingBody, Rubric, ShortBody, WrittenBody } from '~~/core/question/kinds/by-hand'

/** What markers need: a rubric, a model answer; and how long an answer may be. */
type Body = WrittenBody | ShortBody | RecordingBody
const { body } = defineProps<{ kind?: KindName; body: Body }>()
const emit = defineEmits<{ 'update:body': [Body] }>()
const set = (values: object) => emit('update:body', { ...body, ...values } as Body)
const setLine = (index: number, values: Partial<Rubric[number]>) =>
  set({ rubric: body.rubric.map((line, i) => (i === index ? { ...line, ...values } : line)) })
const total = computed(() => body.rubric.reduce((all, line) => all + line.share, 0))
function addLine() {
  const id = Array.from({ length: 40 }, (_, i) => `l${i + 1}`).find(
    (each) => !body.rubric.some((line) => line.id === each),
  )!
  set({
    rubric: [
      ...body.rubric,
      { id, title: `Line ${body.rubric.length + 1}`, words: '', share: Math.max(0, 100 - total.value) },
    ],
  })
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <fieldset class="space-y-3">
    <legend class="small-head">Marked by hand</legend>
    <div class="flex flex-wrap gap-4">
      <label v-if="'longest' in body" class="text-note text-soft"
        >Longest answer, characters<input
          class="field block w-28! py-1"
          type="number"
          min="1"
          :max="'lines' in body ? 20000 : 90"
          :value="body.longest"
          @input="set({ longest: Number(value($event)) })"
      /></label>
      <label v-if="'lines' in body" class="text-note text-soft"
        >Lines shown<input
          class="field block w-20! py-1"
          type="number"
          min="2"
          max="40"
          :value="body.lines"
          @input="set({ lines: Number(value($event)) })"
      /></label>
      <label v-if="'label' in body" class="text-note text-soft"
        >Words before the field<input
          class="field block w-44! py-1"
          maxlength="60"
          :value="body.label"
          @input="set({ label: value($event) })"
      /></label>
      <label v-if="'seconds' in body" class="text-note text-soft"
        >Longest recording, seconds<input
          class="field block w-28! py-1"
          type="number"
          min="5"
          max="600"
          :value="body.seconds"
          @input="set({ seconds: Number(value($event)) })"
      /></label>
    </div>
    <div v-for="(line, index) in body.rubric" :key="line.id" class="flex flex-wrap items-end gap-2">
      <label class="text-note text-soft"
        >Looked for<input
          class="field block py-1"
          maxlength="160"
          :value="line.title"
          @input="setLine(index, { title: value($event) })"
      /></label>
      <label class="grow text-note text-soft"
        >In words<input
          class="field block py-1"
          maxlength="1000"
          :value="line.words"
          @input="setLine(index, { words: value($event) })"
      /></label>
      <label class="text-note text-soft"
        >Per cent<input
          class="field block w-20! py-1"
          type="number"
          min="0"
          max="100"
          step="5"
          :value="line.share"
          @input="setLine(index, { share: Number(value($event)) })"
      /></label>
      <button type="button" class="btn" @click="set({ rubric: body.rubric.filter((_, i) => i !== index) })">
        Take out
      </button>
    </div>
    <p class="flex items-center gap-3">
      <button type="button" class="btn" :disabled="body.rubric.length >= 20" @click="addLine">
        Add a line to the rubric</button
      ><span v-if="body.rubric.length" class="text-soft">{{ total }} % of the points</span>
    </p>
    <LabelledField label="Model answer, for markers">
      <textarea class="field" rows="3" maxlength="20000" :value="body.model" @input="set({ model: value($event) })" />
    </LabelledField>
  </fieldset>
</template>
