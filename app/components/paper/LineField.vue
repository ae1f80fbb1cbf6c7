<script setup lang="ts">
import type { SealedBody } from '~~/core/question/kinds/sealed'
import { unreadable } from '~~/core/question/unreadable'

/** A line to write: a number with its unit, or a few words. */
const {
  body,
  text,
  language = '',
} = defineProps<{
  body: Extract<SealedBody, { asks: 'number' | 'text' }>
  text: string
  name: string
  readonly: boolean
  language?: string
}>()
const emit = defineEmits<{ write: [text: string] }>()
const hint = computed(() => unreadable(body, { text }))
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-3 text-lg">
      <label :for="`${name}-field`" :class="body.label ? '' : 'sr-only'">{{ body.label || 'Your answer' }}</label>
      <input
        :id="`${name}-field`"
        class="field py-2"
        :class="body.asks === 'number' ? 'w-36!' : 'max-w-md'"
        type="text"
        :value="text"
        :readonly="readonly"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        :lang="language || undefined"
        inputmode="text"
        :maxlength="body.asks === 'text' ? body.longest : 60"
        :aria-describedby="hint ? `${name}-hint` : undefined"
        :aria-invalid="hint ? true : undefined"
        @input="emit('write', ($event.target as HTMLInputElement).value)"
      />
      <span v-if="body.asks === 'number' && body.unit">{{ body.unit }}</span>
      <span v-else-if="body.asks === 'number' && body.unitAsked" class="text-label text-soft">number and unit</span>
    </div>
    <p v-if="hint && !readonly" :id="`${name}-hint`" class="mt-1.5 text-label text-amber">{{ hint }}</p>
  </div>
</template>
