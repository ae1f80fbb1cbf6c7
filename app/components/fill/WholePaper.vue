<script setup lang="ts">
import type { Blueprint, Count, Sort } from '~~/core/blueprint'
import type { Vocabulary } from '~~/core/question/vocabulary'
import { anything, heldOf, type Asked } from '~/composables/blueprint'

/** What holds for the whole paper: sums, difficulty, thinking levels, what is kept apart, and forms. */
const { blueprint, sorts, vocabulary, lacking } = defineProps<{
  blueprint: Blueprint
  sorts: readonly Sort[]
  vocabulary: Vocabulary
  lacking: ReadonlyMap<string, number>
}>()
const emit = defineEmits<{ set: [Partial<Blueprint>]; line: [asked: Asked, count: Count | null] }>()
const levels = computed(() =>
  vocabulary.schemes.flatMap((scheme) =>
    scheme.levels.map((level) => ({ id: `${scheme.id}:${level.id}`, name: `${scheme.name}: ${level.name}` })),
  ),
)
const lineOf = (asked: Asked) =>
  blueprint.cells.find(
    (cell) =>
      cell.objective === asked.objective &&
      cell.kind === asked.kind &&
      cell.difficulty === asked.difficulty &&
      cell.level === asked.level,
  )
const byDifficulty = (difficulty: number): Asked => ({ ...anything, difficulty })
const byLevel = (level: string): Asked => ({ ...anything, level })
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
const facility = (event: Event) => {
  const { value } = event.target as HTMLInputElement
  emit('set', { facility: value === '' ? null : Math.min(100, Math.max(0, Number(value))) / 100 })
}
</script>

<template>
  <div class="space-y-3">
    <p class="flex flex-wrap items-baseline gap-x-2 gap-y-2">
      In all
      <RangeField
        :bounds="blueprint.questions"
        unit="questions,"
        label="Questions"
        @set="emit('set', { questions: $event })"
      />
      <RangeField
        :bounds="blueprint.points"
        unit="points,"
        label="Points"
        :step="0.5"
        @set="emit('set', { points: $event })"
      />
      <RangeField :bounds="blueprint.minutes" unit="minutes," label="Minutes" @set="emit('set', { minutes: $event })" />
      <span class="whitespace-nowrap"
        >of which a usual student gets
        <input
          class="field w-16! px-2 py-0.5 text-right font-semibold text-petrol"
          type="number"
          min="0"
          max="100"
          step="5"
          aria-label="Share that a usual student gets right, in percent"
          placeholder="any"
          :value="blueprint.facility === null ? '' : Math.round(blueprint.facility * 100)"
          @change="facility"
        />
        % right.</span
      >
    </p>
    <div class="flex flex-wrap items-start gap-x-4 gap-y-2">
      <span class="pt-1">By difficulty</span>
      <label v-for="difficulty in [1, 2, 3, 4, 5]" :key="difficulty" class="flex items-start gap-1.5"
        ><span class="pt-1 text-soft">{{ difficulty }}</span
        ><CountField
          :count="lineOf(byDifficulty(difficulty))?.count ?? null"
          :holds="heldOf(byDifficulty(difficulty), sorts)"
          :label="`Questions of difficulty ${difficulty}`"
          :lacks="lacking.get(lineOf(byDifficulty(difficulty))?.id ?? '') ?? 0"
          @set="emit('line', byDifficulty(difficulty), $event)"
      /></label>
    </div>
    <details v-if="levels.length" :open="blueprint.cells.some((cell) => cell.level !== null)">
      <summary class="text-soft">By thinking level</summary>
      <div class="mt-2 grid gap-x-4 gap-y-1 sm:grid-cols-2">
        <label v-for="level in levels" :key="level.id" class="flex items-start justify-between gap-2"
          ><span class="pt-1">{{ level.name }}</span
          ><CountField
            :count="lineOf(byLevel(level.id))?.count ?? null"
            :holds="heldOf(byLevel(level.id), sorts)"
            :label="level.name"
            :lacks="lacking.get(lineOf(byLevel(level.id))?.id ?? '') ?? 0"
            @set="emit('line', byLevel(level.id), $event)"
        /></label>
      </div>
    </details>
    <p class="flex flex-wrap items-baseline gap-x-4 gap-y-2">
      <span class="whitespace-nowrap"
        >Nothing used since
        <input
          type="date"
          class="field w-40! py-0.5"
          aria-label="Leave out what was used since"
          :value="blueprint.unusedSince?.slice(0, 10) ?? ''"
          @change="
            emit('set', {
              unusedSince: ($event.target as HTMLInputElement).value
                ? `${($event.target as HTMLInputElement).value}T00:00:00.000Z`
                : null,
            })
          "
      /></span>
      <TickBox :model-value="blueprint.apart" @update:model-value="emit('set', { apart: !blueprint.apart })"
        >look-alikes kept apart</TickBox
      >
    </p>
    <p class="flex flex-wrap items-baseline gap-x-2">
      Make
      <input
        class="field w-14! px-2 py-0.5 text-right font-semibold text-petrol"
        type="number"
        min="1"
        max="6"
        aria-label="Parallel forms"
        :value="blueprint.forms"
        @change="emit('set', { forms: Math.min(6, Math.max(1, Math.round(number($event)) || 1)) })"
      />
      {{ blueprint.forms === 1 ? 'form.' : 'forms, as alike in difficulty as can be, that share at most' }}
      <template v-if="blueprint.forms > 1"
        ><input
          class="field w-16! px-2 py-0.5 text-right font-semibold text-petrol"
          type="number"
          min="0"
          max="200"
          aria-label="Questions that forms may share"
          :value="blueprint.shared"
          @change="emit('set', { shared: Math.min(200, Math.max(0, Math.round(number($event)) || 0)) })"
        />
        {{ blueprint.shared === 1 ? 'question.' : 'questions.' }}</template
      >
    </p>
  </div>
</template>
