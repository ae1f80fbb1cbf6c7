<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { kindLabels } from '~~/core/question/kinds'

/** Begins a new question of a kind, with a word on what each kind is. */
const words: Record<keyof typeof kindLabels, string> = {
  choice: 'one option is right',
  choices: 'several options are right',
  trueFalse: 'a statement',
  yesNo: 'a question of yes or no',
  number: 'with tolerance and unit',
  text: 'a word or two, marked by itself',
  gaps: 'words, numbers or lists in a text',
  matching: 'what goes with what',
  sorting: 'things into groups',
  grid: 'boxes to tick in rows',
  ordering: 'steps into order',
  spot: 'a place marked on it',
  written: 'some lines, marked along a rubric',
  short: 'up to 90 characters',
  recording: 'sound, from the microphone',
}
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn btn-main">Write a question</MenuButton>
    <MenuItems
      class="absolute right-0 z-20 mt-1 w-80 max-w-[90vw] border border-rule bg-sheet py-1 shadow-lg outline-none"
    >
      <MenuItem v-for="(label, kind) in kindLabels" :key="kind" v-slot="{ active }">
        <NuxtLink
          :to="`/bank/new?kind=${kind}`"
          class="flex justify-between gap-3 px-3 py-1.5"
          :class="active && 'bg-petrol-tint'"
          ><span class="font-semibold">{{ label }}</span
          ><span class="text-right text-small text-soft">{{ words[kind] }}</span></NuxtLink
        >
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
