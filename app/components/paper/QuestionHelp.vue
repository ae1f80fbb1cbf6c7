<script setup lang="ts">
import { CircleAlert, CircleCheck, CircleDot } from '@lucide/vue'
import { count } from '~~/core/kit/phrases'
import type { SheetQuestion } from '~~/core/paper/schema'

/** Checking an answer and asking for hints while a paper is sat, where the rules help with it. */
const { entry } = defineProps<{ entry: SheetQuestion; closed: boolean }>()
const sitting = useSitting()
const rule = computed(() => sitting.opened!.help!.rule)
const help = computed(() => sitting.help[entry.id])
const problem = ref('')
const canAsk = computed(() => sitting.canWrite && !sitting.asking && !help.value?.settled)
const byPerson = computed(() => ['written', 'recording'].includes(entry.body.asks))
const verdicts = {
  right: { words: 'Right', icon: CircleCheck, tone: 'text-green' },
  partly: { words: 'Partly right', icon: CircleDot, tone: 'text-amber' },
  wrong: { words: 'Not right', icon: CircleAlert, tone: 'text-red' },
}
const verdict = computed(() => help.value?.verdict && verdicts[help.value.verdict])
const left = computed(() => {
  if (!help.value?.checks || help.value.verdict === 'right') return ''
  if (help.value.left === 0) return 'There is no further try.'
  const cost = rule.value.cost ? `, each at ${rule.value.cost} % of the points` : ''
  return help.value.left === null
    ? `You may try again${cost}.`
    : `${count(help.value.left, 'try', 'tries')} left${cost}.`
})
async function ask(what: 'check' | 'hint') {
  problem.value = ''
  try {
    await sitting[what](entry.id)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <div v-if="help" class="mt-3 space-y-2">
    <div class="flex flex-wrap items-center gap-3">
      <button
        v-if="rule.check && !byPerson && !help.settled"
        type="button"
        class="btn"
        :disabled="!canAsk || closed || !sitting.answers[entry.id]?.response"
        @click="ask('check')"
      >
        Check this answer
      </button>
      <button
        v-if="rule.hints && help.hintsLeft && !help.settled"
        type="button"
        class="btn btn-quiet"
        :disabled="!canAsk || closed"
        @click="ask('hint')"
      >
        {{ help.hints.length ? 'Another hint' : 'A hint'
        }}<template v-if="rule.hintCost">, for {{ rule.hintCost }} % of the points</template>
      </button>
      <p role="status" class="flex items-center gap-1.5">
        <template v-if="verdict && sitting.asking !== entry.id">
          <component :is="verdict.icon" class="size-5" :class="verdict.tone" aria-hidden="true" />
          <span class="font-semibold" :class="verdict.tone">{{ verdict.words }}</span>
        </template>
        <span class="text-soft">{{ left }}</span>
      </p>
    </div>
    <ProblemNote :words="problem" />
    <div v-if="help.comments.length" class="border-l-4 border-rule pl-4">
      <WrittenText v-for="(comment, i) in help.comments" :key="i" :html="comment" />
    </div>
    <ol v-if="help.hints.length" class="space-y-1 border-l-4 border-petrol pl-4" aria-label="Hints">
      <li v-for="(hint, i) in help.hints" :key="i">
        <span class="small-head">Hint {{ i + 1 }}</span>
        <WrittenText :html="hint" />
      </li>
    </ol>
  </div>
</template>
