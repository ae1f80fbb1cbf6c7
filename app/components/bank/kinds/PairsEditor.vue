<script setup lang="ts">
import type { KindName } from '~~/core/question'
import { plainText } from '~~/core/question/allowed-html'
import type { PairsBody } from '~~/core/question/kinds/pairs'

/** Matching: what goes with what. Sorting: things and the groups that they belong to. */
const { body, kind } = defineProps<{ body: PairsBody; kind: KindName }>()
const sorting = computed(() => kind === 'sorting')
const emit = defineEmits<{ 'update:body': [PairsBody] }>()
type Item = PairsBody['items'][number]
const set = (values: Partial<PairsBody>) => emit('update:body', { ...body, ...values })
const setItem = (id: string, values: Partial<Item>) =>
  set({ items: body.items.map((item) => (item.id === id ? { ...item, ...values } : item)) })
const words = (html: string, index: number) =>
  plainText(html).slice(0, 50) || `${sorting.value ? 'Group' : 'Partner'} ${index + 1}`
const target = (event: Event) => (event.target as HTMLSelectElement).value || null

/** A new left-hand entry of a matching brings a partner along. */
function setItems(items: Item[]) {
  const added = items.find((item) => !body.items.some((each) => each.id === item.id))
  if (!added || sorting.value) {
    set({ items })
    return
  }
  const partner = Array.from({ length: 200 }, (_, i) => `p${i + 1}`).find(
    (id) => !body.targets.some((each) => each.id === id),
  )!
  set({
    items: items.map((item) => (item === added ? { ...item, target: partner } : item)),
    targets: [...body.targets, { id: partner, html: '' }],
  })
}
</script>

<template>
  <div class="space-y-5">
    <fieldset>
      <legend class="small-head mb-2">
        {{ sorting ? 'Groups' : 'Right: partners to choose from; some may be left over' }}
      </legend>
      <EntryList
        :entries="body.targets"
        :name="sorting ? 'Group' : 'Partner'"
        :most="40"
        :make="(id) => ({ id, html: '' })"
        @change="set({ targets: $event })"
      />
    </fieldset>
    <fieldset>
      <legend class="small-head mb-2">{{ sorting ? 'Things to sort' : 'Left: what is matched' }}</legend>
      <EntryList
        v-slot="{ entry, index }"
        :entries="body.items"
        :name="sorting ? 'Thing' : 'Left entry'"
        :most="40"
        :make="(id) => ({ id, html: '', comment: '', target: null })"
        @change="setItems"
      >
        <div class="flex flex-wrap items-center gap-2">
          <label class="text-note text-soft"
            >{{ sorting ? 'belongs to' : 'goes with' }}
            <select
              class="field inline-block w-auto! max-w-[min(16rem,55vw)] py-0.5!"
              :aria-label="`${sorting ? 'Group' : 'Partner'} of entry ${index + 1}`"
              :value="entry.target ?? ''"
              @change="setItem(entry.id, { target: target($event) })"
            >
              <option value="">{{ sorting ? 'no group' : 'nothing' }}</option>
              <option v-for="(each, at) in body.targets" :key="each.id" :value="each.id">
                {{ words(each.html, at) }}
              </option>
            </select>
          </label>
          <CommentField
            class="min-w-40 grow"
            :label="`Comment when entry ${index + 1} is placed wrongly`"
            words="comment for who places it wrongly"
            :model-value="entry.comment"
            @update:model-value="setItem(entry.id, { comment: $event })"
          />
        </div>
      </EntryList>
    </fieldset>
    <label class="text-note text-soft"
      >A wrong pair takes away
      <select
        class="field inline-block w-auto! py-1"
        :value="body.wrongCost"
        @change="set({ wrongCost: Number(($event.target as HTMLSelectElement).value) })"
      >
        <option :value="0">nothing</option>
        <option :value="0.25">a quarter of a right one</option>
        <option :value="0.5">half of a right one</option>
        <option :value="1">as much as a right one earns</option>
      </select>
    </label>
  </div>
</template>
