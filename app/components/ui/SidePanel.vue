<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

/** A wide panel over the right of the page, for work that takes a while; what lies under it stays where it was. */
defineProps<{ open: boolean; title: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 flex justify-end">
      <DialogPanel class="flex w-full max-w-5xl flex-col bg-ground shadow-lg">
        <div class="flex flex-wrap items-center gap-3 border-b border-ink bg-sheet px-5 py-3">
          <DialogTitle class="min-w-0 grow font-serif text-xl font-semibold">{{ title }}</DialogTitle>
          <slot name="acts" />
          <button type="button" class="btn" @click="emit('close')">Close</button>
        </div>
        <div class="min-h-0 grow overflow-y-auto px-5 py-4"><slot /></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
