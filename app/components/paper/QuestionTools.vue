<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import type { SheetQuestion } from '~~/core/paper/schema'

/** What a student may use for one question: a calculator, and scrap paper that stays in this browser and is never handed in. */
const { tools, calculator, paper } = defineProps<{
  /** Those of the question. */
  tools: SheetQuestion['tools']
  /** The one that the quiz gives on every question. */
  calculator: 'none' | 'plain' | 'scientific'
  /** Names the scrap paper. */
  paper: string
}>()
/** A question that brings a calculator brings a scientific one. */
const isPlain = computed(() => calculator === 'plain' && !tools.includes('calculator'))
const shown = computed(() => [
  ...(calculator !== 'none' || tools.includes('calculator') ? (['calculator'] as const) : []),
  ...tools.filter((tool) => tool !== 'calculator'),
])
const open = ref<'calculator' | 'scrap paper' | null>(null)
const sum = ref('')
const answer = ref('')
const scrap = useLocalStorage(`thistle:scrap:${paper}`, '')
const id = useId()

/** The calculator comes only when it is opened: it is larger than the rest of the page. */
async function reckon() {
  if (!sum.value.trim()) {
    answer.value = ''
    return
  }
  try {
    if (isPlain.value && /[^\d\s.,+*/×÷:()−-]/.test(sum.value)) {
      answer.value = 'This calculator adds, takes away, multiplies and divides.'
      return
    }
    const { compute } = await import('~~/core/question/vary/expression')
    answer.value = compute(
      sum.value.replace(/,/g, '.').replace(/×/g, '*').replace(/÷|:/g, '/').replace(/−/g, '-').replace(/√/g, 'sqrt'),
      {},
    ).replace('-', '−')
  } catch (error) {
    answer.value = sentenceOf(error)
  }
}
</script>

<template>
  <div class="mt-2">
    <div class="flex flex-wrap gap-2">
      <button
        v-for="tool in shown"
        :key="tool"
        type="button"
        class="btn btn-quiet text-label"
        :aria-expanded="open === tool"
        @click="open = open === tool ? null : tool"
      >
        {{ tool === 'calculator' ? 'Calculator' : 'Scrap paper' }}
      </button>
    </div>
    <form
      v-if="open === 'calculator'"
      class="mt-1 flex max-w-md flex-wrap items-end gap-2 border-l-4 border-rule pl-3"
      @submit.prevent="reckon"
    >
      <label class="grow text-note text-soft"
        >{{ isPlain ? 'A sum, such as 3 × (4.2 + 1)' : 'A sum, such as 3 × (4.2 + 1), sqrt(2) or sin(30 deg)'
        }}<input v-model="sum" class="field block py-1 font-mono" autocomplete="off" maxlength="200"
      /></label>
      <button class="btn py-1">Reckon</button>
      <output class="w-full font-semibold" aria-live="polite">{{ answer }}</output>
    </form>
    <div v-if="open === 'scrap paper'" class="mt-1 border-l-4 border-rule pl-3">
      <label class="text-note text-soft" :for="id">Yours alone; it stays in this browser</label
      ><textarea :id="id" v-model="scrap" class="field" rows="4" maxlength="5000" />
    </div>
  </div>
</template>
