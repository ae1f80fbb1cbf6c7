<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const { wide = false } = defineProps<{ open: boolean; title: string; wide?: boolean }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-0 overflow-y-auto p-4">
      <div class="flex min-h-full items-center justify-center">
        <DialogPanel class="w-full bg-sheet p-6 shadow-lg" :class="wide ? 'max-w-3xl' : 'max-w-lg'">
          <DialogTitle class="border-b border-ink pb-2 font-serif text-xl font-semibold">{{ title }}</DialogTitle>
          <div class="mt-4"><slot /></div>
        </DialogPanel>
      </div>
    </div>
  </Dialog>
</template>
