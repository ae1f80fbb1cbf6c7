<script setup lang="ts">
import { pointsText } from '~~/core/kit/exact'
import type { SheetQuestion } from '~~/core/paper/schema'
import { sittingRoutes } from '~/client/sittings'
import { help, marks, tools } from './fields'
import { keepRecordingKey } from './response'

/** One question while it is being sat: answering, striking out, its tools, coming back to it. */
const { entry, here, paper, closed } = defineProps<{
  entry: SheetQuestion
  here: boolean
  paper: string
  /** The clock of its section has ended, or the section was left. */
  closed: boolean
}>()
const emit = defineEmits<{ here: [] }>()
const sitting = useSitting()
const canWrite = computed(
  () => sitting.canWrite && !closed && sitting.asking !== entry.id && !sitting.help[entry.id]?.settled,
)
const QuestionTools = defineAsyncComponent(tools)
const OwnMarks = defineAsyncComponent(marks)
const QuestionHelp = defineAsyncComponent(help)
provide(keepRecordingKey, (sound, seconds) =>
  sitting.keepFile(entry.id, async () => {
    const { src } = await sittingRoutes.keepRecording({ id: paper, body: sound })
    return { sound: src, seconds }
  }),
)
/** What the rules put at hand. */
const given = computed(() => sitting.opened!.tools)
const answer = computed(() => sitting.answers[entry.id])
const struck = computed(() => sitting.struck[entry.id] ?? [])
/** The one that comes first where two are read together. */
const wanted = computed(() => sitting.opened?.sheet.language?.split('+')[0] ?? null)
</script>

<template>
  <article
    :id="`q-${entry.id}`"
    tabindex="-1"
    class="mb-10 scroll-mt-24 outline-none"
    :aria-labelledby="`n-${entry.id}`"
    @focusin="emit('here')"
  >
    <StageEdit :item="entry.id" class="float-right" />
    <p :id="`n-${entry.id}`" class="text-label" :class="here ? 'text-bloom' : 'text-soft'">
      Question {{ entry.number }} · {{ pointsText(entry.points) }} {{ entry.points === 1 ? 'point' : 'points'
      }}<template v-if="entry.required"> · has to be answered</template>
      <span v-if="wanted && wanted !== entry.language" class="text-amber"
        >· not translated into {{ languageName(wanted) }}</span
      >
    </p>
    <WrittenText :id="`s-${entry.id}`" :html="entry.stem" :language="entry.language" class="mb-4 mt-0.5 text-xl" />
    <AnswerField
      :body="entry.body"
      :name="entry.id"
      :labelledby="`s-${entry.id}`"
      :model-value="answer?.response ?? null"
      :readonly="!canWrite"
      :struck="struck"
      :language="entry.language"
      @update:model-value="sitting.change(entry.id, { response: $event })"
    >
      <template #beside="{ option, letter }">
        <button
          v-if="given.strike"
          type="button"
          class="btn btn-quiet min-w-9 px-1.5 text-note"
          :aria-pressed="struck.includes(option)"
          :aria-label="`Strike out ${letter}`"
          title="Strike out"
          @click="sitting.strike(entry.id, option)"
        >
          <span aria-hidden="true" class="line-through">{{ letter }}</span>
        </button>
      </template>
    </AnswerField>
    <QuestionHelp v-if="sitting.opened?.help" :entry="entry" :closed="closed" />
    <QuestionTools
      v-if="entry.tools.length || given.calculator !== 'none'"
      :tools="entry.tools"
      :calculator="given.calculator"
      :paper="`${paper}:${entry.id}`"
    />
    <OwnMarks
      v-if="given.notes || given.highlight"
      :item="entry.id"
      :text-id="`s-${entry.id}`"
      :tools="given"
      :readonly="sitting.phase !== 'sitting'"
    />
    <div class="-ml-2 mt-1.5 flex flex-wrap gap-x-3">
      <button
        v-if="given.flags"
        type="button"
        class="btn btn-quiet text-label"
        :class="answer?.flagged && 'text-bloom!'"
        :aria-pressed="answer?.flagged ?? false"
        :disabled="!canWrite"
        @click="sitting.change(entry.id, { flagged: !answer?.flagged })"
      >
        <span aria-hidden="true">⚑</span> {{ answer?.flagged ? 'Marked to come back to' : 'Come back to this' }}
      </button>
      <button
        v-if="entry.body.asks === 'one' && answer?.response && canWrite"
        type="button"
        class="btn btn-quiet text-label"
        @click="sitting.change(entry.id, { response: null })"
      >
        Clear my choice
      </button>
    </div>
  </article>
</template>
