<script setup lang="ts">
import { escapeHtml } from '~~/core/kit/escape'
import { plainText, type KindName } from '~~/core/question'
import type { ChoiceBody } from '~~/core/question/kinds/choice'
import { gapsMarked, type Gap, type GapsBody } from '~~/core/question/kinds/gaps'
import type { NumberBody } from '~~/core/question/kinds/number'
import type { TextBody } from '~~/core/question/kinds/text'

/** A text whose marked words are gaps. A marked word begins as the accepted answer, and each gap is set below. */
const { body } = defineProps<{ kind?: KindName; body: GapsBody }>()
const emit = defineEmits<{ 'update:body': [GapsBody] }>()

const lineBlank = { caseMatters: false, accentsMatter: false, slips: 0, label: '', longest: 100 }
const bodies = {
  text: (word: string): TextBody => ({ ...lineBlank, answers: [{ how: 'is', text: word, credit: 1, comment: '' }] }),
  number: (word: string): NumberBody => ({
    answers: [
      {
        value: /^-?\d+(\.\d+)?$/.test(word) ? word : '0',
        near: { by: 'absolute', tolerance: '0' },
        credit: 1,
        comment: '',
      },
    ],
    label: '',
    unit: '',
    unitAsked: false,
    style: 'point',
  }),
  list: (word: string): ChoiceBody => ({
    options: [
      { id: 'a', html: escapeHtml(word), comment: '', fixed: false, credit: 1 },
      { id: 'b', html: '', comment: '', fixed: false, credit: 0 },
    ],
    inOrder: false,
    layout: 'list',
  }),
}
const made = (id: string, as: Gap['as'], word: string, weight = 1) =>
  ({ id, weight, as, body: bodies[as](word) }) as Gap
const wordOf = (gap: Gap) =>
  (gap.as === 'number'
    ? gap.body.answers[0]?.value
    : gap.as === 'text'
      ? gap.body.answers[0]?.text
      : plainText(gap.body.options.find((option) => option.credit === 1)?.html ?? '')) ?? ''

/** Gaps follow the marks in the text: a new mark makes one, a mark taken away takes its gap along. */
function setText(text: string) {
  const marked = gapsMarked(text)
  const marks = new DOMParser().parseFromString(text, 'text/html').querySelectorAll('[data-gap]')
  const words = new Map([...marks].map((mark) => [mark.getAttribute('data-gap')!, mark.textContent ?? '']))
  const gaps = marked.map(
    (id) =>
      body.gaps.find((gap) => gap.id === id) ??
      made(id, /^-?\d+(\.\d+)?$/.test(words.get(id) ?? '') ? 'number' : 'text', words.get(id) ?? ''),
  )
  emit('update:body', { ...body, text, gaps })
}
const setGap = (id: string, gap: Gap) =>
  emit('update:body', { ...body, gaps: body.gaps.map((each) => (each.id === id ? gap : each)) })
const rules = [
  ['share', 'a share for every gap that is right'],
  ['all', 'everything when all gaps are right, else nothing'],
] as const
</script>

<template>
  <div class="space-y-4">
    <div>
      <span class="label mb-1">Text. Mark a word and press “Gap” to make it one.</span>
      <RichText gaps label="Text with gaps" :model-value="body.text" @update:model-value="setText" />
    </div>
    <EarnsSelect
      v-if="body.gaps.length > 1"
      :rule="body.rule"
      :rules="rules"
      @update:rule="emit('update:body', { ...body, rule: $event })"
    />
    <fieldset v-for="(gap, index) in body.gaps" :key="gap.id" class="border-l-4 border-rule pl-4">
      <legend class="small-head">Gap {{ index + 1 }}</legend>
      <div class="mb-2 mt-1 flex flex-wrap gap-4">
        <label class="text-note text-soft"
          >It is filled with
          <select
            class="field block py-1"
            :value="gap.as"
            @change="
              setGap(
                gap.id,
                made(gap.id, ($event.target as HTMLSelectElement).value as Gap['as'], wordOf(gap), gap.weight),
              )
            "
          >
            <option value="text">a word that is typed</option>
            <option value="number">a number</option>
            <option value="list">a choice from a list</option>
          </select>
        </label>
        <label v-if="body.rule === 'share'" class="text-note text-soft"
          >Counts<input
            class="field block w-20! py-1"
            type="number"
            min="0.01"
            max="100"
            step="any"
            :value="gap.weight"
            @change="setGap(gap.id, { ...gap, weight: Number(($event.target as HTMLInputElement).value) || 1 })"
        /></label>
      </div>
      <TextEditor
        v-if="gap.as === 'text'"
        slim
        :body="gap.body"
        @update:body="setGap(gap.id, { ...gap, body: $event })"
      />
      <NumberEditor
        v-else-if="gap.as === 'number'"
        slim
        :body="gap.body"
        @update:body="setGap(gap.id, { ...gap, body: $event })"
      />
      <OptionsEditor
        v-else
        :options="gap.body.options"
        mode="one"
        :group="gap.id"
        @update:options="setGap(gap.id, { ...gap, body: { ...gap.body, options: $event } })"
      />
    </fieldset>
  </div>
</template>
