<script setup lang="ts">
import type { Variable, Vary } from '~~/core/question/vary/schema'

/** Values that differ from paper to paper, and ten instances to look at. */
const { vary, instances } = defineProps<{
  vary: Vary | null
  instances: { values: Record<string, string>; stem: string; key: string }[]
}>()
const emit = defineEmits<{ 'update:vary': [Vary | null] }>()
const shown = ref(false)
const overs: Record<Variable['over']['by'], () => Variable['over']> = {
  range: () => ({ by: 'range', from: '1', to: '10', step: '1' }),
  list: () => ({ by: 'list', values: ['1', '2', '3'] }),
  computed: () => ({ by: 'computed', as: '1' }),
}
const set = (values: Partial<Vary>) => emit('update:vary', { variables: [], conditions: [], ...vary, ...values })
const setVariable = (index: number, values: Partial<Variable>) =>
  set({ variables: vary!.variables.map((each, i) => (i === index ? { ...each, ...values } : each)) })
const setOver = (index: number, values: object) =>
  setVariable(index, { over: { ...vary!.variables[index]!.over, ...values } as Variable['over'] })
const freeName = () =>
  [...'abcdfghklmnpqrstuvwxyz'].find((name) => !vary?.variables.some((each) => each.name === name)) ?? 'v1'
function take(index: number) {
  const variables = vary!.variables.filter((_, i) => i !== index)
  emit('update:vary', variables.length ? { ...vary!, variables } : null)
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <details :open="vary !== null || undefined">
    <summary class="small-head">
      Varies from paper to paper{{ vary ? `: ${vary.variables.map((each) => each.name).join(', ')}` : '' }}
    </summary>
    <div class="mt-3 space-y-3">
      <p class="text-label text-soft">
        Write a computation as <code>{= speed * time}</code> in the question, the options, the key or a comment;
        <code>{= speed * time ; 1}</code> has one decimal.
      </p>
      <div v-for="(variable, index) in vary?.variables ?? []" :key="index" class="flex flex-wrap items-end gap-2">
        <label class="text-note text-soft"
          >Name<input
            class="field block w-28! py-1 font-mono"
            maxlength="20"
            :value="variable.name"
            @change="setVariable(index, { name: value($event) })"
        /></label>
        <label class="text-note text-soft"
          >is<select
            class="field block py-1"
            :value="variable.over.by"
            @change="setVariable(index, { over: overs[value($event) as Variable['over']['by']]() })"
          >
            <option value="range">a number from a range</option>
            <option value="list">one of a list</option>
            <option value="computed">computed</option>
          </select></label
        >
        <template v-if="variable.over.by === 'range'">
          <label
            v-for="(words, part) in { from: 'from', to: 'to', step: 'in steps of' } as const"
            :key="part"
            class="text-note text-soft"
            >{{ words
            }}<input
              class="field block w-24! py-1"
              inputmode="decimal"
              :value="variable.over[part]"
              @change="setOver(index, { [part]: value($event) })"
          /></label>
        </template>
        <label v-else-if="variable.over.by === 'list'" class="grow text-note text-soft"
          >Values, with semicolons<input
            class="field block py-1"
            :value="variable.over.values.join('; ')"
            @change="
              setOver(index, {
                values: value($event)
                  .split(';')
                  .map((each) => each.trim())
                  .filter(Boolean),
              })
            "
        /></label>
        <label v-else class="grow text-note text-soft"
          >as<input
            class="field block py-1 font-mono"
            :value="variable.over.as"
            @change="setOver(index, { as: value($event) })"
        /></label>
        <button type="button" class="btn" @click="take(index)">Take out</button>
      </div>
      <div v-for="(condition, index) in vary?.conditions ?? []" :key="`c${index}`" class="flex items-end gap-2">
        <label class="grow text-note text-soft"
          >Only where<input
            class="field block py-1 font-mono"
            :value="condition"
            @change="
              set({
                conditions: vary!.conditions.map((each, i) => (i === index ? value($event) : each)).filter(Boolean),
              })
            "
        /></label>
        <button type="button" class="btn" @click="set({ conditions: vary!.conditions.filter((_, i) => i !== index) })">
          Take out
        </button>
      </div>
      <p class="flex flex-wrap gap-2">
        <button
          type="button"
          class="btn"
          :disabled="(vary?.variables.length ?? 0) >= 20"
          @click="set({ variables: [...(vary?.variables ?? []), { name: freeName(), over: overs.range() }] })"
        >
          Add a variable
        </button>
        <button
          v-if="vary"
          type="button"
          class="btn"
          :disabled="vary.conditions.length >= 10"
          @click="set({ conditions: [...vary.conditions, `${vary.variables[0]!.name} > 0`] })"
        >
          Add a condition
        </button>
        <button v-if="instances.length" type="button" class="btn" :aria-expanded="shown" @click="shown = !shown">
          {{ shown ? 'Hide the instances' : `Look at ${instances.length} instances` }}
        </button>
      </p>
      <ol v-if="shown" class="list-decimal space-y-2 border-t border-rule pl-6 pt-3">
        <li v-for="(instance, index) in instances" :key="index">
          <WrittenText :html="instance.stem" />
          <p class="text-label">
            <span class="text-soft"
              >{{
                Object.entries(instance.values)
                  .map(([name, each]) => `${name} = ${each}`)
                  .join(', ')
              }}
              · Key</span
            >
            <span class="text-green">{{ instance.key }}</span>
          </p>
        </li>
      </ol>
    </div>
  </details>
</template>
