<script setup lang="ts">
/** What every accepted answer has, whatever is compared: what it earns, a comment, and a way out. */
const { answer, index } = defineProps<{
  answer: { credit: number; comment: string }
  index: number
  /** The only one stays. */
  only: boolean
}>()
const emit = defineEmits<{ set: [values: { credit?: number; comment?: string }]; remove: [] }>()
</script>

<template>
  <div class="flex flex-wrap items-end gap-2">
    <slot />
    <label class="text-note text-soft"
      >earns<input
        class="field block w-20! py-1"
        type="number"
        min="0"
        max="1"
        step="0.25"
        :value="answer.credit"
        @input="emit('set', { credit: Number(($event.target as HTMLInputElement).value) })"
    /></label>
    <button v-if="!only" type="button" class="btn" @click="emit('remove')">Take out</button>
    <CommentField
      class="basis-full"
      :label="`Comment on accepted answer ${index + 1}`"
      words="comment on this answer"
      :model-value="answer.comment"
      @update:model-value="emit('set', { comment: $event })"
    />
  </div>
</template>
