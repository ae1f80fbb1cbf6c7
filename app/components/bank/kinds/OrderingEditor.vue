<script setup lang="ts">
import type { KindName } from '~~/core/question'
import type { OrderingBody } from '~~/core/question/kinds/ordering'

const { body } = defineProps<{ kind?: KindName; body: OrderingBody }>()
const emit = defineEmits<{ 'update:body': [OrderingBody] }>()
const set = (values: Partial<OrderingBody>) => emit('update:body', { ...body, ...values })
const setComment = (id: string, comment: string) =>
  set({ items: body.items.map((item) => (item.id === id ? { ...item, comment } : item)) })
</script>

<template>
  <fieldset class="space-y-3">
    <legend class="small-head">Lines, in the right order. Students get them shuffled.</legend>
    <EntryList
      v-slot="{ entry, index }"
      ordered
      :entries="body.items"
      name="Line"
      :make="(id) => ({ id, html: '', comment: '' })"
      @change="set({ items: $event })"
    >
      <CommentField
        :label="`Comment when line ${index + 1} is misplaced`"
        words="comment for who misplaces it"
        :model-value="entry.comment"
        @update:model-value="setComment(entry.id, $event)"
      />
    </EntryList>
    <div class="flex flex-wrap gap-4">
      <label class="text-note text-soft"
        >How it is scored<select
          class="field block py-1"
          :value="body.rule"
          @change="set({ rule: ($event.target as HTMLSelectElement).value as OrderingBody['rule'] })"
        >
          <option value="exact">only the whole order is right</option>
          <option value="places">lines in their right places</option>
          <option value="neighbours">right neighbours</option>
          <option value="moves">longest part that is in order</option>
        </select></label
      >
      <label class="text-note text-soft"
        >Shown as<select
          class="field block py-1"
          :value="body.layout"
          @change="set({ layout: ($event.target as HTMLSelectElement).value as OrderingBody['layout'] })"
        >
          <option value="list">a list</option>
          <option value="row">a row</option>
        </select></label
      >
    </div>
  </fieldset>
</template>
