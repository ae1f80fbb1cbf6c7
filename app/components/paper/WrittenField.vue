<script setup lang="ts">
import type { SealedBody } from '~~/core/question/kinds/sealed'

/** Room for an answer of some length, with what is left of it. */
const { body, text } = defineProps<{
  body: Extract<SealedBody, { asks: 'written' }>
  text: string
  name: string
  labelledby: string
  readonly: boolean
  language?: string
}>()
const emit = defineEmits<{ write: [text: string] }>()
const words = computed(() => text.trim().split(/\s+/).filter(Boolean).length)
</script>

<template>
  <div>
    <textarea
      class="field font-serif text-lg"
      :rows="body.lines"
      :maxlength="body.longest"
      :value="text"
      :readonly="readonly"
      :aria-labelledby="labelledby"
      :aria-describedby="`${name}-left`"
      :lang="language || undefined"
      spellcheck="true"
      @input="emit('write', ($event.target as HTMLTextAreaElement).value)"
    />
    <p :id="`${name}-left`" class="text-small text-soft">
      {{ words }} {{ words === 1 ? 'word' : 'words'
      }}<template v-if="!readonly"> · {{ body.longest - text.length }} of {{ body.longest }} characters left</template>
    </p>
  </div>
</template>
