<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import type { FilterValue } from '~/composables/question-search'

/** Filters as small tags: those that are on, and one that opens the rest. */
const { values } = defineProps<{
  values: FilterValue[]
  /** Counting stopped somewhere: there are at least so many. */ atLeast?: boolean
}>()
const emit = defineEmits<{ toggle: [FilterValue] }>()
const groups = computed(() =>
  [
    { title: 'Kind', of: values.filter((each) => each.name === 'kind' && (each.count > 0 || each.on)) },
    { title: 'Objective', of: values.filter((each) => each.name === 'objective' && (each.count > 0 || each.on)) },
    { title: 'Difficulty', of: values.filter((each) => each.name === 'difficulty') },
    { title: 'Tag', of: values.filter((each) => each.name === 'tag') },
    { title: 'Thinking level', of: values.filter((each) => each.name === 'level' && (each.count > 0 || each.on)) },
    { title: 'Grade level', of: values.filter((each) => each.name === 'grade' && (each.count > 0 || each.on)) },
  ].filter((group) => group.of.length),
)
</script>

<template>
  <div class="flex flex-wrap items-center gap-1.5">
    <button
      v-for="value in values.filter((each) => each.on)"
      :key="value.name + value.value"
      class="tag"
      aria-pressed="true"
      @click="emit('toggle', value)"
    >
      {{ value.label }} <span aria-hidden="true">×</span>
    </button>
    <Popover class="relative">
      <PopoverButton class="tag">+ filter</PopoverButton>
      <PopoverPanel
        class="absolute left-0 z-20 mt-1 max-h-[70vh] w-72 overflow-y-auto border border-rule bg-sheet p-3 shadow-lg"
      >
        <fieldset v-for="group in groups" :key="group.title" class="mb-3">
          <legend class="small-head">{{ group.title }}</legend>
          <label v-for="value in group.of" :key="value.value" class="flex items-center gap-2 py-0.5 text-label">
            <input type="checkbox" class="accent-petrol" :checked="value.on" @change="emit('toggle', value)" />
            <span class="grow">{{ value.label }}</span><span class="text-soft"
              >{{ value.count }}{{ atLeast ? '+' : '' }}</span
            >
          </label>
        </fieldset>
      </PopoverPanel>
    </Popover>
  </div>
</template>
