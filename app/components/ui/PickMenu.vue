<script setup lang="ts" generic="T extends string | number">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

/**
 * Does something with one of several values. A menu and not a select: with the keyboard a select acts at the first press
 * of an arrow key.
 */
const { options, up = false } = defineProps<{
  words: string
  options: readonly { value: T; label: string }[]
  /** Opens above its button. */
  up?: boolean
}>()
const emit = defineEmits<{ pick: [value: T] }>()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn py-1" :disabled="!options.length">{{ words }} <span aria-hidden="true">▾</span></MenuButton>
    <MenuItems
      class="absolute left-0 z-20 max-h-72 w-max max-w-[min(22rem,85vw)] overflow-y-auto border border-rule bg-sheet py-1 shadow-lg"
      :class="up ? 'bottom-full mb-1' : 'top-full mt-1'"
    >
      <MenuItem v-for="option in options" :key="option.value" v-slot="{ active }">
        <button
          type="button"
          class="block w-full truncate px-3 py-1 text-left"
          :class="active && 'bg-petrol-tint'"
          @click="emit('pick', option.value)"
        >
          {{ option.label }}
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
