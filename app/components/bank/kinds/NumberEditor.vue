<script setup lang="ts">
import type { KindName } from '~~/core/question'
import { unitNames } from '~~/core/kit/units'
import { mostNumbers, type NumberBody, type Nearness } from '~~/core/question/kinds/number'

const { body, slim = false } = defineProps<{ kind?: KindName; body: NumberBody; slim?: boolean }>()
const emit = defineEmits<{ 'update:body': [NumberBody] }>()
type Answer = NumberBody['answers'][number]

const set = (values: Partial<NumberBody>) => emit('update:body', { ...body, ...values })
const setAnswer = (index: number, values: Partial<Answer>) =>
  set({ answers: body.answers.map((answer, i) => (i === index ? { ...answer, ...values } : answer)) })
const nears: Record<Nearness['by'], Nearness> = {
  absolute: { by: 'absolute', tolerance: '0' },
  relative: { by: 'relative', tolerance: '0.02' },
  figures: { by: 'figures', digits: 3 },
  decimals: { by: 'decimals', digits: 1 },
  between: { by: 'between', below: '0', above: '0', open: 'none' },
}
const nearWords = {
  absolute: 'within ±',
  relative: 'within a share of',
  figures: 'equal to significant figures:',
  decimals: 'equal to decimals:',
  between: 'between two bounds',
}
const openWords = {
  none: 'both count',
  below: 'the lower does not',
  above: 'the upper does not',
  both: 'neither counts',
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <fieldset class="space-y-3">
    <legend class="small-head">Accepted numbers</legend>
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
        >Number<input
          class="field block py-1"
          :class="answer.value.startsWith('{=') ? 'w-56!' : 'w-28!'"
          :value="answer.value"
          inputmode="decimal"
          @input="setAnswer(index, { value: value($event) })"
      /></label>
      <label class="text-note text-soft"
        >counts when
        <select
          class="field block py-1"
          :value="answer.near.by"
          @change="setAnswer(index, { near: nears[value($event) as Nearness['by']] })"
        >
          <option v-for="(words, by) in nearWords" :key="by" :value="by">{{ words }}</option>
        </select>
      </label>
      <label v-if="'tolerance' in answer.near" class="text-note text-soft"
        >Tolerance<input
          class="field block w-20! py-1"
          :value="answer.near.tolerance"
          inputmode="decimal"
          @input="setAnswer(index, { near: { ...answer.near, tolerance: value($event) } as Nearness })"
      /></label>
      <template v-else-if="answer.near.by === 'between'">
        <label v-for="side in ['below', 'above'] as const" :key="side" class="text-note text-soft"
          >{{ side === 'below' ? 'Down by' : 'Up by'
          }}<input
            class="field block w-24! py-1"
            :value="answer.near[side] ?? ''"
            inputmode="decimal"
            placeholder="any"
            @input="setAnswer(index, { near: { ...answer.near, [side]: value($event).trim() || null } as Nearness })"
        /></label>
        <label class="text-note text-soft"
          >The bounds themselves<select
            class="field block py-1"
            :value="answer.near.open"
            @change="setAnswer(index, { near: { ...answer.near, open: value($event) } as Nearness })"
          >
            <option v-for="(words, open) in openWords" :key="open" :value="open">{{ words }}</option>
          </select></label
        >
      </template>
      <label v-else class="text-note text-soft"
        >Digits<input
          class="field block w-20! py-1"
          type="number"
          min="0"
          max="15"
          :value="answer.near.digits"
          @input="setAnswer(index, { near: { ...answer.near, digits: Number(value($event)) } as Nearness })"
      /></label>
    </AcceptedAnswer>
    <button
      type="button"
      class="btn"
      :disabled="body.answers.length >= mostNumbers"
      @click="set({ answers: [...body.answers, { value: '0', near: nears.absolute, credit: 0.5, comment: '' }] })"
    >
      Accept another number
    </button>
    <div class="flex flex-wrap items-end gap-3">
      <label v-if="!slim" class="text-note text-soft"
        >Words before the field<input
          class="field block w-44! py-1"
          :value="body.label"
          maxlength="60"
          @input="set({ label: value($event) })"
      /></label>
      <label class="text-note text-soft"
        >Unit<input
          class="field block w-28! py-1"
          list="units"
          :value="body.unit"
          maxlength="20"
          @input="set({ unit: value($event) })"
      /></label>
      <datalist id="units"><option v-for="unit in unitNames" :key="unit" :value="unit" /></datalist>
      <TickBox class="pb-1.5" :model-value="body.unitAsked" @update:model-value="set({ unitAsked: !body.unitAsked })"
        >the student writes the unit</TickBox
      >
      <label class="text-note text-soft"
        >Decimals are written<select
          class="field block py-1"
          :value="body.style"
          @change="set({ style: value($event) as 'point' | 'comma' })"
        >
          <option value="point">3.75</option>
          <option value="comma">3,75</option>
        </select></label
      >
    </div>
  </fieldset>
</template>
