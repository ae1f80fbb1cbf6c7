<script setup lang="ts">
import { letter } from '~~/core/question/kinds/letter'
import type { SealedBody } from '~~/core/question/kinds/kind'
import { unreadable } from '~~/core/question/unreadable'

/** Where a student answers, for every way of asking. The same field serves sitting, preview and review. */
export interface Response { chosen?: string[], text?: string }

const { body, modelValue, name, readonly = false, right = [], struck = [] } = defineProps<{
  body: SealedBody
  modelValue: Response | null
  /** Unique on the page: groups the radio buttons, names the field. */
  name: string
  labelledby: string
  readonly?: boolean
  /** Options shown as right, where the key may be seen. */
  right?: string[]
  struck?: string[]
}>()
const emit = defineEmits<{ 'update:modelValue': [Response | null], 'strike': [string] }>()

const chosen = computed(() => modelValue?.chosen ?? [])
const text = computed(() => modelValue?.text ?? '')
const hint = computed(() => unreadable(body, { text: text.value }))

function choose(id: string) {
  if (readonly) return
  if (body.asks === 'one') emit('update:modelValue', { chosen: [id] })
  else {
    const next = chosen.value.includes(id) ? chosen.value.filter((each) => each !== id) : [...chosen.value, id]
    emit('update:modelValue', next.length ? { chosen: next } : null)
  }
}
const write = (value: string) => emit('update:modelValue', value === '' ? null : { text: value })
</script>

<template>
  <div v-if="body.asks === 'one' || body.asks === 'several'" :role="body.asks === 'one' ? 'radiogroup' : 'group'" :aria-labelledby="labelledby">
    <p v-if="body.asks === 'several'" class="mb-2 text-[0.9375rem] text-soft">{{ body.exactly ? `Choose ${body.exactly}.` : 'Choose all that apply.' }}</p>
    <div class="space-y-2">
      <div v-for="(option, index) in body.options" :key="option.id" class="flex items-stretch gap-1">
        <label
          class="flex min-w-0 grow items-start gap-3 rounded border px-3.5 py-2.5"
          :class="[chosen.includes(option.id) ? 'border-petrol bg-petrol-tint shadow-[inset_4px_0_0_var(--petrol)]' : 'border-rule bg-sheet', readonly ? '' : 'cursor-pointer hover:border-petrol']"
        >
          <input
            class="peer sr-only" :type="body.asks === 'one' ? 'radio' : 'checkbox'" :name="name" :value="option.id" :checked="chosen.includes(option.id)"
            :disabled="readonly" @change="choose(option.id)"
          >
          <span
            class="mt-0.5 grid h-6 min-w-6 place-items-center rounded border px-1 text-[0.875rem] font-semibold peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-bloom"
            :class="chosen.includes(option.id) ? 'border-petrol bg-petrol text-petrol-ink' : 'border-rule'"
          >{{ letter(index) }}</span>
          <WrittenText :html="option.html" class="min-w-0 text-lg" :class="struck.includes(option.id) && 'text-soft line-through'" />
          <span v-if="right.includes(option.id)" class="ml-auto shrink-0 self-center text-[0.875rem] font-semibold text-green">✓ right answer</span>
        </label>
        <slot name="beside" :option="option.id" :letter="letter(index)" />
      </div>
    </div>
  </div>
  <div v-else>
    <div class="flex flex-wrap items-center gap-3 text-lg">
      <label :for="`${name}-field`" :class="body.label ? '' : 'sr-only'">{{ body.label || 'Your answer' }}</label>
      <input
        :id="`${name}-field`" class="field py-2" :class="body.asks === 'number' ? 'w-36!' : 'max-w-md'" type="text" :value="text" :readonly="readonly" autocomplete="off" autocapitalize="off" spellcheck="false"
        :inputmode="body.asks === 'number' && !body.unitAsked ? 'decimal' : 'text'" :maxlength="body.asks === 'text' ? body.longest : 60"
        :aria-describedby="hint ? `${name}-hint` : undefined" :aria-invalid="hint ? true : undefined" @input="write(($event.target as HTMLInputElement).value)"
      >
      <span v-if="body.asks === 'number' && body.unit">{{ body.unit }}</span>
      <span v-else-if="body.asks === 'number' && body.unitAsked" class="text-[0.9375rem] text-soft">number and unit</span>
    </div>
    <p v-if="hint && !readonly" :id="`${name}-hint`" class="mt-1.5 text-[0.9375rem] text-amber">{{ hint }}</p>
  </div>
</template>
