<script setup lang="ts">
import type { KindName } from '~~/core/question'
import { howLabels, mostTexts, type TextBody } from '~~/core/question/kinds/text'

const { body, slim = false } = defineProps<{ kind?: KindName; body: TextBody; slim?: boolean }>()
const emit = defineEmits<{ 'update:body': [TextBody] }>()
type Answer = TextBody['answers'][number]

const set = (values: Partial<TextBody>) => emit('update:body', { ...body, ...values })
const setAnswer = (index: number, values: Partial<Answer>) =>
  set({ answers: body.answers.map((answer, i) => (i === index ? { ...answer, ...values } : answer)) })
const matters = [
  { name: 'caseMatters', words: 'Capitals' },
  { name: 'accentsMatter', words: 'Accents' },
] as const
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <fieldset class="space-y-3">
    <legend class="small-head">Accepted answers</legend>
    <AcceptedAnswer
      v-for="(answer, index) in body.answers"
      :key="index"
      :answer="answer"
      :index="index"
      :only="body.answers.length === 1"
      @set="setAnswer(index, $event)"
      @remove="set({ answers: body.answers.filter((_, i) => i !== index) })"
    >
      <label class="text-note text-soft"
        >The answer<select
          class="field block py-1"
          :value="answer.how"
          @change="setAnswer(index, { how: value($event) as Answer['how'] })"
        >
          <option v-for="(words, how) in howLabels" :key="how" :value="how">{{ words }}</option>
        </select></label
      >
      <label class="grow text-note text-soft"
        >Text<input
          class="field block py-1"
          :value="answer.text"
          maxlength="200"
          @input="setAnswer(index, { text: value($event) })"
      /></label>
      <label v-for="each in matters" :key="each.name" class="text-note text-soft"
        >{{ each.words
        }}<select
          class="field block py-1"
          :value="String(answer[each.name] ?? '')"
          @change="
            setAnswer(index, { [each.name]: ({ true: true, false: false } as Record<string, boolean>)[value($event)] })
          "
        >
          <option value="">{{ body[each.name] ? 'matter, as set below' : 'do not matter, as set below' }}</option>
          <option value="true">matter here</option>
          <option value="false">do not matter here</option>
        </select></label
      >
    </AcceptedAnswer>
    <button
      type="button"
      class="btn"
      :disabled="body.answers.length >= mostTexts"
      @click="set({ answers: [...body.answers, { how: 'is', text: '', credit: 1, comment: '' }] })"
    >
      Accept another answer
    </button>
    <div class="flex flex-wrap items-end gap-4">
      <label v-if="!slim" class="text-note text-soft"
        >Words before the field<input
          class="field block w-44! py-1"
          :value="body.label"
          maxlength="60"
          @input="set({ label: value($event) })"
      /></label>
      <label class="text-note text-soft"
        >Longest answer<input
          class="field block w-24! py-1"
          type="number"
          min="1"
          max="500"
          :value="body.longest"
          @input="set({ longest: Number(value($event)) })"
      /></label>
      <label class="text-note text-soft"
        >Slips allowed<select
          class="field block py-1"
          :value="body.slips"
          @change="set({ slips: Number(value($event)) })"
        >
          <option v-for="n in 4" :key="n" :value="n - 1">{{ n === 1 ? 'none' : n - 1 }}</option>
        </select></label
      >
      <TickBox
        class="pb-1.5"
        :model-value="body.caseMatters"
        @update:model-value="set({ caseMatters: !body.caseMatters })"
        >capital letters matter</TickBox
      >
      <TickBox
        class="pb-1.5"
        :model-value="body.accentsMatter"
        @update:model-value="set({ accentsMatter: !body.accentsMatter })"
        >accents matter</TickBox
      >
    </div>
  </fieldset>
</template>
