<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'

/** A value within a sentence: a control that opens in place. */
defineProps<{ words: string; name: string }>()
</script>

<template>
  <Popover v-slot="{ close }" as="span" class="relative inline-block">
    <PopoverButton
      class="ml-0.5 rounded border border-rule border-b-2 border-b-petrol bg-sheet px-1.5 font-sans text-[0.9375rem] font-semibold leading-6 text-petrol hover:bg-petrol-tint"
      :aria-label="`${name}: ${words}`"
      >{{ words }}</PopoverButton
    >
    <PopoverPanel
      class="absolute left-0 top-full z-20 mt-1 w-max min-w-52 max-w-[min(24rem,85vw)] border border-rule bg-sheet p-3 font-sans text-[0.9375rem] shadow-lg"
      focus
    >
      <slot :close="close" />
    </PopoverPanel>
  </Popover>
</template>
